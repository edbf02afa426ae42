/** Whether a picture stands while something in it comes up or goes. */
import { type Box, clipBox, grownBox, wholeOf } from "../../geometry/box";
import type { GreyPlane } from "../../image/grey-plane";

/** Largest share of the samples that are different where the picture stands, and by how many levels. */
const STANDS = 0.3;
const CHANGED = 10;
/** How far fields reach beyond a line of text, in multiples of its height. */
const FIELDS = [1, 3] as const;
/** Samples beyond its height that count as beside a field. */
const BESIDE = 8;

/** The share of the samples in an area, without those in a box, that are different in two pictures. */
function changedShare(a: GreyPlane, b: GreyPlane, area: Box, without: Box): number {
  const { x: left, y: top, width, height } = clipBox(area, a);
  const isWithout = (x: number, y: number) =>
    x >= without.x && x < without.x + without.width && y >= without.y && y < without.y + without.height;
  let [changed, all] = [0, 0];
  for (let y = Math.floor(top); y < top + height; y++) {
    for (let x = Math.floor(left); x < left + width; x++) {
      if (isWithout(x, y)) continue;
      const at = y * a.width + x;
      all++;
      if (Math.abs(a.samples[at]! - b.samples[at]!) > CHANGED) changed++;
    }
  }
  return changed / Math.max(1, all);
}

/**
 * Whether two pictures are the same near a box and everywhere, but for a field around it that may be there in only one of
 * them: there is no cut between them, and nobody passes in front of a sign.
 */
export function standsAround(box: Box, a: GreyPlane, b: GreyPlane): boolean {
  const fields = FIELDS.map((times) => grownBox(box, times * box.height));
  const isSame = (area: Box, field: Box) => changedShare(a, b, area, field) <= STANDS;
  return (
    isSame(wholeOf(a), fields.at(-1)!) && fields.some((field) => isSame(grownBox(field, box.height + BESIDE), field))
  );
}
