import type { FrameRange } from "../time/rate";
import { type FrameFeatures, lumaStatistics } from "./frame-features";
import type { PictureMatcher } from "./picture-match";
import { strengthOf } from "./strength";

/** A range in which the picture becomes black or white, and another picture emerges from it. */
export interface FadeEvidence {
  /** The last of the emptiest frames, from which the new picture rises. */
  frame: number;
  range: FrameRange;
  /** 0 to 1; 0.5 where a fade is as likely as not. */
  strength: number;
}

/** Seconds within which the full pictures are searched on each side. */
const REACH_SECONDS = 1.5;
/** Contrast (standard deviation of luma, 0 to 255) below which a picture has none to lose. */
const LEAST_CONTRAST = 3;
/** Largest share of its contrast that the picture keeps at its emptiest. */
const EMPTY = 0.25;
/** Mean luma of an empty picture: black or white. */
const BLACK = 30;
const WHITE = 215;
/** Share of the contrast at which the fade begins and ends. */
const FULL = 0.95;
/** Largest share of the whole change of brightness in one frame. */
const LARGEST_STEP = 0.5;
/** Evidence at which a fade is as likely as not. */
const EVEN = 0.3;

/** 1 when brightness changes evenly, 0 when a single frame makes half of the change, as a flash or a light switch does. */
function evenness(means: readonly number[]): number {
  const steps = means.map((mean, i) => Math.abs(mean - (means[i - 1] ?? mean)));
  const share = Math.max(...steps) / (Math.max(...means) - Math.min(...means) + 1e-6);
  return Math.max(0, 1 - share / LARGEST_STEP);
}

/** Weighs fades through black or white: the contrast falls evenly to almost nothing between two pictures that have some. */
export function weighFades(features: readonly FrameFeatures[], fps: number, matcher: PictureMatcher): FadeEvidence[] {
  const statistics = features.map(lumaStatistics);
  const contrasts = statistics.map(({ deviation }) => deviation);
  const reach = Math.round(REACH_SECONDS * fps);
  const fades: FadeEvidence[] = [];
  for (let frame = 1; frame < features.length - 1; frame++) {
    const { mean, deviation } = statistics[frame]!;
    if (mean > BLACK && mean < WHITE) continue;
    const from = Math.max(0, frame - reach);
    const to = Math.min(features.length, frame + reach + 1);
    const nearby = contrasts.slice(from, to);
    // The new picture begins at the last of several equally empty frames.
    if (nearby.lastIndexOf(Math.min(...nearby)) + from !== frame) continue;
    const before = Math.max(...nearby.slice(0, frame - from));
    const after = Math.max(...nearby.slice(frame - from + 1));
    const weaker = Math.min(before, after);
    if (weaker < LEAST_CONTRAST || deviation > EMPTY * weaker) continue;
    let start = frame;
    while (start > from && contrasts[start]! < FULL * before && contrasts[start - 1]! >= contrasts[start]! - 0.5)
      start--;
    let end = frame;
    while (end < to - 1 && contrasts[end]! < FULL * after && contrasts[end + 1]! >= contrasts[end]! - 0.5) end++;
    const even = evenness(statistics.slice(start, end + 1).map((s) => s.mean));
    if (even === 0) continue;
    // Similar pictures, as of one place, need an even change of brightness all the more.
    const evidence = Math.max(even * even, matcher.match(start, end).unexplained);
    fades.push({ frame, range: { start: start + 1, end }, strength: strengthOf(evidence, EVEN) });
  }
  return fades;
}
