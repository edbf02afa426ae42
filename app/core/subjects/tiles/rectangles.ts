/**
 * Rectangles in a picture whose sides are exactly upright and level and stay where they are: the tiles of a picture that
 * is made of several, and pictures laid over another.
 */
import { type Box, boxArea, boxUnion, intersectionArea, type Size } from "../../geometry/box";
import { median } from "../../median";
import type { BytePlane } from "../text/steady-edges";

/** Pictures in which a side has to be where it is, and in how many of them it may not show. */
export const RECTANGLE_PICTURES = 4;
const HIDDEN = 1;
/** Least side of a rectangle, as a share of the picture's. */
const LEAST_SIDE = 0.12;
/** Change of luma over two samples that is an edge, if none so many samples beside it is stronger. */
const LEAST_STEP = 6;
const ALONE = 2;
/** Share of a side at which there is an edge: more, where there are edges everywhere. */
const COVERED = 0.25;
const CROWDED = 1.3;
/** Lines one way that are looked at further, the clearest first. */
const MOST_LINES = 16;
/** A clear line has edges, beyond what is usual, along this share of the least side. */
const CLEAR_SHARE = 0.4;
/** The first line that can be a side: what is nearer to the border is the border. */
const FIRST_LINE = 2;
/** Samples within which two lines are one. */
const SAME_LINE = 2;
/** Parts of a side, each of which has to have this share of the edges that it should. */
const QUARTERS = 4;
const EVERYWHERE = 0.5;
/** Parts of a side whose places are compared, and samples by which they may differ: a tree is not that straight. */
const PARTS = 8;
const CROOKED = 0.3;
/** A rectangle of which others make up this share is no more than they are. */
const MADE_OF_OTHERS = 0.7;
/** A rectangle of which more than this share is of one light, give or take so many levels, has no picture in it. */
const PLAIN = 0.7;
const PLAIN_LEVELS = 10;
/** So has one in which luma changes at less than this share of the samples. */
const LEAST_CHANGES = 0.05;
/** Of so many samples in a row one is looked at for that. */
const SPARSE = 3;
/** Where more than this share of the edges stays, a picture stands, and straight lines in it may be of what it shows. */
const STANDING = 0.4;
/** Tiles of one size differ by no more than this share of the picture, and are this much of it at least. */
const SAME_SIZE = 0.02;
const MOST_OF_PICTURE = 0.5;
/** No picture is so many times as long as it is short. */
const LONGEST = 3;

/** A plane along one way: lines beside each other, and how far it is in it from one to the next, and along each. */
interface Way {
  lines: number;
  length: number;
  across: number;
  along: number;
}

/** A line between samples, with how many edges are on it up to each place along it. */
interface Line {
  /** The place between samples, or the picture's border. */
  at: number;
  isBorder: boolean;
  upTo: Uint16Array;
}

const waysOf = ({ width, height }: BytePlane): { upright: Way; level: Way } => ({
  upright: { lines: width, length: height, across: 1, along: width },
  level: { lines: height, length: width, across: width, along: 1 },
});

/** 1 for each sample across which luma changes, and more than beside it; line by line, whichever way the lines go. */
function edgesOf({ samples, width, height }: BytePlane, { length, across }: Way): Uint8Array {
  const steps = new Uint8Array(samples.length);
  for (let at = across; at < samples.length - across; at++)
    steps[at] = Math.abs(samples[at + across]! - samples[at - across]!);
  const edges = new Uint8Array(samples.length);
  const reach = ALONE * across;
  const isUpright = across === 1;
  const [left, top] = isUpright ? [ALONE, 0] : [0, ALONE];
  for (let y = top; y < height - top; y++) {
    for (let x = left, at = y * width + x; x < width - left; x++, at++) {
      const step = steps[at]!;
      if (step < LEAST_STEP) continue;
      let isAlone = true;
      for (let beside = at - reach; beside <= at + reach && isAlone; beside += across) isAlone = steps[beside]! <= step;
      if (isAlone) edges[isUpright ? x * length + y : at] = 1;
    }
  }
  return edges;
}

