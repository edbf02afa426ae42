/** Finds the shots of a film in a new export of it, by their pictures. */
import { z } from "zod";
import { ShotId } from "../basics/ids";
import { FrameRange, framesOf, rangeLength } from "../time/rate";
import { joinRanges, withoutRanges } from "../time/ranges";
import type { PictureStrip } from "./picture-strip";

/** Place of a shot of the old film in the new one. */
export const ShotMatch = z.object({
  /** Id of the shot. */
  id: ShotId,
  /** The frames of the new film that show it; null where it is no longer there. */
  range: FrameRange.nullable(),
  /** Frame of the new film = ratio × frame of the old one + shift. */
  shift: z.int(),
  /** Mean likeness of the frames that are there, 0 to 1. */
  likeness: z.number(),
  /** Share of the shot that is there, 0 to 1. */
  share: z.number(),
});
export type ShotMatch = z.infer<typeof ShotMatch>;

/** The ranges of a film that are in its new export, from the places of its shots. */
export function movedParts(
  shots: readonly (FrameRange & { id: string })[],
  matches: readonly ShotMatch[],
): { from: FrameRange; to: FrameRange; shift: number }[] {
  const byId = new Map(matches.map((match) => [match.id, match]));
  return shots.flatMap(({ id, start, end }) => {
    const match = byId.get(id);
    return match?.range ? [{ from: { start, end }, to: match.range, shift: match.shift }] : [];
  });
}

/** Places in a shot whose frames are searched for in the whole new film. */
const PROBES = [0.15, 0.5, 0.85];
/** Step in frames through the new film: small enough for a picture to resemble itself. */
const STRIDE = 3;
/** Likeness below which a frame is not the probe. */
const LIKELY = 0.75;
/** Best places per probe that are examined closely. */
const PLACES = 12;
/** Frames of a shot that are compared at a likely place. */
const SAMPLES = 24;
/** Lead that a place needs over the one suggested by the order of the shots. */
const CLEARLY = 0.01;
/** Frames around a likely place that are tried one by one. */
const REFINE = STRIDE + 2;
/** Likeness below which a frame is of another shot … */
const SAME = 0.75;
/** … as is one this far below the best fifth of its shot. */
const UNLIKE = 0.06;
const MOST = 0.2;
/** How much more nearly identical frames count than similar ones. */
const SHARPNESS = 4;
/** Likeness and remaining share below which a shot is gone. */
const LEAST_LIKENESS = 0.8;
const LEAST_SHARE = 0.15;

class Matcher {
  constructor(
    private readonly before: PictureStrip,
    private readonly after: PictureStrip,
    private readonly ratio: number,
  ) {}

  private at(frame: number, shift: number): number {
    return Math.round(this.ratio * frame) + shift;
  }

  /**
   * Evidence for a place. Frames of another shot in the same setting are similar, those of the shot itself nearly
   * identical: a few of these outweigh many of the others.
   */
  private rating(frames: readonly number[], shift: number): number {
    const gain = (frame: number) => {
      const likeness = this.before.likeness(frame, this.after, this.at(frame, shift));
      return (Math.max(0, likeness - SAME) / (1 - SAME)) ** SHARPNESS;
    };
    return frames.reduce((all, frame) => all + gain(frame), 0) / frames.length;
  }

  /** Possible places of a shot, from a few of its frames searched for everywhere. */
  private candidates({ start, end }: FrameRange): Set<number> {
    const shifts = new Set<number>();
    for (const share of PROBES) {
      const probe = Math.min(end - 1, Math.round(start + share * (end - start)));
      const likely: { frame: number; likeness: number }[] = [];
      for (let frame = 0; frame < this.after.frames; frame += STRIDE) {
        const likeness = this.before.likeness(probe, this.after, frame);
        if (likeness >= LIKELY) likely.push({ frame, likeness });
      }
      likely.sort((a, b) => b.likeness - a.likeness);
      for (const { frame } of likely.slice(0, PLACES)) shifts.add(frame - Math.round(this.ratio * probe));
    }
    return shifts;
  }

