/** Frames of a film at another rate: each is one of its frames, or a blend of two. */
import { type FrameRange, framesPerSecond, type Rate } from "./rate";

/** A frame at the new rate. */
export interface RetimedFrame {
  /** The frame of the film, or the first of two that are blended. */
  frame: number;
  /** The other frame of a blend, and its share, 0 to 1; left out for a single frame. */
  mixed?: { frame: number; share: number };
}

/** Shares that nobody sees as a blend. */
const HARDLY = 0.02;

/**
 * The frames of ranges at another rate. The film's frames keep their times: frame k of the result shows what the film shows
 * at k / rate.
 * @param ranges the ranges of the film that are shown, in order
 * @param mixes whether a frame between two is blended from both; otherwise it is the one on screen then
 * @param isCut whether the picture is replaced at a frame; nothing is blended across that
 */
export function retimed(
  ranges: readonly FrameRange[],
  from: Rate,
  to: Rate,
  mixes: boolean,
  isCut: (frame: number) => boolean,
): RetimedFrame[] {
  const frames = ranges.flatMap(({ start, end }) => Array.from({ length: end - start }, (_, i) => start + i));
  const ratio = framesPerSecond(from) / framesPerSecond(to);
  const count = Math.max(1, Math.round(frames.length / ratio));
  return Array.from({ length: count }, (_, k): RetimedFrame => {
    // Frames that should come out whole do, in spite of rounding.
    const at = Math.min(frames.length - 1, Math.round(k * ratio * 1e6) / 1e6);
    const i = Math.floor(at);
    const [frame, next] = [frames[i]!, frames[i + 1]];
    const share = at - i;
    const isMixed = mixes && next === frame + 1 && !isCut(next) && share > HARDLY;
    if (!isMixed) return { frame };
    return share > 1 - HARDLY ? { frame: next } : { frame, mixed: { frame: next, share } };
  });
}