/** The lines one way on which edges stay, and the picture's borders. */
interface Lines {
  lines: Line[];
  /** The share of a side at which there has to be an edge. */
  covered: number;
  /** The share of the edges that stay. */
  staying: number;
}

/** In how many pictures there is an edge at each sample or the next across: what lies between two is at either. */
function timesSeen({ length }: Way, looks: readonly Uint8Array[]): Uint8Array {
  const times = new Uint8Array(looks[0]!.length);
  for (const edges of looks)
    for (let at = 0; at < edges.length - length; at++) times[at]! += edges[at]! | edges[at + length]!;
  return times;
}

/** The clearest lines one way. */
function linesOf(way: Way, looks: readonly Uint8Array[]): Lines {
  const { lines, length } = way;
  const seen = timesSeen(way, looks);
  const needed = looks.length - HIDDEN;
  const least = CLEAR_SHARE * Math.round(LEAST_SIDE * length);
  const found: Line[] = [];
  let all = 0;
  let ever = 0;
  for (let line = FIRST_LINE; line < lines - FIRST_LINE - 1; line++) {
    let staying = 0;
    for (let at = line * length; at < (line + 1) * length; at++) {
      const times = seen[at]!;
      if (times >= needed) staying++;
      ever += times;
    }
    all += staying;
    if (staying < least) continue;
    const upTo = new Uint16Array(length + 1);
    for (let i = 0, count = 0; i < length; i++) {
      if (seen[line * length + i]! >= needed) count++;
      upTo[i + 1] = count;
    }
    found.push({ at: line + 1, isBorder: false, upTo });
  }
  const covered = COVERED + (CROWDED * all) / (length * (lines - 2 * FIRST_LINE - 1));
  const clear = found
    .map((line) => ({ ...line, weight: weightOf(line.upTo, covered) }))
    .filter(({ weight }) => weight >= (1 - covered) * least)
    .sort((a, b) => b.weight - a.weight);
  const kept: Line[] = [];
  for (const line of clear) {
    const isNew = kept.every((other) => Math.abs(other.at - line.at) > SAME_LINE);
    if (kept.length < MOST_LINES && isNew) kept.push(line);
  }
  const border = (at: number): Line => ({ at, isBorder: true, upTo: new Uint16Array(0) });
  const inOrder = [border(0), ...kept, border(lines)].sort((a, b) => a.at - b.at);
  return { lines: inOrder, covered, staying: (looks.length * all) / Math.max(1, ever) };
}

/** The most by which edges outweigh gaps in any stretch of a line (Kadane's algorithm). */
function weightOf(upTo: Uint16Array, covered: number): number {
  let most = 0;
  let here = 0;
  for (let i = 1; i < upTo.length; i++) {
    here = Math.max(0, here + upTo[i]! - upTo[i - 1]! - covered);
    most = Math.max(most, here);
  }
  return most;
}

/** Whether a line has edges along all of a stretch. */
function isSide({ isBorder, upTo }: Line, start: number, end: number, covered: number): boolean {
  if (isBorder) return true;
  const has = (from: number, to: number, share: number) => upTo[to]! - upTo[from]! >= share * (to - from);
  if (!has(start, end, covered)) return false;
  for (let quarter = 0; quarter < QUARTERS; quarter++) {
    const [from, to] = [quarter, quarter + 1].map((n) => start + Math.floor((n * (end - start)) / QUARTERS));
    if (!has(from!, to!, EVERYWHERE * covered)) return false;
  }
  return true;
}