  /** The best place of a shot; of equally good ones, the one suggested by the shot before. */
  place(shot: FrameRange, expected: number): number {
    const step = Math.max(1, Math.floor(rangeLength(shot) / SAMPLES));
    const samples = framesOf(shot).filter((frame, i) => i % step === 0 || frame === shot.end - 1);
    const best = (shifts: Iterable<number>) =>
      [...shifts]
        .map((shift) => ({ shift, rating: this.rating(samples, shift) }))
        .reduce((a, b) => (b.rating > a.rating ? b : a));
    const around = (shift: number) => Array.from({ length: 2 * REFINE + 1 }, (_, i) => shift - REFINE + i);
    const candidates = this.candidates(shot);
    if (candidates.size === 0) return expected;
    const fine = best(around(best(candidates).shift));
    return this.rating(samples, expected) >= fine.rating - CLEARLY ? expected : fine.shift;
  }

  /** Mean likeness of the frames of a part of a shot at a place. */
  likeness(part: FrameRange, shift: number): number {
    const frames = framesOf(part);
    const sum = frames.reduce((all, frame) => all + this.before.likeness(frame, this.after, this.at(frame, shift)), 0);
    return sum / frames.length;
  }

  /**
   * The part of a shot that is really there at a place: from the first to the last of its frames that is as like as most.
   */
  extent(shot: FrameRange, shift: number): FrameRange | null {
    const likeness = framesOf(shot).map((frame) => this.before.likeness(frame, this.after, this.at(frame, shift)));
    const sorted = [...likeness].sort((a, b) => b - a);
    const usual = sorted[Math.floor(MOST * (sorted.length - 1))]!;
    const isThere = (value: number) => value >= Math.max(SAME, usual - UNLIKE);
    const first = likeness.findIndex(isThere);
    if (first < 0) return null;
    return { start: shot.start + first, end: shot.start + likeness.findLastIndex(isThere) + 1 };
  }
}

/**
 * Finds the shots of a film in a new export of it, one after the other: trimmed, moved, graded anew, or gone.
 * @param ratio frames of the new film per frame of the old one
 * @param before the old film's pictures, of all of its frames; `after` the new one's
 */
export function* matchShots(
  shots: readonly (FrameRange & { id: string })[],
  before: PictureStrip,
  after: PictureStrip,
  ratio: number,
): Generator<ShotMatch, void> {
  const matcher = new Matcher(before, after, ratio);
  let expected = 0;
  for (const shot of shots) {
    const shift = matcher.place(shot, expected);
    const there = matcher.extent(shot, shift);
    const share = there ? rangeLength(there) / rangeLength(shot) : 0;
    const likeness = there ? matcher.likeness(there, shift) : 0;
    if (!there || share < LEAST_SHARE || likeness < LEAST_LIKENESS) {
      yield { id: shot.id, range: null, shift, likeness, share: 0 };
      continue;
    }
    expected = shift;
    const start = Math.max(0, Math.round(ratio * there.start) + shift);
    const end = Math.min(after.frames, Math.round(ratio * there.end) + shift);
    yield { id: shot.id, range: { start, end }, shift, likeness, share };
  }
}

/** Share of a place claimed by a likelier shot above which the other is not there. */
const MOST_SHARED = 0.3;

/**
 * Resolves matches with the same frames: these go to the likeliest shot, and a shot of which little remains is not there.
 * Shots in one setting match each other's place where their own is gone.
 */
export function settleMatches(matches: readonly ShotMatch[]): ShotMatch[] {
  const settled = new Map<string, ShotMatch>();
  let given: FrameRange[] = [];
  for (const match of [...matches].sort((a, b) => b.likeness - a.likeness)) {
    if (!match.range) continue;
    const [left] = withoutRanges([match.range], given).sort((a, b) => rangeLength(b) - rangeLength(a));
    const shared = 1 - (left ? rangeLength(left) : 0) / rangeLength(match.range);
    if (!left || shared > MOST_SHARED) continue;
    given = joinRanges([...given, left]);
    settled.set(match.id, { ...match, range: left, share: match.share * (1 - shared) });
  }
  return matches.map((match) => settled.get(match.id) ?? { ...match, range: null, share: 0 });
}
