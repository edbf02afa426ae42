/** Lines of text in the map that a text detector gives: the probability that a sample lies on text. */
import { type Box, boxArea, boxUnion, clipBox, grownBox, intersectionArea, type Size } from "../../geometry/box";
import { connectedCells } from "../../image/connected-cells";
import { mean } from "../../numbers/mean";

/** Probability above which a sample is part of a line, least mean of a line, and fewest samples. */
const LEAST_PROBABILITY = 0.3;
const LEAST_MEAN = 0.5;
const LEAST_SAMPLES = 16;
/** Share of the height of the higher one for which two pieces of one line are side by side. */
const ONE_LINE = 0.6;
/** The map shows lines shrunk towards their middle: they are grown by this × area / perimeter. */
const UNCLIP = 1.6;

/** Whether boxes of one line overlap, as they do where the line is broken between two words. */
const areOneLine = (a: Box, b: Box): boolean =>
  intersectionArea(a, b) > 0 &&
  Math.min(a.y + a.height, b.y + b.height) - Math.max(a.y, b.y) >= ONE_LINE * Math.max(a.height, b.height);

/**
 * Lines by differentiable binarisation (Liao et al., "Real-time Scene Text Detection with Differentiable Binarization",
 * 2020), as upright boxes.
 * @param map probabilities from 0 to 1, row by row
 * @param size of the map
 * @returns boxes in samples of the map, from the top
 */
export function linesInMap(map: Float32Array, size: Size): Box[] {
  const isText = (cell: number) => map[cell]! > LEAST_PROBABILITY;
  const seen = new Uint8Array(map.length);
  const lines: Box[] = [];
  for (let start = 0; start < map.length; start++) {
    if (seen[start] || !isText(start)) continue;
    const { cells, box } = connectedCells(size, start, isText);
    for (const cell of cells) seen[cell] = 1;
    if (cells.length < LEAST_SAMPLES || mean(cells.map((cell) => map[cell]!)) < LEAST_MEAN) continue;
    const grown = (UNCLIP * boxArea(box)) / (2 * (box.width + box.height));
    lines.push(clipBox(grownBox(box, grown), size));
  }
  const whole: Box[] = [];
  for (const line of lines.sort((a, b) => a.x - b.x)) {
    const at = whole.findIndex((other) => areOneLine(line, other));
    if (at < 0) whole.push(line);
    else whole[at] = boxUnion([whole[at]!, line]);
  }
  return whole.sort((a, b) => a.y - b.y);
}
