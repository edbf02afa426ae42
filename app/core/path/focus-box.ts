import { clamped } from "../numbers/clamped";
import { type Box, boxCentre } from "../geometry/box";
import type { Subject } from "../subjects/choosing/subject";
import { boxAt, type Track } from "../subjects/tracking/track";
import type { EndChoice } from "./framing-settings";

/** Upper part of a person's box that holds the head, if no face was found. */
const HEAD_SHARE = 0.28;

/** Weight of a thing's direction of movement for where its head is, relative to that of its detail. */
const GOING = 0.5;
/** Evidence below which nothing is known about the head. */
const LEAST_SIDE = 0.06;

/** The end to keep of a thing wider than the window, -1 for the left and 1 for the right; 0 for neither. */
export function keptEnd(track: Track, choice: EndChoice): number {
  if (choice !== "auto") return choice === "left" ? -1 : 1;
  return track.kind === "object" || track.kind === "salient" ? headEnd(track) : 0;
}

/**
 * The end of a thing at which its head is, -1 for the left and 1 for the right: where its detail is, and the end with which
 * it moves ahead; 0 if neither tells.
 */
function headEnd({ boxes, detailSide = 0 }: Track): number {
  const seen = boxes.filter((box) => box !== null);
  const [first, last] = [seen[0], seen.at(-1)];
  if (!first || !last) return 0;
  const gone = (boxCentre(last).x - boxCentre(first).x) / Math.max(first.width, last.width);
  const side = detailSide + GOING * clamped(gone, -1, 1);
  return Math.abs(side) < LEAST_SIDE ? 0 : Math.sign(side);
}

/** One end, of some width in pixels, of a thing that is wider; all of any other. */
export function endPart(box: Box, end: number, width: number): Box {
  if (box.width <= width || end === 0) return box;
  return { ...box, x: end < 0 ? box.x : box.x + box.width - width, width };
}

/** The box that must not be cut at a frame: the face, the head's part of a body, or the thing itself. */
export function focusBox(subject: Subject, frame: number): Box | null {
  const box = boxAt(subject.track, frame);
  if (box && subject.track.kind === "person") return { ...box, height: box.height * HEAD_SHARE };
  if (box) return box;
  const body = subject.body && boxAt(subject.body, frame);
  return body ? { ...body, height: body.height * HEAD_SHARE } : null;
}
