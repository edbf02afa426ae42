/** Combines sightings of a marked thing, forwards and backwards, into one track that meets every mark. */
import { type Box, mixBoxes, type Size, visiblePart } from "../../geometry/box";
import { type FrameRange, framesPerSecond, type Rate } from "../../time/rate";
import { smoothBoxes } from "../tracking/fill-track";
import type { Track } from "../tracking/track";

/** A box that the editor has drawn around a thing. */
export interface Mark {
  frame: number;
  box: Box;
}

/** Sightings of a thing in one direction from a mark, frame by frame; null where it was not seen. */
export type Sweep = Map<number, Box | null>;

/** Seconds for which a lost thing is assumed to continue its motion. */
export const COAST_SECONDS = 0.4;

/** A direction from a mark, up to the neighbouring mark or out of the shot: frames from the mark's to before `end`. */
export interface Way {
  mark: Mark;
  until: Mark | undefined;
  end: number;
}

/** Both directions from each mark. */
export function waysFrom(marks: readonly Mark[], shot: FrameRange): { forwards: Way[]; backwards: Way[] } {
  const way = (mark: Mark, until: Mark | undefined, end: number): Way => ({ mark, until, end: until?.frame ?? end });
  return {
    forwards: marks.map((mark, i) => way(mark, marks[i + 1], shot.end)),
    backwards: marks.map((mark, i) => way(mark, marks[i - 1], shot.start - 1)),
  };
}

/**
 * Between two marks: both directions combined, each weighted by closeness to its mark; one alone where the other has lost
 * the thing.
 */
function between(frame: number, from: Mark, to: Mark, forward: Sweep, backward: Sweep): Box | null {
  const share = (frame - from.frame) / (to.frame - from.frame);
  const [a, b] = [forward.get(frame) ?? null, backward.get(frame) ?? null];
  if (a && b) return mixBoxes(a, b, share);
  return a ?? b;
}

/**
 * @param marks at least one, in order of their frames, one per frame, all in the shot
 * @param forwards sightings forwards from each mark, up to the next one or the shot's end
 * @param backwards sightings backwards from each mark
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
