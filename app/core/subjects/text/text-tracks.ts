/** Areas of text from what was found of it in single frames. */
import { clamped } from "../../numbers/clamped";
import { type Box, boxArea, boxUnion, intersectionArea, type Size, visiblePart } from "../../geometry/box";
import { type FrameRange, inRange } from "../../time/rate";
import type { FrameDetections } from "../detecting/detection";
import type { Track } from "../tracking/track";
import { STEADY_PICTURES } from "./find-texts";

/** Share of the smaller box within which two are of the same text, of which a part may have been missed. */
const SAME_SHARE = 0.6;
/** Looks without a text before it counts as gone: something passing may hide it. */
const MISSED_LOOKS = 3;
/** Sightings that a text needs; a shot shorter than two looks cannot have more. */
const LEAST_LOOKS = 2;
/** Margin around text, as a share of a line's least height, for outlines and shadows. */
const ROOM = 0.15;

/** Text that stays in one place, from a look to another. */
interface Area {
  boxes: Box[];
  firstLook: number;
  lastLook: number;
}

const isSame = (a: Box, b: Box): boolean => intersectionArea(a, b) >= SAME_SHARE * Math.min(boxArea(a), boxArea(b));
const isOf = ({ boxes }: Area, box: Box): boolean => boxes.some((other) => isSame(other, box));

/** Groups text at the same place in consecutive looks. */
function areasOf(looks: readonly (readonly Box[])[]): Area[] {
  const areas: Area[] = [];
  looks.forEach((found, look) => {
    for (const box of found) {
      const known = areas.find((area) => look - area.lastLook <= MISSED_LOOKS + 1 && isOf(area, box));
      if (!known) areas.push({ boxes: [box], firstLook: look, lastLook: look });
      else {
        known.lastLook = look;
        known.boxes.push(box);
      }
    }
  });
  return areas;
}

/** Whether letters are over the picture, by all looks at them: beyond doubt in several, or seen to disappear for good. */
function isOverlaid(area: Area, looks: readonly FrameDetections[]): boolean {
  const sure = looks.filter(({ overlaid = [], texts = [] }, look) => {
    const isAfter = look > area.lastLook && look <= area.lastLook + MISSED_LOOKS;
    const isWithin = look >= area.firstLook && look <= area.lastLook && texts.some((box) => isOf(area, box));
    return (isAfter || isWithin) && overlaid.some((box) => isOf(area, box));
  });
  return sure.length >= LEAST_LOOKS;
}

/**
 * The text over a shot, as tracks that stay in place. It was there in all pictures in which it had to be steady to be
 * found; beyond doubt for a while, it lasts as long as its letters are there.
 */
export function textTracks(frames: readonly FrameDetections[], shot: FrameRange, picture: Size): Track[] {
  const looks = frames.filter(({ frame, texts }) => texts && inRange(frame, shot));
  const enough = clamped(looks.length - STEADY_PICTURES + 1, 1, LEAST_LOOKS);
  const overlaid = areasOf(looks.map(({ texts = [], letters = [] }) => [...texts, ...letters])).filter((area) =>
    isOverlaid(area, looks),
  );
  const others = areasOf(
    looks.map(({ texts = [] }) => texts.filter((box) => !overlaid.some((area) => isOf(area, box)))),
  );
  return [...overlaid, ...others.filter(({ boxes }) => boxes.length >= enough)].map(
    ({ boxes, firstLook, lastLook }, i): Track => {
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
    },
  );
}
