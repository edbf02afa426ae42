/** Edges that stay in place over several pictures, like those of burnt-in text while the film moves. */
import type { Size } from "../../geometry/box";
import type { GreyPlane } from "../../image/grey-plane";
import { KernelMemory, loops } from "../../kernel/kernel";

/** Change of luma over two pixels that is an edge, 0 to 255. */
export const LEAST_EDGE = 26;

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
