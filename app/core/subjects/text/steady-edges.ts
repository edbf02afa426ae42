/** Edges that stay in place over several pictures, like those of burnt-in text while the film moves. */
import type { Size } from "../../geometry/box";
import type { GreyPlane } from "../../image/grey-plane";
import { KernelMemory, loops } from "../../kernel/kernel";

/** Change of luma over two pixels that is an edge, 0 to 255. */
const LEAST_EDGE = 26;
/** Ratio of strengths in two pictures below which an edge is not the same. */
const LIKE = 0.5;

/** Change of luma across each sample, to the right and downwards, where it is an edge; 0 elsewhere. */
export interface Edges extends Size {
  across: Int16Array;
  down: Int16Array;
  /** Number of samples with an edge. */
  count: number;
}

export function edgesOf({ samples, width, height }: GreyPlane): Edges {
  const memory = new KernelMemory();
  const area = width * height;
  const [from, across, down] = [memory.put(samples), memory.take(2 * area), memory.take(2 * area)];
  const count = loops().findEdges(from, width, height, LEAST_EDGE, across, down);
  return { width, height, across: memory.shorts(across, area).slice(), down: memory.shorts(down, area).slice(), count };
}

/** The strength of an edge that is in another picture as well; 0 where it is not. */
function common(a: number, b: number): number {
  if (a === 0 || Math.sign(a) !== Math.sign(b)) return 0;
  const [less, more] = Math.abs(a) < Math.abs(b) ? [a, b] : [b, a];
  return Math.abs(less) >= LIKE * Math.abs(more) ? less : 0;
}

/** Edges that are in all of several pictures of one size. */
export function steadyEdges([first, ...others]: readonly [Edges, ...Edges[]]): Edges {
  const { width, height } = first;
  const memory = new KernelMemory();
  const area = width * height;
  const put = ({ across, down }: Edges): [number, number] => [memory.put(across), memory.put(down)];
  const steady = put(first);
  let { count } = first;
  for (const other of others) count = loops().keepCommonEdges(...steady, ...put(other), area);
  const [across, down] = steady.map((at) => memory.shorts(at, area).slice()) as [Int16Array, Int16Array];
  return { width, height, across, down, count };
}

/** A part of a picture: from `left` and `top` up to before `right` and `bottom`. */
type Part = [left: number, top: number, right: number, bottom: number];

/** The part of a box that lies in a picture. */
const inside = ({ width, height }: Size, [left, top, right, bottom]: Part): Part => [
  Math.max(0, left),
  Math.max(0, top),
  Math.min(width, right),
  Math.min(height, bottom),
];

/** Number of edges in a part of a picture. */
export function countEdges({ across, down, ...size }: Edges, ...part: Part): number {
  const [left, top, right, bottom] = inside(size, part);
  let count = 0;
  for (let y = top; y < bottom; y++) {
    const row = y * size.width;
    for (let at = row + left; at < row + right; at++) if (across[at] !== 0 || down[at] !== 0) count++;
  }
  return count;
}

/** Number of edges in a part of a picture that are in another one as well. */
export function countCommonEdges(a: Edges, b: Edges, ...part: Part): number {
  const [left, top, right, bottom] = inside(a, part);
  let count = 0;
  for (let y = top; y < bottom; y++) {
    const row = y * a.width;
    for (let at = row + left; at < row + right; at++)
      if (common(a.across[at]!, b.across[at]!) !== 0 || common(a.down[at]!, b.down[at]!) !== 0) count++;
  }
  return count;
}
