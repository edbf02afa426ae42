import { type Box, boxArea, boxCentre, type Size, visiblePart, wholeOf } from "../../geometry/box";
import { clampWindow, windowBox } from "../../geometry/crop-window";
import type { Track } from "../tracking/track";

/** Where a person is seen best. */
export interface Portrait {
  frame: number;
  /** A square around the head, inside the picture. */
  box: Box;
}

/** Width of a person relative to a face that shows them equally well. */
const FACE_COUNTS = 3;
/** Share of a person's height that is the head, from the top. */
const HEAD_SHARE = 0.3;
/** Side of the square, relative to the head's. */
const ROOM = 1.7;
/** Share of a person's width that is the head. */
const HEAD_WIDTH = 0.5;

/**
 * The frame in which tracks of one person show them best: large, and wholly in the picture.
 * @param picture in the pixels of the tracks' boxes
 * @returns null if they are never inside the picture
 */
export function portraitOf(tracks: readonly Track[], picture: Size): Portrait | null {
  let best: (Portrait & { worth: number }) | null = null;
  for (const { kind, start, boxes } of tracks) {
    const isFace = kind === "face";
    for (const [i, box] of boxes.entries()) {
      const seen = box && visiblePart(box, picture);
      if (!seen) continue;
      const worth = seen.width * (isFace ? FACE_COUNTS : 1) * (boxArea(seen) / boxArea(box)) ** 2;
      if (best && worth <= best.worth) continue;
      const head = isFace ? seen : { ...seen, height: HEAD_SHARE * seen.height };
      const height = ROOM * Math.max(head.width * (isFace ? 1 : HEAD_WIDTH), head.height);
      const square = clampWindow({ ...boxCentre(head), height }, wholeOf(picture), 1);
      best = { frame: start + i, box: windowBox(square, 1), worth };
    }
  }
  return best && { frame: best.frame, box: best.box };
}
