/** The composition of a picture, from the rectangles found in single frames. */
import { type Box, boxArea, boxContains, boxIou, intersectionArea, type Size } from "../../geometry/box";
import { median } from "../../numbers/median";
import { type FrameRange, inRange } from "../../time/rate";
import type { FrameDetections } from "../detecting/detection";
import type { Track } from "../tracking/track";
import { LINE_PICTURES } from "./straight-lines";

/** Overlap above which rectangles are the same in another frame. */
const SAME = 0.9;
/** Share of the looks in which a rectangle must be found, and least number. */
const LASTING = 0.6;
const LEAST_LOOKS = 2;
/** Least share of the picture covered by tiles; between and around them may be a ground. */
const MOST_OF_PICTURE = 0.5;
/** Greatest overlap of tiles, as a share of the smaller one. */
const APART = 0.04;
/** Largest share of a picture covered by insets. */
const MOST_OF_INSET = 0.4;
/** Share of looks with a moving camera between them that tells an inset from a window in a wall. */
const MOVING = 0.5;
/** Uncertainty of a side in pixels, by which tiles are reduced. */
const UNSURE_PIXELS = 1;

/** Rectangles that stay in place in most of some looks. */
function lasting(looks: readonly FrameDetections[]): Box[] {
  const groups: Box[][] = [];
  for (const { rectangles = [] } of looks) {
    for (const box of rectangles) {
      const known = groups.find((group) => boxIou(group[0]!, box) >= SAME);
      if (known) known.push(box);
      else groups.push([box]);
    }
  }
  const needed = Math.max(LEAST_LOOKS, LASTING * looks.length);
  return groups
    .filter((group) => group.length >= needed)
    .map((group) => {
      const side = (of: (box: Box) => number) => median(group.map(of));
      const [x, y] = [side((box) => box.x), side((box) => box.y)];
      return { x, y, width: side((box) => box.x + box.width) - x, height: side((box) => box.y + box.height) - y };
    });
}

const isApart = (box: Box, other: Box): boolean =>
  intersectionArea(box, other) <= APART * Math.min(boxArea(box), boxArea(other));

/**
 * The composition of a shot's picture, as tracks that stay in place: tiles, if it consists of several pictures side by
 * side, or else insets.
 */
export function tileTracks(frames: readonly FrameDetections[], shot: FrameRange, picture: Size): Track[] {
  // The first looks also depend on what the shot before showed.
  const inShot = frames.filter(({ frame }) => inRange(frame, shot)).slice(LINE_PICTURES - 1);
  const looks = inShot.filter(({ rectangles }) => rectangles);
  const found = lasting(looks).sort((a, b) => boxArea(b) - boxArea(a));
  const tiles: Box[] = [];
  // Something inside a tile, such as a window in a wall, is no tile of its own.
  for (const box of found) if (tiles.every((other) => isApart(box, other))) tiles.push(box);
  const covered = tiles.reduce((sum, box) => sum + boxArea(box), 0);
  const constant = (kind: "tile" | "inset", boxes: readonly Box[]): Track[] =>
    boxes.map((box, i) => ({
      id: `s${shot.start}-${kind}-${i + 1}`,
      kind,
      start: shot.start,
      boxes: Array.from({ length: shot.end - shot.start }, () => box),
      confidence: 1,
    }));
  if (tiles.length > 1 && covered >= MOST_OF_PICTURE * picture.width * picture.height) {
    // In reading order.
    const inOrder = tiles.sort((a, b) => (Math.abs(a.y - b.y) < a.height / 2 ? a.x - b.x : a.y - b.y));
    return constant(
      "tile",
      inOrder.map(({ x, y, width, height }) => ({
        x: x + UNSURE_PIXELS,
        y: y + UNSURE_PIXELS,
        width: width - 2 * UNSURE_PIXELS,
        height: height - 2 * UNSURE_PIXELS,
      })),
    );
  }
  const moving = looks.filter(({ cameraMoved }) => cameraMoved).length;
  if (moving < MOVING * looks.length) return [];
  const small = found.filter((box) => boxArea(box) <= MOST_OF_INSET * picture.width * picture.height);
  return constant(
    "inset",
    small.filter((box) => !small.some((other) => other !== box && boxContains(other, box))),
  );
}
