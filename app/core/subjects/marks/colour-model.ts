/**
 * Separates a thing from its surroundings by colour alone, whatever its outline does (the histogram part of Bertinetto et
 * al., "Staple: complementary learners for real-time tracking", 2016). It notices what a correlation filter cannot:
 * something that has moved in front of the thing.
 */
import { clamped } from "../../numbers/clamped";
import { type Box, boxAround, boxCentre, clipBox } from "../../geometry/box";
import { FULL_CHROMA, FULL_LUMA, type YuvImage } from "../../image/yuv-image";
import { relativeChroma } from "../detecting/signature";

const CHROMA_BINS = 11;
const CHROMA_BIN = 9;
const LUMA_BINS = 5;
const BINS = CHROMA_BINS * CHROMA_BINS * LUMA_BINS;
/** Width and number of bins on each of the three axes. */
const AXES = [
  [1, CHROMA_BINS],
  [CHROMA_BINS, CHROMA_BINS],
  [CHROMA_BINS * CHROMA_BINS, LUMA_BINS],
] as const;
/** Samples along the shorter side of a box. */
const SAMPLES = 20;
/** The surroundings reach to this multiple of a thing's size. */
const AROUND = 2.2;
/** Share of a box used for the thing: at its edges there is some background. */
const MIDDLE = 0.86;
/** Share of all samples at which a colour counts in full. */
const RARE = 0.004;
/** Share of the first model that is never forgotten. */
const MEMORY = 0.35;
const LEARNING_RATE = 0.05;
/** What drifts off a thing gradually resembles it less and less; a likeness below this share of the first is not usual. */
const LEAST_USUAL = 0.85;

const chromaBin = (difference: number, luma: number): number => {
  const place = Math.round(relativeChroma(difference, luma) / CHROMA_BIN) + (CHROMA_BINS >> 1);
  return clamped(place, 0, CHROMA_BINS - 1);
};

/** The bin of the colour at a place of a picture. */
function binAt(image: YuvImage, x: number, y: number): number {
  const chroma = (y >> 1) * (image.width >> 1) + (x >> 1);
  const luma = FULL_LUMA[image.luma[y * image.width + x]!]!;
  const u = chromaBin(FULL_CHROMA[image.blue[chroma]!]! - 128, luma);
  const v = chromaBin(FULL_CHROMA[image.red[chroma]!]! - 128, luma);
  return (Math.floor((luma * LUMA_BINS) / 256) * CHROMA_BINS + v) * CHROMA_BINS + u;
}

/** Calls back for samples on a grid in the part of a box inside the picture. */
function sample(image: YuvImage, box: Box, step: number, use: (bin: number, x: number, y: number) => void): void {
  const { x: left, y: top, width, height } = clipBox(box, image);
  for (let y = top + step / 2; y < top + height; y += step) {
    for (let x = left + step / 2; x < left + width; x += step) {
      use(binAt(image, Math.floor(x), Math.floor(y)), x, y);
    }
  }
}

const resized = (box: Box, factor: number): Box =>
  boxAround(boxCentre(box), { width: factor * box.width, height: factor * box.height });

/** Distributions of the colours of the thing and of its surroundings, each summing to 1. */
interface Shares {
  thing: Float64Array;
  around: Float64Array;
}

/** A distribution from counts, spread over neighbouring bins: slightly different light is no other colour. */
function sharesOf(counts: Float64Array): Float64Array {
  const total = counts.reduce((a, b) => a + b, 0);
  if (total === 0) return counts;
  let shares = counts.map((count) => count / total);
  for (const [stride, length] of AXES) {
    const from = shares;
    shares = from.map((value, i) => {
      const at = Math.floor(i / stride) % length;
      const before = at > 0 ? from[i - stride]! : value;
      const after = at < length - 1 ? from[i + stride]! : value;
      return 0.5 * value + 0.25 * (before + after);
    });
  }
  return shares;
}

function sharesIn(image: YuvImage, box: Box): Shares {
  const thing = new Float64Array(BINS);
  const around = new Float64Array(BINS);
  const step = Math.max(1, Math.min(box.width, box.height) / SAMPLES);
  sample(image, resized(box, MIDDLE), step, (bin) => thing[bin]!++);
  sample(image, resized(box, AROUND), 2 * step, (bin, x, y) => {
    const isInside = x >= box.x && x < box.x + box.width && y >= box.y && y < box.y + box.height;
    if (!isInside) around[bin]!++;
  });
  return { thing: sharesOf(thing), around: sharesOf(around) };
}

export class ColourModel {
  private readonly first: Shares;
  private readonly known: Shares;
  private readonly firstLikeness: number;
  /** The thing's own likeness to the model. */
  private usual: number;

  /** Learns the colours in a box of a picture. */
  constructor(image: YuvImage, box: Box) {
    this.first = sharesIn(image, box);
    this.known = { thing: this.first.thing.slice(), around: this.first.around.slice() };
    this.firstLikeness = this.likeness(image, box);
    this.usual = this.firstLikeness;
  }

  /** Mean probability, by colour, that the content of a box is the thing; 0 outside the picture. */
  private likeness(image: YuvImage, box: Box): number {
    const { thing, around } = this.known;
    const step = Math.max(1, Math.min(box.width, box.height) / SAMPLES);
    let sum = 0;
    let count = 0;
    sample(image, resized(box, MIDDLE), step, (bin) => {
      sum += thing[bin]! / (thing[bin]! + around[bin]! + RARE);
      count++;
    });
    return count > 0 ? sum / count : 0;
  }

  /** Likeness of a box's content to the thing, relative to the usual: 1 for as much, 0 for none. */
  agreement(image: YuvImage, box: Box): number {
    return this.usual > 0 ? this.likeness(image, box) / this.usual : 1;
  }

  /** Learns gradually from the present content of a box; part of the first model stays. */
  learn(image: YuvImage, box: Box): void {
    const fresh = sharesIn(image, box);
    const { thing, around } = this.known;
    for (let i = 0; i < BINS; i++) {
      const lasting = MEMORY * this.first.thing[i]! + (1 - MEMORY) * fresh.thing[i]!;
      thing[i] = (1 - LEARNING_RATE) * thing[i]! + LEARNING_RATE * lasting;
      around[i] = (1 - LEARNING_RATE) * around[i]! + LEARNING_RATE * fresh.around[i]!;
    }
    const usual = this.usual + LEARNING_RATE * (this.likeness(image, box) - this.usual);
    this.usual = Math.max(LEAST_USUAL * this.firstLikeness, usual);
  }
}
