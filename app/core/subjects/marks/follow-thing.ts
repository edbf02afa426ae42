/** From what is seen of a marked thing going forwards and backwards to one track that meets every mark. */
import { type Box, mixBoxes, type Size, visiblePart } from "../../geometry/box";
import { type FrameRange, framesPerSecond, type Rate } from "../../time/rate";
import { smoothBoxes } from "../tracking/fill-track";
import type { Track } from "../tracking/track";

/** A box that the editor has drawn around a thing. */
export interface Mark {
  frame: number;
  box: Box;
}

/** Where a thing was seen going one way from a mark, frame by frame; null where it was not. */
export type Sweep = Map<number, Box | null>;

/** Seconds for which a thing that has got lost is still taken to be where it was going. */
export const COAST_SECONDS = 0.4;

/** A way from a mark, up to the one beside it or out of the shot: frames from the mark's to before `end`. */
export interface Way {
  mark: Mark;
  until: Mark | undefined;
  end: number;
}

/** The ways forwards and backwards from each mark. */
export function waysFrom(marks: readonly Mark[], shot: FrameRange): { forwards: Way[]; backwards: Way[] } {
  const way = (mark: Mark, until: Mark | undefined, end: number): Way => ({ mark, until, end: until?.frame ?? end });
  return {
    forwards: marks.map((mark, i) => way(mark, marks[i + 1], shot.end)),
    backwards: marks.map((mark, i) => way(mark, marks[i - 1], shot.start - 1)),
  };
}

/** Between two marks: what both ways say, each the more the nearer its mark; alone where the other has lost it. */
function between(frame: number, from: Mark, to: Mark, forward: Sweep, backward: Sweep): Box | null {
  const share = (frame - from.frame) / (to.frame - from.frame);
  const [a, b] = [forward.get(frame) ?? null, backward.get(frame) ?? null];
  if (a && b) return mixBoxes(a, b, share);
  return a ?? b;
}

/**
 * @param marks at least one, in order of their frames, one per frame, all within the shot
 * @param forwards where it was seen going forwards from each mark, up to the next one or the shot's end
 * @param backwards the same going backwards from each mark
 */
export function trackOfMarks(
  id: string,
  marks: readonly Mark[],
  forwards: readonly Sweep[],
  backwards: readonly Sweep[],
  shot: FrameRange,
  picture: Size,
  rate: Rate,
): Track {
  const boxes = Array.from({ length: shot.end - shot.start }, (_, i): Box | null => {
    const frame = shot.start + i;
    const next = marks.findIndex((mark) => mark.frame >= frame);
    if (next >= 0 && marks[next]!.frame === frame) return marks[next]!.box;
    if (next === 0) return backwards[0]!.get(frame) ?? null;
    if (next < 0) return forwards.at(-1)!.get(frame) ?? null;
    return between(frame, marks[next - 1]!, marks[next]!, forwards[next - 1]!, backwards[next]!);
  });
  const fps = framesPerSecond(rate);
  const smooth = smoothBoxes(boxes, 0.04 * fps, 0.15 * fps);
  for (const { frame, box } of marks) smooth[frame - shot.start] = box;
  const inside = smooth.map((box) => box && visiblePart(box, picture));
  const seen = inside.filter(Boolean).length;
  return { id, kind: "mark", start: shot.start, boxes: inside, confidence: seen / inside.length };
}
