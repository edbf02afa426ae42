/**
 * Tells a thing from what is around it by colour alone, whatever its outline does (the histogram part of Bertinetto et
 * al., "Staple: complementary learners for real-time tracking", 2016). It says what a correlation filter cannot: that
 * something else has come to stand before the thing.
 */
import { clamped } from "../../numbers/clamped";
import { type Box, boxAround, boxCentre, clipBox } from "../../geometry/box";
import { FULL_CHROMA, FULL_LUMA, type YuvImage } from "../../image/yuv-image";
import { relativeChroma } from "../detecting/signature";

const CHROMA_BINS = 11;
const CHROMA_BIN = 9;
const LUMA_BINS = 5;
const BINS = CHROMA_BINS * CHROMA_BINS * LUMA_BINS;
/** Distance from one bin to the next, and number of bins, on each of the three axes. */
const AXES = [
  [1, CHROMA_BINS],
  [CHROMA_BINS, CHROMA_BINS],
  [CHROMA_BINS * CHROMA_BINS, LUMA_BINS],
] as const;
/** Samples along the shorter side of a box. */
const SAMPLES = 20;
/** What is around a thing is looked at as far as this many times its size. */
const AROUND = 2.2;
/** A box holds a little of what is behind the thing at its edges. */
const MIDDLE = 0.86;
/** Share of all samples that a colour must have for its word to count in full. */
const RARE = 0.004;
/** Share of what was learnt first that is never forgotten. */
const MEMORY = 0.35;
const LEARNING_RATE = 0.05;
/** What drifts off a thing little by little looks ever less like it; less than this share of the first is not usual. */
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

/** Calls back for samples on a grid in the part of a box that lies in the picture. */
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

/** Shares of the colours of the thing and of its surroundings, each adding up to 1. */
interface Shares {
  thing: Float64Array;
  around: Float64Array;
}

/** Shares from counts, spread over neighbouring bins: a little more or less light is no other colour. */
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
  /** How much the thing itself looks like the thing by what is known. */
  private usual: number;

  /** Learns the colours of what a box holds in a picture. */
  constructor(image: YuvImage, box: Box) {
    this.first = sharesIn(image, box);
    this.known = { thing: this.first.thing.slice(), around: this.first.around.slice() };
    this.firstLikeness = this.likeness(image, box);
    this.usual = this.firstLikeness;
  }

  /** Mean, over what a box holds, of how probable it is by its colour that it is the thing; 0 outside the picture. */
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

  /** How much what a box holds looks like the thing, beside how much the thing usually does: 1 for as much, 0 for not at all. */
  agreement(image: YuvImage, box: Box): number {
    return this.usual > 0 ? this.likeness(image, box) / this.usual : 1;
  }

  /** Learns a little of what a box holds now; of the thing as it was first, a part stays. */
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
