/**
 * What is found in single pictures, which take a hundredth of the time of films: to choose by how that is measured. The
 * pictures are drawn as those of the films are, from other seeds.
 *
 *   ./glad-pan bench stills [--count PICTURES-A-SET] [--first SEED]
 */
import { parseArgs } from "node:util";
import { boxIou, wholeOf } from "~/core/geometry/box";
import type { YuvImage } from "~/core/image/yuv-image";
import { boxesInside } from "~/core/subjects/detecting/any-boxes";
import { CLEAR_THING, type Detection } from "~/core/subjects/detecting/detection";
import { likelyThings } from "~/core/subjects/detecting/likely-things";
import { salientThings } from "~/core/subjects/detecting/saliency";
import { ObjectDetector } from "~/media/detect/object-detector.server";
import { loadPictures } from "./pictures";
import { FOLLOWED_SETS } from "./plan-things";
import { holds } from "./score-things";
import { emptyStills, STILL_SIZE, stillOf } from "./still-pictures";

const { values } = parseArgs({
  options: { count: { type: "string", default: "40" }, first: { type: "string", default: "100" } },
});
const [count, first] = [Number(values.count), Number(values.first)];

const network = await ObjectDetector.load(STILL_SIZE);
async function thingsIn(image: YuvImage): Promise<Detection[]> {
  const { boxes } = await network.detect(image, true);
  return likelyThings(boxesInside(boxes, wholeOf(image)), salientThings(image), image);
}

interface Tally {
  pictures: number;
  /** Those in which the middle of the likeliest is in a right thing, and the sum of how much it is like it. */
  hits: number;
  overlap: number;
  nothing: number;
}

const pictures = await loadPictures();
const table: Record<string, object> = {};
const all: Tally = { pictures: 0, hits: 0, overlap: 0, nothing: 0 };
const percent = (part: number, whole: number) => ((100 * part) / whole).toFixed(1);
const row = ({ pictures: of, hits, overlap, nothing }: Tally) => ({
  "hit %": percent(hits, of),
  "IoU %": percent(overlap, of),
  nothing: nothing || "",
});
for (const set of FOLLOWED_SETS) {
  const tally: Tally = { pictures: count, hits: 0, overlap: 0, nothing: 0 };
  for (let seed = first; seed < first + count; seed++) {
    const { image, things } = stillOf(set, seed, pictures);
    const [best] = await thingsIn(image);
    if (!best) tally.nothing++;
    else if (things.some((box) => holds(box, best.box))) tally.hits++;
    tally.overlap += best ? Math.max(...things.map((box) => boxIou(box, best.box))) : 0;
  }
  table[set] = row(tally);
  for (const key of Object.keys(all) as (keyof Tally)[]) all[key] += tally[key];
}
console.table({ ...table, all: row(all) });

let [empty, said] = [0, 0];
for (const { image } of emptyStills(pictures)) {
  empty++;
  if (((await thingsIn(image))[0]?.score ?? 0) >= CLEAR_THING) said++;
}
console.log(`${empty} pictures of nothing but ground; a thing is seen in ${percent(said, empty)}% of them`);
