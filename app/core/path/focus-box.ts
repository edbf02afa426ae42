import type { Box } from "../geometry/box";
import type { Subject } from "../subjects/choosing/subject";
import { boxAt } from "../subjects/tracking/track";

/** The upper part of a person's box in which the head is, if no face was found. */
const HEAD_SHARE = 0.28;

/** The box that must not be cut at a frame: the face, or the head's part of a body, or the thing itself. */
export function focusBox(subject: Subject, frame: number): Box | null {
  const box = boxAt(subject.track, frame);
  if (box && subject.track.kind === "person") return { ...box, height: box.height * HEAD_SHARE };
  if (box) return box;
  const body = subject.body && boxAt(subject.body, frame);
  return body ? { ...body, height: body.height * HEAD_SHARE } : null;
}
