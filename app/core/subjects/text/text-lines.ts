/**
 * Lines of text in a picture by their strokes: many narrow ones side by side, with nothing similar above and below. (Stroke
 * width as a sign of text: Epshtein, Ofek and Wexler, "Detecting text in natural scenes with stroke width transform", 2010;
 * here by pairs of opposite edges along rows.)
 */
import { type Box, boxUnion, scaleBox, type Size } from "../../geometry/box";
import { connectedCells } from "../../image/connected-cells";
import { mean } from "../../numbers/mean";
import { median } from "../../numbers/median";
import type { GreyPlane } from "../../image/grey-plane";
import type { Edges } from "./steady-edges";

/** Side of a cell, in samples. */
const CELL = 4;
/** Widest stroke, in samples. */
const WIDEST_STROKE = 9;
/** Distance in cells within which strokes are of one line. */
const REACH = 3;
/** Least and greatest height of a line, in samples … */
const LEAST_HEIGHT = 5;
const MOST_HEIGHT = 26;
/** … and least ratio of its width to its height. */
const LEAST_WIDTH = 1.8;
/** Fewest strokes along a line, in the median of its rows. */
const LEAST_STROKES = 4;
/**
 * Fewest strokes per height of the line along it: letters are about half as wide as a line is high, with one or two each.
 */
const LEAST_DENSITY = 0.7;
/** Lines of letters are horizontal: least share of the width over which the strokes of the median row extend. */
const LEAST_SPAN = 0.6;
/** A stripe is as long as the line is high, while letters end, so that rows differ. Least share of edges that run along. */
const LEAST_ALONG = 0.2;
/** Letters are unevenly spaced: least standard deviation of the gaps between strokes, relative to their mean. */
const LEAST_IRREGULARITY = 0.3;
/** One colour: greatest deviation from the median, with compression and grain, and the share within it. */
const ONE_COLOUR = 24;
const ONE_COLOUR_SHARE = 0.6;
/** Greatest distance between words and lines of one text, relative to their height. */
const APART = 1.3;
/** Edges above and below a line, at a distance, relative to those in it. */
const MOST_BESIDE = 0.3;
const GAP = 2;
/** Share of a row with edges along it at which it is a straight rule. */
const RULE = 0.7;

/** A pair of opposite edges along a row. */
interface Stroke {
  start: number;
  end: number;
}

interface Strokes {
  /** Whether there is a stroke in each cell. */
  cells: Uint8Array;
  grid: Size;
  /** The strokes of each row, from the left. */
  rows: Stroke[][];
}

function strokesOf({ across, width, height }: Edges): Strokes {
  const grid = { width: Math.ceil(width / CELL), height: Math.ceil(height / CELL) };
  const cells = new Uint8Array(grid.width * grid.height);
  const rows: Stroke[][] = [];
  for (let y = 0; y < height; y++) {
    const row: Stroke[] = [];
    let [open, sign] = [-1, 0];
    for (let x = 0, at = y * width; x < width; x++, at++) {
      // Most samples have none.
      if (across[at] === 0) continue;
      const edge = Math.sign(across[at]!);
      if (sign !== 0 && edge === -sign && x - open <= WIDEST_STROKE) {
        row.push({ start: open, end: x });
        for (let part = open; part <= x; part += CELL) {
          cells[Math.floor(y / CELL) * grid.width + Math.floor(part / CELL)] = 1;
        }
      }
      if (edge !== sign || x - open > WIDEST_STROKE) [open, sign] = [x, edge];
    }
    rows.push(row);
  }
  return { cells, grid, rows };
}

/** The strokes of a row that begin in a part of it. */
const strokesBetween = (row: readonly Stroke[] | undefined, left: number, right: number): Stroke[] =>
  row?.filter(({ start }) => start >= left && start < right) ?? [];

/** Rows of a region that form one line: consecutive rows with strokes. */
function linesIn(region: Box, rows: readonly Stroke[][]): Box[] {
  const lines: Box[] = [];
  let inLine: Stroke[] = [];
  let top = -1;
  const bottom = region.y + region.height;
  for (let y = region.y; y <= bottom; y++) {
    const strokes = y < bottom ? strokesBetween(rows[y], region.x, region.x + region.width) : [];
    if (strokes.length >= 2) {
      if (top < 0) top = y;
      inLine.push(...strokes);
    } else if (top >= 0) {
      const left = Math.min(...inLine.map(({ start }) => start));
      const right = Math.max(...inLine.map(({ end }) => end)) + 1;
      lines.push({ x: left, y: top, width: right - left, height: y - top });
      [inLine, top] = [[], -1];
    }
  }
  return lines;
}

/** Whether a line has as many strokes as letters have, all along it, and less regular than stripes. */
function hasLetters({ width, height }: Box, rows: readonly Stroke[][]): boolean {
  const usual = median(rows.map((row) => row.length));
  if (usual < LEAST_STROKES || (usual * height) / width < LEAST_DENSITY) return false;
  const spans = rows.map((row) => (row.length > 0 ? row.at(-1)!.end - row[0]!.start : 0));
  if (median(spans) < LEAST_SPAN * width) return false;
  const gaps = rows.flatMap((row) => row.slice(1).map(({ start }, i) => start - row[i]!.start));
  return deviation(gaps) >= LEAST_IRREGULARITY * mean(gaps);
}

