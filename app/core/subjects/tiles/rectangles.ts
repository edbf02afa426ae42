/**
 * Rectangles in a picture with exactly vertical and horizontal sides that stay in place: the tiles of a picture made of
 * several, and insets.
 */
import { clamped } from "../../numbers/clamped";
import { type Box, boxArea, boxUnion, intersectionArea, type Size } from "../../geometry/box";
import { median } from "../../numbers/median";
import type { GreyPlane } from "../../image/grey-plane";
import { LEAST_SIDE, LEAST_STEP, type Line, LINE_PICTURES, LineFinder, SAME_LINE, type Way } from "./straight-lines";

/** Parts of a side, each of which must have its share of edges. */
const QUARTERS = 4;
const EVERYWHERE = 0.5;
/** Parts of a side whose positions are compared, and the samples by which they may differ: a tree is not that straight. */
const PARTS = 8;
const CROOKED = 0.3;
/** Share covered by other rectangles at which one is only their union. */
const MADE_OF_OTHERS = 0.7;
/** Share of a rectangle within a few levels of luma at which it holds no picture. */
const PLAIN = 0.7;
const PLAIN_LEVELS = 10;
/** The same for the share of samples at which luma changes. */
const LEAST_CHANGES = 0.05;
/** Every how many samples are examined for that. */
const SPARSE = 3;
/** Share of steady edges above which a picture is still, and straight lines may be part of its content. */
const STANDING = 0.4;
/** Largest difference between tiles of one size, and least size, as shares of the picture. */
const SAME_SIZE = 0.02;
const MOST_OF_PICTURE = 0.5;
/** Greatest ratio of a picture's sides. */
const LONGEST = 3;

/** Whether a line has edges over a share of a part of it. */
const hasEdges = ({ upTo }: Line, start: number, end: number, share: number): boolean =>
  upTo[end]! - upTo[start]! >= share * (end - start);

/** Whether a line has edges all along a part of it. */
function isSide(line: Line, start: number, end: number, covered: number): boolean {
  if (line.isBorder) return true;
  if (!hasEdges(line, start, end, covered)) return false;
  const upToPart = (part: number) => start + Math.floor((part * (end - start)) / QUARTERS);
  for (let part = 0; part < QUARTERS; part++) {
    if (!hasEdges(line, upToPart(part), upToPart(part + 1), EVERYWHERE * covered)) return false;
  }
  return true;
}

/** Position of a side to a fraction of a sample; null where it is crooked, or undetermined. */
function placeOf({ samples }: GreyPlane, way: Way, line: Line, start: number, end: number): number | null {
  if (line.isBorder) return line.at;
  const { across, along, lines } = way;
  const left = line.at - 1;
  const before = -across * Math.min(1, left);
  const after = across * Math.min(2, lines - 1 - left);
  const places: number[] = [];
  for (let part = 0; part < PARTS; part++) {
    const [from, to] = [part, part + 1].map((n) => start + Math.floor((n * (end - start)) / PARTS)) as [number, number];
    let [weight, place] = [0, 0];
    for (let i = from, at = left * across + from * along; i < to; i++, at += along) {
      const [here, beyond] = [samples[at]!, samples[at + after]!];
      const step = beyond - samples[at + before]!;
      weight += Math.abs(step);
      // Two samples contain proportions of either side.
      place += Math.sign(step) * (2 * beyond - here - samples[at + across]!);
    }
    // A part with little change says little about its position.
    if (weight > LEAST_STEP * (to - from)) places.push(place / weight);
  }
  if (places.length < 2) return null;
  const middle = median(places);
  const crooked = median(places.map((place) => Math.abs(place - middle)));
  return crooked > CROOKED ? null : left + clamped(middle, 0, 2);
}

/** Pairs of lines that are far enough apart. */
const pairsOf = (lines: readonly Line[], least: number): [Line, Line][] =>
  lines.flatMap((first, i) =>
    lines.slice(i + 1).flatMap((second): [Line, Line][] => (second.at - first.at >= least ? [[first, second]] : [])),
  );

/** Finds rectangles in consecutive pictures of one size, several per second. */
export class RectangleFinder {
  private readonly upright: LineFinder;
  private readonly level: LineFinder;
  private count = 0;

  constructor({ width, height }: Size) {
    this.upright = new LineFinder({ lines: width, length: height, across: 1, along: width });
    this.level = new LineFinder({ lines: height, length: width, across: width, along: 1 });
  }

