/** Areas of text from what was found of it in single frames. */
import { type Box, boxArea, boxUnion, intersectionArea, type Size, visiblePart } from "../../geometry/box";
import { type FrameRange, inRange } from "../../time/rate";
import type { FrameDetections } from "../detecting/detection";
import type { Track } from "../tracking/track";
import { STEADY_PICTURES } from "./find-texts";

/** Boxes that share this much of the smaller one are of the same text, of which a part may have been overlooked. */
const SAME_SHARE = 0.6;
/** Text that is not found for so many looks is there still: what passes before it or behind it may hide it. */
const MISSED_LOOKS = 3;
/** Found once, it may be a mistake; in a shot that is shorter than two times it cannot be found more often. */
const LEAST_LOOKS = 2;
/** Room around text, as a share of a line's least height: outlines and shadows are of it. */
const ROOM = 0.15;

interface Area {
  boxes: Box[];
  firstLook: number;
  lastLook: number;
}

const isSame = (a: Box, b: Box): boolean => intersectionArea(a, b) >= SAME_SHARE * Math.min(boxArea(a), boxArea(b));

/**
 * The text that was put over a shot, as tracks that stay in their place. It was there in all the pictures in which it had
 * to be steady to be found.
 */
export function textTracks(frames: readonly FrameDetections[], shot: FrameRange, picture: Size): Track[] {
  const looks = frames.filter(({ frame, texts }) => texts && inRange(frame, shot));
  const areas: Area[] = [];
  looks.forEach(({ texts }, look) => {
    for (const box of texts!) {
      const known = areas.find(
        (area) => look - area.lastLook <= MISSED_LOOKS + 1 && area.boxes.some((other) => isSame(other, box)),
      );
      if (!known) areas.push({ boxes: [box], firstLook: look, lastLook: look });
      else {
        known.lastLook = look;
        known.boxes.push(box);
      }
    }
  });
  const enough = Math.min(LEAST_LOOKS, Math.max(1, looks.length - STEADY_PICTURES + 1));
  return areas
    .filter(({ boxes }) => boxes.length >= enough)
    .map(({ boxes, firstLook, lastLook }, i): Track => {
      const all = boxUnion(boxes);
      const room = ROOM * Math.min(...boxes.map(({ height }) => height));
      const box = visiblePart(
        { x: all.x - room, y: all.y - room, width: all.width + 2 * room, height: all.height + 2 * room },
        picture,
      );
      const since = firstLook - STEADY_PICTURES + 1;
      const start = since <= 0 ? shot.start : looks[since]!.frame;
      const end = lastLook === looks.length - 1 ? shot.end : looks[lastLook]!.frame + 1;
      return {
        id: `s${shot.start}-text-${i + 1}`,
        kind: "text",
        start,
        boxes: Array.from({ length: end - start }, () => box),
        confidence: 1,
      };
    });
}