const deviation = (values: readonly number[]): number => {
  const middle = mean(values);
  return Math.sqrt(mean(values.map((value) => (value - middle) ** 2)));
};

/** Whether all strokes of a line have one colour, dark or light: that of the letters, or of the spaces between. */
function isOneColour({ y }: Box, rows: readonly Stroke[][], { samples, width }: GreyPlane, edges: Edges): boolean {
  const light: number[] = [];
  const dark: number[] = [];
  for (const [i, row] of rows.entries()) {
    for (const { start, end } of row) {
      const at = (y + i) * width;
      const inside = samples.subarray(at + start, at + end + 1);
      // A thin stroke has its colour in the middle at most.
      if (edges.across[at + start]! > 0) light.push(Math.max(...inside));
      else dark.push(Math.min(...inside));
    }
  }
  return [light, dark].some((values) => {
    const middle = median(values);
    const near = values.filter((value) => Math.abs(value - middle) <= ONE_COLOUR).length;
    return values.length >= rows.length && near >= ONE_COLOUR_SHARE * values.length;
  });
}

/** Whether a line has the strokes, the ends and the plain surroundings of letters. */
function isText(line: Box, edges: Edges, strokes: readonly Stroke[][], luma: GreyPlane): boolean {
  const { x, y, width, height } = line;
  if (height < LEAST_HEIGHT || height > MOST_HEIGHT || width < LEAST_WIDTH * height) return false;
  const rows = Array.from({ length: height }, (_, i) => strokesBetween(strokes[y + i], x, x + width));
  if (!hasLetters(line, rows) || !isOneColour(line, rows, luma, edges)) return false;
  let [along, all] = [0, 0];
  for (let row = y; row < y + height; row++) {
    for (let column = x; column < x + width; column++) {
      const at = row * edges.width + column;
      if (edges.across[at] !== 0 || edges.down[at] !== 0) all++;
      if (Math.abs(edges.down[at]!) > Math.abs(edges.across[at]!)) along++;
    }
  }
  if (along < LEAST_ALONG * all) return false;
  const band = Math.max(2, Math.round(height / 4));
  const beside = [y - GAP - band, y + height + GAP].map((top) =>
    edgesBeside(edges, { x, y: top, width, height: band }),
  );
  return Math.max(...beside) <= (MOST_BESIDE * all * band) / height;
}

/** Edges in a band above or below a line, without those of a rule or of a field behind the text. */
function edgesBeside({ across, down, width: stride, height: bottom }: Edges, { x, y, width, height }: Box): number {
  let count = 0;
  for (let row = Math.max(0, y); row < Math.min(bottom, y + height); row++) {
    let [along, all] = [0, 0];
    for (let at = row * stride + x; at < row * stride + x + width; at++) {
      if (across[at] === 0 && down[at] === 0) continue;
      all++;
      if (Math.abs(down[at]!) > Math.abs(across[at]!)) along++;
    }
    if (along < RULE * width) count += all;
  }
  return count;
}

/** Whether two lie side by side or one above the other, not much further apart than the lower one is high. */
function areNear(a: Box, b: Box): boolean {
  const reach = APART * Math.min(a.height, b.height);
  const below = Math.max(a.y, b.y) - Math.min(a.y + a.height, b.y + b.height);
  const aside = Math.max(a.x, b.x) - Math.min(a.x + a.width, b.x + b.width);
  return (below <= reach && aside < 0) || (below < 0 && aside <= reach);
}

/** Joins words and lines near one another into blocks. */
function blocksOf(lines: readonly Box[]): Box[] {
  let blocks: Box[] = [];
  for (const line of lines) {
    let block = line;
    for (let near = blocks.filter((other) => areNear(block, other)); near.length > 0;) {
      blocks = blocks.filter((other) => !near.includes(other));
      block = boxUnion([block, ...near]);
      near = blocks.filter((other) => areNear(block, other));
    }
    blocks.push(block);
  }
  return blocks;
}

/**
 * Blocks of text in a picture.
 * @param edges of the picture, or the steady ones of several
 * @param luma of the same picture
 * @returns boxes in its samples
 */
export function textBlocks(edges: Edges, luma: GreyPlane): Box[] {
  const { cells, grid, rows } = strokesOf(edges);
  const seen = new Set<number>();
  const lines: Box[] = [];
  for (const start of cells.keys()) {
    if (!cells[start] || seen.has(start)) continue;
    const region = connectedCells(grid, start, (cell) => cells[cell] !== 0, REACH);
    for (const cell of region.cells) seen.add(cell);
    const box = scaleBox(region.box, CELL);
    lines.push(...linesIn(box, rows).filter((line) => isText(line, edges, rows, luma)));
  }
  return blocksOf(lines);
}
