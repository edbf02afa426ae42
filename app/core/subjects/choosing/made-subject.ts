/** Subjects made of several tracks: held together, or followed one after the other. */
import { type Box, boxUnion, type Size } from "../../geometry/box";
import { type FrameRange, framesOf, inRange } from "../../time/rate";
import { boxAt, type Track } from "../tracking/track";
import { type Subject, subjectOf } from "./subject";

/** Margin around several that are kept together, in windows. */
const ROOM = 0.08;

/** The box around boxes; null around none. */
export function around(boxes: readonly (Box | null)[]): Box | null {
  const there = boxes.filter((box) => box !== null);
  return there.length > 0 ? boxUnion(there) : null;
}

/** A track of a shot that is made of others. */
export function madeTrack(id: string, shot: FrameRange, at: (frame: number) => Box | null): Track {
  const boxes = Array.from({ length: shot.end - shot.start }, (_, i) => at(shot.start + i));
  return { id, kind: "object", start: shot.start, boxes, confidence: 1 };
}

/** Whether a window holds a box, with some margin. */
export const fitsInto = (box: Box, window: Size): boolean =>
  box.width <= (1 - ROOM) * window.width && box.height <= (1 - ROOM) * window.height;

/**
 * Several as one subject.
 * @param window the crop window, in source pixels
 * @returns `fitting`, the share of the frames with all of them in which the window holds them; NaN if there is no frame
 */
export function together(
  parts: readonly Track[],
  { shot, tracks, window }: { shot: FrameRange; tracks: readonly Track[]; window: Size },
): { subject: Subject; fitting: number } {
  let all = 0;
  let fitting = 0;
  const track = madeTrack("together", shot, (frame) => {
    const boxes = parts.map((part) => boxAt(part, frame));
    const box = around(boxes);
    if (box && boxes.every((one) => one)) {
      all++;
      if (fitsInto(box, window)) fitting++;
    }
    return box;
  });
  const bodies = parts.map((part) => subjectOf(part, tracks).body);
  const body = madeTrack("together-bodies", shot, (frame) => around(bodies.map((one) => one && boxAt(one, frame))));
  return { subject: { track, body }, fitting: fitting / all };
}

/**
 * Subjects followed one after the other as one, for a window that pans between them.
 * @param spans without gaps, in order
 */
export function oneAfterTheOther(spans: readonly (FrameRange & { subject: Subject | null })[]): Subject | null {
  const [first] = spans;
  if (spans.length <= 1) return first?.subject ?? null;
  const { start } = first!;
  const boxesOf = (part: (subject: Subject) => Track | null) =>
    spans.flatMap((span) => {
      const track = span.subject && part(span.subject);
      return framesOf(span).map((frame) => track && boxAt(track, frame));
    });
  const facing = spans.flatMap((span) =>
    (span.subject?.track.facing ?? []).filter(({ frame }) => inRange(frame, span)),
  );
  const kind = spans.every(({ subject }) => subject?.track.kind === "face") ? "face" : "object";
  return {
    track: { id: "in-turn", kind, start, boxes: boxesOf(({ track }) => track), confidence: 1, facing },
    body: { id: "in-turn-bodies", kind: "object", start, boxes: boxesOf(({ body }) => body), confidence: 1 },
  };
}
