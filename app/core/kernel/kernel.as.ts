/** Exports of the compiled kernel (`npm run build:kernels`). */
export { segmentMeans } from "./bars.as";
export { countLines, findEdges, keepCommonEdges, seeLines } from "./edges.as";
export { tallyChroma, tallyLuma } from "./features.as";
export { findCorners, followPoints, shiftedDifference, toFloats } from "./flow.as";
export { shiftedProducts } from "./matching.as";
export { differencesFrom, moveCells } from "./moving.as";
export { halve, writeColours } from "./pictures.as";

/** Start of the memory that the kernel itself does not use. */
export function heapStart(): usize {
  return __heap_base;
}
