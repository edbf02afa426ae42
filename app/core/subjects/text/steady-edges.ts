/** Edges that stay where they are over several pictures, as those of what was put over a film do while the film moves. */
import type { Size } from "../../geometry/box";
import type { GreyPlane } from "../../image/grey-plane";

/** Change of luma over two pixels that is an edge, 0 to 255. */
const LEAST_EDGE = 26;
/** An edge that is so much weaker in one picture than in another is not the same. */
const LIKE = 0.5;

/** Change of luma across each sample, to the right and downwards, as far as it is an edge; 0 elsewhere. */
export interface Edges extends Size {
  across: Int16Array;
  down: Int16Array;
  /** The samples at which there is an edge, few of all of them, in order. */
  places: Int32Array;
}

export function edgesOf({ samples, width, height }: GreyPlane): Edges {
  const across = new Int16Array(width * height);
  const down = new Int16Array(width * height);
  const places = new Int32Array(width * height);
  let count = 0;
  for (let y = 1; y < height - 1; y++) {
    for (let x = 1, at = y * width + 1; x < width - 1; x++, at++) {
      const gx = samples[at + 1]! - samples[at - 1]!;
      const gy = samples[at + width]! - samples[at - width]!;
      if (Math.abs(gx) >= LEAST_EDGE) across[at] = gx;
      if (Math.abs(gy) >= LEAST_EDGE) down[at] = gy;
      if (across[at] !== 0 || down[at] !== 0) places[count++] = at;
    }
  }
  return { width, height, across, down, places: places.slice(0, count) };
}

/** What of an edge is in another picture as well; 0 where it is not the same there. */
function common(a: number, b: number): number {
  if (a === 0 || Math.sign(a) !== Math.sign(b)) return 0;
  const [less, more] = Math.abs(a) < Math.abs(b) ? [a, b] : [b, a];
  return Math.abs(less) >= LIKE * Math.abs(more) ? less : 0;
}

/** Edges that are in all of several pictures of one size. */
export function steadyEdges([first, ...others]: readonly [Edges, ...Edges[]]): Edges {
  const { width, height } = first;
  const steady = { width, height, across: new Int16Array(width * height), down: new Int16Array(width * height) };
  const places = first.places.filter((at) => {
    let [across, down] = [first.across[at]!, first.down[at]!];
    for (const other of others) {
      across = common(across, other.across[at]!);
      down = common(down, other.down[at]!);
    }
    steady.across[at] = across;
    steady.down[at] = down;
    return across !== 0 || down !== 0;
  });
  return { ...steady, places };
}

/** A part of a picture: from `left` and `top` up to before `right` and `bottom`. */
type Part = [left: number, top: number, right: number, bottom: number];

/** Number of samples in a part of a picture of which something holds. */
function countIn({ width, height }: Size, [left, top, right, bottom]: Part, holds: (at: number) => boolean): number {
  let count = 0;
  for (let y = Math.max(0, top); y < Math.min(height, bottom); y++) {
    for (let x = Math.max(0, left); x < Math.min(width, right); x++) if (holds(y * width + x)) count++;
  }
  return count;
}

/** Number of edges in a part of a picture. */
export const countEdges = (edges: Edges, ...part: Part): number =>
  countIn(edges, part, (at) => edges.across[at] !== 0 || edges.down[at] !== 0);

/** Number of edges in a part of a picture that are in another one as well. */
export const countCommonEdges = (a: Edges, b: Edges, ...part: Part): number =>
  countIn(a, part, (at) => common(a.across[at]!, b.across[at]!) !== 0 || common(a.down[at]!, b.down[at]!) !== 0);
