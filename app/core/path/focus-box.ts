import { clamped } from "../numbers/clamped";
import { type Box, boxCentre } from "../geometry/box";
import type { Subject } from "../subjects/choosing/subject";
import { boxAt, type Track } from "../subjects/tracking/track";
import type { EndChoice } from "./framing-settings";

/** The upper part of a person's box in which the head is, if no face was found. */
const HEAD_SHARE = 0.28;

/** How much the way that a thing goes says of where its head is, beside where its detail is. */
const GOING = 0.5;
/** Less than this says nothing of where the head is. */
const LEAST_SIDE = 0.06;

/** The end that is to be kept of a thing that is wider than the window, -1 for the left and 1 for the right; 0 for neither. */
export function keptEnd(track: Track, choice: EndChoice): number {
  if (choice !== "auto") return choice === "left" ? -1 : 1;
  return track.kind === "object" || track.kind === "salient" ? headEnd(track) : 0;
}

/**
 * At which end of a thing its head is, -1 for the left and 1 for the right: where its detail is, and the end that it goes
 * ahead with; 0 where neither says.
 */
function headEnd({ boxes, detailSide = 0 }: Track): number {
  const seen = boxes.filter((box) => box !== null);
  const [first, last] = [seen[0], seen.at(-1)];
  if (!first || !last) return 0;
  const gone = (boxCentre(last).x - boxCentre(first).x) / Math.max(first.width, last.width);
  const side = detailSide + GOING * clamped(gone, -1, 1);
  return Math.abs(side) < LEAST_SIDE ? 0 : Math.sign(side);
}

/** Of a thing that is wider than so many pixels one end, so wide; all of any other. */
export function endPart(box: Box, end: number, width: number): Box {
  if (box.width <= width || end === 0) return box;
  return { ...box, x: end < 0 ? box.x : box.x + box.width - width, width };
}

/** The box that must not be cut at a frame: the face, or the head's part of a body, or the thing itself. */
export function focusBox(subject: Subject, frame: number): Box | null {
  const box = boxAt(subject.track, frame);
  if (box && subject.track.kind === "person") return { ...box, height: box.height * HEAD_SHARE };
  if (box) return box;
  const body = subject.body && boxAt(subject.body, frame);
  return body ? { ...body, height: body.height * HEAD_SHARE } : null;
}
