/**
 * What stands out in single pictures, which take a hundredth of the time of films: to choose by how that is measured. The
 * pictures are drawn as those of the films are, from other seeds.
 *
 *   ./glad-pan bench stills [--count PICTURES-A-SET] [--first SEED]
 */
import { type Canvas, createCanvas } from "@napi-rs/canvas";
import { parseArgs } from "node:util";
import { clamped } from "~/core/numbers/clamped";
import { type Box, boxIou, scaleBox } from "~/core/geometry/box";
import type { YuvImage } from "~/core/image/yuv-image";
import { salientThings } from "~/core/subjects/detecting/saliency";
import { smallFrames } from "~/media/small-frames.server";
import { seeded } from "../../../demo/film/random";
import { yuvPicture } from "../../../tests/support/yuv-picture";
import { STAGE } from "./draw-things";
import { loadPictures } from "./pictures";
import { drawingOf, THING_SETS } from "./plan-things";
import { holds } from "./score-things";

const { values } = parseArgs({
  options: { count: { type: "string", default: "40" }, first: { type: "string", default: "100" } },
});
const [count, first] = [Number(values.count), Number(values.first)];
const { size, scale } = smallFrames(STAGE);
/** Standard deviation of the grain, 0 to 255. */
const GRAINS = [2, 5, 3, 9, 4];
/** Below this score nothing is followed for standing out. */
const FOLLOWED = 0.15;
/** Parts of a photograph that nothing was put into: corner and side, as shares of it. */
const PARTS = [
  { x: 0, y: 0, side: 1 },
  { x: 0.2, y: 0.1, side: 0.6 },
  { x: 0.3, y: 0.3, side: 0.5 },
  { x: 0.5, y: 0.1, side: 0.5 },
];

function pictureOf(canvas: Canvas, seed: number): YuvImage {
  const data = canvas.data();
  const random = seeded(seed);
  const grain = GRAINS[seed % GRAINS.length]!;
  return yuvPicture(size.width, size.height, (x, y) => {
    const at = 4 * (y * size.width + x);
    const noise = grain * (random() + random() + random() - 1.5);
    const value = (channel: number) => clamped(data[at + channel]! + noise, 0, 255);
    return [value(0), value(1), value(2)];
  });
}

interface Tally {
  pictures: number;
  /** Those in which the middle of the clearest is in a right thing, and the sum of how much it is like it. */
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
for (const set of Object.keys(THING_SETS)) {
  const tally: Tally = { pictures: count, hits: 0, overlap: 0, nothing: 0 };
  for (let seed = first; seed < first + count; seed++) {
    const canvas = createCanvas(size.width, size.height);
    const g = canvas.getContext("2d");
    g.scale(size.width / STAGE.width, size.height / STAGE.height);
    const { things } = drawingOf(set, seed, pictures)(g, 0.5 + 1.2 * (seed % 3));
    const right = things.map((box): Box => scaleBox(box, 1 / scale));
    const [best] = salientThings(pictureOf(canvas, seed));
    if (!best) tally.nothing++;
    else if (right.some((box) => holds(box, best.box))) tally.hits++;
    tally.overlap += best ? Math.max(...right.map((box) => boxIou(box, best.box))) : 0;
  }
  table[set] = row(tally);
  for (const key of Object.keys(all) as (keyof Tally)[]) all[key] += tally[key];
}
console.table({ ...table, all: row(all) });

let [empty, said] = [0, 0];
for (const [seed, ground] of pictures.grounds.entries()) {
  for (const { x, y, side } of PARTS) {
    const canvas = createCanvas(size.width, size.height);
    const [width, height] = [side * ground.width, side * ground.height];
    const g = canvas.getContext("2d");
    g.drawImage(ground, x * ground.width, y * ground.height, width, height, 0, 0, size.width, size.height);
    empty++;
    if ((salientThings(pictureOf(canvas, seed))[0]?.score ?? 0) > FOLLOWED) said++;
  }
}
console.log(`${empty} pictures of nothing but ground; something stands out in ${percent(said, empty)}% of them`);