  /**
   * @param luma the next picture
   * @returns the rectangles that were there in the last `LINE_PICTURES`, to a fraction of a sample; undefined at every
   *   second picture, at which they are not searched for. The picture's borders may be sides; the picture itself is not
   *   included, nor are unions of others.
   */
  see(luma: GreyPlane): Box[] | undefined {
    const { upright, level } = this;
    upright.see(luma);
    level.see(luma);
    this.count++;
    if (this.count < LINE_PICTURES || this.count % 2) return undefined;
    const columns = upright.clearest();
    const rows = level.clearest();
    const found: Box[] = [];
    for (const [left, right] of pairsOf(columns.lines, LEAST_SIDE * luma.width)) {
      const sides = rows.lines.filter((row) => isSide(row, left.at, right.at, rows.covered));
      for (const [top, bottom] of pairsOf(sides, LEAST_SIDE * luma.height)) {
        if (left.isBorder && right.isBorder && top.isBorder && bottom.isBorder) continue;
        if (![left, right].every((side) => isSide(side, top.at, bottom.at, columns.covered))) continue;
        const [x, end] = [left, right].map((side) => placeOf(luma, upright.way, side, top.at, bottom.at));
        const [y, foot] = [top, bottom].map((side) => placeOf(luma, level.way, side, left.at, right.at));
        if (x == null || end == null || y == null || foot == null) continue;
        found.push({ x, y, width: end - x, height: foot - y });
      }
    }
    const equal = equalTiles(found, luma);
    if (equal) return equal;
    return Math.max(columns.staying, rows.staying) > STANDING ? [] : withoutUnions(found);
  }
}

/** Whether a rectangle is nearly empty: colour bars and panels are no pictures. */
function isPlain({ samples, width }: GreyPlane, box: Box): boolean {
  const levels: number[] = [];
  let changes = 0;
  for (let y = Math.ceil(box.y) + 2; y < box.y + box.height - 2 - SPARSE; y += SPARSE) {
    for (let x = Math.ceil(box.x) + 2; x < box.x + box.width - 2 - SPARSE; x += SPARSE) {
      const level = samples[y * width + x]!;
      levels.push(level);
      const [right, below] = [samples[y * width + x + SPARSE]!, samples[(y + SPARSE) * width + x]!];
      if (Math.max(Math.abs(right - level), Math.abs(below - level)) >= LEAST_STEP) changes++;
    }
  }
  const middle = median(levels);
  if (changes < LEAST_CHANGES * levels.length) return true;
  return levels.filter((level) => Math.abs(level - middle) <= PLAIN_LEVELS).length > PLAIN * levels.length;
}

/**
 * Whether rectangles across the whole picture are strips made by lines of a landscape, and not tiles: tiles are no longer
 * than pictures are, and the rest of the picture is equal on both sides.
 */
function areStrips(boxes: readonly Box[], { width, height }: Size): boolean {
  const spans = (side: "width" | "height", whole: number) => boxes.every((box) => box[side] >= whole - SAME_LINE);
  if (!spans("width", width) && !spans("height", height)) return false;
  const { x, y, ...all } = boxUnion(boxes);
  const isOff = (before: number, length: number, whole: number) =>
    Math.abs(before - (whole - before - length)) > SAME_SIZE * whole;
  if (isOff(x, all.width, width) || isOff(y, all.height, height)) return true;
  return boxes.some((box) => Math.max(box.width / box.height, box.height / box.width) > LONGEST);
}

/**
 * Rectangles of one size that cover most of the picture, most of them not plain: no line in a scene divides it like that.
 * Of several divisions the finest is taken, and then the one with most ground between them.
 */
function equalTiles(found: readonly Box[], picture: GreyPlane): Box[] | null {
  let best: Box[] = [];
  const least = MOST_OF_PICTURE * picture.width * picture.height;
  const areaOf = (boxes: readonly Box[]) => boxes.reduce((sum, box) => sum + boxArea(box), 0);
  for (const first of found) {
    const alike = found.filter(
      ({ width, height }) =>
        Math.abs(width - first.width) <= SAME_SIZE * picture.width &&
        Math.abs(height - first.height) <= SAME_SIZE * picture.height,
    );
    const apart: Box[] = [];
    for (const box of alike) {
      if (apart.every((other) => intersectionArea(box, other) <= SAME_SIZE * boxArea(box))) apart.push(box);
    }
    const area = areaOf(apart);
    if (apart.length < 2 || area < least || areStrips(apart, picture)) continue;
    if (2 * apart.filter((box) => isPlain(picture, box)).length > apart.length) continue;
    if (apart.length > best.length || (apart.length === best.length && area < areaOf(best))) best = apart;
  }
  return best.length > 1 ? best : null;
}

/** Rectangles, the smallest first, without unions of others. */
function withoutUnions(found: Box[]): Box[] {
  const kept: Box[] = [];
  for (const box of found.sort((a, b) => boxArea(a) - boxArea(b))) {
    const others = kept.reduce((sum, other) => sum + intersectionArea(box, other), 0);
    if (others < MADE_OF_OTHERS * boxArea(box)) kept.push(box);
  }
  return kept;
}
