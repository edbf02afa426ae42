import { type BitDepth, samplesOf } from "~/core/image/bit-depth";
import { framesIn, type FrameRange } from "~/core/time/rate";
import { joinRanges } from "~/core/time/ranges";
import type { RetimedFrame } from "~/core/time/retime";
import { type DecodeOptions, decodeFrames } from "../decode.server";
import type { FrameMaker } from "../frame-maker.server";
import { readAhead } from "../read-ahead";
import type { RenderPlan } from "./plan";

/** Frames decoded ahead while an earlier one is scaled and encoded; each has some megabytes. */
const DECODED_AHEAD = 4;
/** Frames of the film between two wanted ones that are decoded and discarded before seeking is faster. */
const NEAR = 50;

/** Blends two frames. */
function mixed(first: Buffer, other: Buffer, share: number, depth: BitDepth): Buffer {
  const weight = Math.round(256 * share);
  const made = Buffer.allocUnsafeSlow(first.length);
  const [a, b, out] = [samplesOf(first, depth), samplesOf(other, depth), samplesOf(made, depth)];
  for (let i = 0; i < out.length; i++) out[i] = a[i]! + (((b[i]! - a[i]!) * weight + 128) >> 8);
  return made;
}

/** The film's frames needed for some frames, as few ranges as sensible. */
function wantedOf(frames: readonly RetimedFrame[]): FrameRange[] {
  const wanted = joinRanges(
    frames.flatMap(({ frame, mixed: other }) => [
      { start: frame, end: frame + 1 },
      ...(other ? [{ start: other.frame, end: other.frame + 1 }] : []),
    ]),
  );
  return wanted.reduce<FrameRange[]>((near, range) => {
    const last = near.at(-1);
    if (last && range.start - last.end <= NEAR) last.end = range.end;
    else near.push({ ...range });
    return near;
  }, []);
}

async function* decoded(
  plan: RenderPlan,
  ranges: readonly FrameRange[],
  options: Pick<DecodeOptions, "depth" | "signal">,
) {
  for (const range of ranges) {
    let frame = range.start;
    for await (const data of decodeFrames(plan, { range, ...options })) yield { frame: frame++, data };
  }
}

/**
 * Frames of a version for encoding: each composed of its panes at sub-pixel places.
 * @param frames wanted, in order of the film
 * @returns planar 4:2:0 with the maker's bit depth, each in a buffer of its own
 */
export async function* madeFrames(
  plan: RenderPlan,
  frames: readonly RetimedFrame[],
  maker: FrameMaker,
  signal?: AbortSignal,
): AsyncGenerator<Buffer> {
  const { depth } = maker;
  const ranges = wantedOf(frames);
  if (framesIn(ranges) === 0) return;
  const needed = new Set(frames.flatMap(({ frame, mixed: other }) => (other ? [frame, other.frame] : [frame])));
  const made = new Map<number, Buffer>();
  let at = 0;
  for await (const { frame, data } of readAhead(decoded(plan, ranges, { depth, signal }), DECODED_AHEAD)) {
    if (!needed.has(frame)) continue;
    made.set(frame, Buffer.from(await maker.make(data, plan.shown(frame))));
    for (; at < frames.length; at++) {
      const next = frames[at]!;
      const [first, other] = [made.get(next.frame), next.mixed && made.get(next.mixed.frame)];
      if (!first || (next.mixed && !other)) break;
      yield next.mixed ? mixed(first, other!, next.mixed.share, depth) : first;
    }
    // Frames that the next one does not need are released.
    const from = frames[at]?.frame ?? Infinity;
    for (const known of made.keys()) if (known < from) made.delete(known);
  }
}
