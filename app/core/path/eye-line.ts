import { boxAt, type Track } from "../subjects/tracking/track";
import { focusBox } from "./focus-box";
import { EYES_IN_FACE } from "./framing-goals";

/** Height of somebody's eyes at a frame, in pixels from the picture's top; null where nobody is seen. */
export function eyesAt(track: Track, frame: number): number | null {
  if (track.kind !== "face" && track.kind !== "person") return null;
  const head = boxAt(track, frame) && focusBox({ track, body: null }, frame);
  return head && head.y + EYES_IN_FACE * head.height;
}

/**
 * Height of the largest window that has the eyes on its eye line without leaving its area: limited by the area's top, or by
 * its foot.
 * @param eyes pixels from the area's top
 * @param eyeLine share of the window's height from its top
 * @param largest height of the largest window that fits into the area
 */
export const heightForEyes = (eyes: number, eyeLine: number, areaHeight: number, largest: number): number =>
  Math.min(largest, eyes / eyeLine, (areaHeight - eyes) / (1 - eyeLine));
