/**
 * Boxes that an object network draws around something, of whatever class: asked for no class in particular, it outlines
 * creatures and things that none of its classes names.
 */
import { type Box, boxArea, boxIntersection } from "../../geometry/box";
import { suppressOverlaps } from "./detection";

/** Classes of COCO's 80 that stand for creatures, plush ones among them, and for vehicles. */
const ANIMALS = [14, 15, 16, 17, 18, 19, 20, 21, 22, 23, 77];
const VEHICLES = [1, 2, 3, 4, 5, 6, 7, 8];
/** Furniture and fixtures: grounds rather than things. */
const GROUNDS = [9, 10, 11, 12, 13, 56, 57, 58, 59, 60, 61, 62, 68, 69, 71, 72];
/** Factor on the score of grounds. */
const GROUND_SHARE = 0.5;
/** Overlap (IoU) above which two boxes are of the same thing; those of its parts and of the whole are both kept. */
export const SAME_THING = 0.5;
/** Most boxes of a picture. */
const MOST = 8;

export interface AnyBox {
  box: Box;
  /** √(sum · largest) of the scores of all classes: 0 to somewhat above 1. */
  score: number;
  /** What most of the sum is for; left out where that is no kind of its own. */
  label?: "animal" | "vehicle";
}

/** @param scores of the 80 classes, 0 to 1 */
export function anyBox(box: Box, scores: ArrayLike<number>): AnyBox {
  let sum = 0;
  let best = 0;
  for (let label = 0; label < scores.length; label++) {
    sum += scores[label]!;
    if (scores[label]! > scores[best]!) best = label;
  }
  const shareOf = (labels: readonly number[]) => labels.reduce((part, label) => part + scores[label]!, 0) / sum;
  const label = shareOf(ANIMALS) > 0.5 ? "animal" : shareOf(VEHICLES) > 0.5 ? "vehicle" : undefined;
  const score = Math.sqrt(sum * scores[best]!) * (GROUNDS.includes(best) ? GROUND_SHARE : 1);
  return { box, score, ...(label && { label }) };
}

/** The best boxes of a picture, one for each thing or part of one, the best first. */
export const distinctBoxes = (boxes: readonly AnyBox[]): AnyBox[] => suppressOverlaps(boxes, SAME_THING).slice(0, MOST);

/** Those of a picture, drawn at its full size and at half of it, where large things are seen better. */
export interface AnyBoxes {
  full: AnyBox[];
  half: AnyBox[];
}

/** The parts of boxes inside an area, such as that between a film's own bars. */
export function boxesInside({ full, half }: AnyBoxes, area: Box): AnyBoxes {
  const inside = (boxes: readonly AnyBox[]) =>
    boxes.map((each) => ({ ...each, box: boxIntersection(each.box, area) })).filter(({ box }) => boxArea(box) > 0);
  return { full: inside(full), half: inside(half) };
}