/** Where a side is to a fraction of a sample; null where it is crooked, or says nothing. */
function placeOf({ samples }: BytePlane, way: Way, line: Line, start: number, end: number): number | null {
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
      // Two samples show so much of the one side, and so much of the other.
      place += Math.sign(step) * (2 * beyond - here - samples[at + across]!);
    }
    // A part with little change says little of where it is.
    if (weight > LEAST_STEP * (to - from)) places.push(place / weight);
  }
  if (places.length < 2) return null;
  const middle = median(places);
  const crooked = median(places.map((place) => Math.abs(place - middle)));
  return crooked > CROOKED ? null : left + Math.min(2, Math.max(0, middle));
}

/** Pairs of lines that are far enough from each other. */
const pairsOf = (lines: readonly Line[], least: number): [Line, Line][] =>
  lines.flatMap((first, i) =>
    lines.slice(i + 1).flatMap((second): [Line, Line][] => (second.at - first.at >= least ? [[first, second]] : [])),
  );

/** Finds rectangles in pictures that are given one after the other, some a second. */
export class RectangleFinder {
  private looks: { upright: Uint8Array; level: Uint8Array }[] = [];
  private count = 0;

  /**
   * @param luma the next picture
   * @returns the rectangles that have been there in the last `RECTANGLE_PICTURES`, to a fraction of a sample; undefined at
   * every second picture, at which they are not looked for. The picture's borders may be sides; the picture itself is none
   * of them, nor what is made up of others.
   */
  see(luma: BytePlane): Box[] | undefined {
    const ways = waysOf(luma);
    this.looks.push({ upright: edgesOf(luma, ways.upright), level: edgesOf(luma, ways.level) });
    this.count++;
    if (this.looks.length < RECTANGLE_PICTURES || this.count % 2) return undefined;
    this.looks = this.looks.slice(-RECTANGLE_PICTURES);
    const columns = linesOf(
      ways.upright,
      this.looks.map(({ upright }) => upright),
    );
    const rows = linesOf(
      ways.level,
      this.looks.map(({ level }) => level),
    );
    const found: Box[] = [];
    for (const [left, right] of pairsOf(columns.lines, LEAST_SIDE * luma.width)) {
      const sides = rows.lines.filter((row) => isSide(row, left.at, right.at, rows.covered));
      for (const [top, bottom] of pairsOf(sides, LEAST_SIDE * luma.height)) {
        if (left.isBorder && right.isBorder && top.isBorder && bottom.isBorder) continue;
        if (![left, right].every((side) => isSide(side, top.at, bottom.at, columns.covered))) continue;
        const [x, end] = [left, right].map((side) => placeOf(luma, ways.upright, side, top.at, bottom.at));
        const [y, foot] = [top, bottom].map((side) => placeOf(luma, ways.level, side, left.at, right.at));
        if (x == null || end == null || y == null || foot == null) continue;
        const box = { x, y, width: end - x, height: foot - y };
        found.push(box);
      }
    }
    const equal = equalTiles(found, luma);
    if (equal) return equal;
    return Math.max(columns.staying, rows.staying) > STANDING ? [] : withoutUnions(found);
  }
}

/** Whether there is next to nothing in a rectangle: colour bars and panels are no pictures. */
function isPlain({ samples, width }: BytePlane, box: Box): boolean {
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
 * Whether rectangles that reach from one border of the picture to the other are what lines of a landscape make of it, and no
 * tiles: these are no longer than pictures are, and what is left of the picture is the same on both sides.
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
 * Rectangles of one size that are most of the picture, and most of them not plain: no line that a picture shows divides
 * it like that. Of several
 * divisions the finest, and then that which leaves most for a ground between them.
 */
function equalTiles(found: readonly Box[], picture: BytePlane): Box[] | null {
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

/** Rectangles, the smallest first, without those that are made up of others. */
function withoutUnions(found: Box[]): Box[] {
  const kept: Box[] = [];
  for (const box of found.sort((a, b) => boxArea(a) - boxArea(b))) {
    const others = kept.reduce((sum, other) => sum + intersectionArea(box, other), 0);
    if (others < MADE_OF_OTHERS * boxArea(box)) kept.push(box);
  }
  return kept;
}
