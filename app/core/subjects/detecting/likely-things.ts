/** Chooses what is a thing, of all that two kinds of evidence outline in a picture: an object network, and salience. */
import { boxArea, boxIou, type Size } from "../../geometry/box";
import { type AnyBox, type AnyBoxes, SAME_THING } from "./any-boxes";
import type { Detection } from "./detection";

const MOST_THINGS = 4;
/**
 * Kinds of evidence: scores at full and half size, overlap with what is salient, the same times how clear that is, and the
 * side of a square of the box's area in sides of such a square of the picture, and that squared.
 */
export const EVIDENCE = ["full", "half", "salient", "clear", "size", "sizeSquared"] as const;
type Evidence = (typeof EVIDENCE)[number];
/**
 * Weights of the evidence in a choice among the outlines of a picture and none of them (conditional logit, McFadden, 1974),
 * and that for none. From `./glad-pan bench likely`: photographs of creatures and things before others of landscapes.
 */
const WEIGHTS: Record<Evidence | "none", number> = {
  none: 4.65,
  full: 3.86,
  half: 1.74,
  salient: 1.56,
  clear: 1.84,
  size: 0.91,
  sizeSquared: -3.54,
};

/** The strongest score of a thing among the boxes of one size, by how well they agree. */
const scoreAmong = (boxes: readonly AnyBox[], { box }: AnyBox): number =>
  boxes.reduce((most, other) => {
    const overlap = boxIou(other.box, box);
    return overlap > SAME_THING ? Math.max(most, overlap * other.score) : most;
  }, 0);

/** The evidence for one outline, by the names of the weights. */
export function evidenceFor(
  outline: AnyBox,
  boxes: AnyBoxes,
  salient: readonly Detection[],
  picture: Size,
): Record<Evidence, number> {
  const size = Math.sqrt(boxArea(outline.box) / (picture.width * picture.height));
  const overlaps = salient.map(({ box, score }) => ({ overlap: boxIou(box, outline.box), score }));
  return {
    full: scoreAmong(boxes.full, outline),
    half: scoreAmong(boxes.half, outline),
    salient: Math.max(0, ...overlaps.map(({ overlap }) => overlap)),
    clear: Math.max(0, ...overlaps.map(({ overlap, score }) => overlap * score)),
    size,
    sizeSquared: size * size,
  };
}

/** All outlines of a picture. What is salient is one of its own where the network draws nothing like it. */
export function outlinesOf(boxes: AnyBoxes, salient: readonly Detection[]): AnyBox[] {
  const drawn = [...boxes.full, ...boxes.half];
  const others = salient.filter(({ box }) => drawn.every((each) => boxIou(each.box, box) <= SAME_THING));
  return [...drawn, ...others.map(({ box }): AnyBox => ({ box, score: 0 }))];
}

/**
 * The likeliest things in a picture, the likeliest first. Their score is the probability that the picture is about them.
 * @param boxes around anything, from pictures at full and half size
 * @param salient from `salientThings`
 */
export function likelyThings(boxes: AnyBoxes, salient: readonly Detection[], picture: Size): Detection[] {
  const outlines = outlinesOf(boxes, salient).map((outline) => {
    const evidence = evidenceFor(outline, boxes, salient, picture);
    return { ...outline, odds: Math.exp(EVIDENCE.reduce((sum, name) => sum + WEIGHTS[name] * evidence[name], 0)) };
  });
  const all = outlines.reduce((sum, { odds }) => sum + odds, Math.exp(WEIGHTS.none));
  const things: Detection[] = [];
  let left = outlines.sort((a, b) => b.odds - a.odds);
  while (left.length > 0 && things.length < MOST_THINGS) {
    const { box, label } = left[0]!;
    const isSame = (other: AnyBox) => boxIou(other.box, box) > SAME_THING;
    // Outlines of the same thing share what is likely of it.
    const odds = left.filter(isSame).reduce((sum, same) => sum + same.odds, 0);
    things.push({ kind: "salient", box, score: odds / all, ...(label && { label }) });
    left = left.filter((other) => !isSame(other));
  }
  return things.sort((a, b) => b.score - a.score);
}
