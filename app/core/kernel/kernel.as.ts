/** All that the compiled kernel offers (`npm run build:kernels`). */
export { segmentMeans } from "./bars.as";
export { countLines, findEdges, keepCommonEdges, seeLines } from "./edges.as";
export { tallyChroma, tallyLuma } from "./features.as";
export { findCorners, followPoints, shiftedDifference, toFloats } from "./flow.as";
export { shiftedProducts } from "./matching.as";
export { differencesFrom, moveCells } from "./moving.as";
export { halve, writeColours } from "./pictures.as";

/** Where memory begins that nothing of the kernel's own is in. */
export function heapStart(): usize {
  return __heap_base;
}
