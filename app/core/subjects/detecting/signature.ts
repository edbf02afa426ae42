/** Colours of somebody's clothes or of a thing, as a histogram: enough to tell two people apart. */
import { clamped } from "../../numbers/clamped";
import { type Box, clipBox } from "../../geometry/box";
import { FULL_CHROMA, FULL_LUMA, type YuvImage } from "../../image/yuv-image";
import type { TrackKind } from "./detection";

const LUMA_BINS = 6;
/** Chroma beyond the outer bins is rare. */
const CHROMA_BINS = 7;
const CHROMA_BIN = 14;
/** Luma at which chroma counts unchanged, and a constant that limits the influence of dark areas. */
const EXPOSURE = 140;
const DARK = 40;
const LENGTH = CHROMA_BINS * CHROMA_BINS + LUMA_BINS;

/** The identifying part of a box: of a face and of a person, the chest. */
export function tellingPart(kind: TrackKind, { x, y, width, height }: Box): Box {
  if (kind === "face") return { x: x - 0.3 * width, y: y + 1.25 * height, width: 1.6 * width, height: 1.3 * height };
  if (kind === "person") return { x: x + 0.25 * width, y: y + 0.2 * height, width: 0.5 * width, height: 0.3 * height };
  return { x: x + 0.15 * width, y: y + 0.15 * height, width: 0.7 * width, height: 0.7 * height };
}

/** Chroma, from -128 to 127, relative to lightness, which a change of exposure does not affect. */
export const relativeChroma = (difference: number, luma: number): number => (EXPOSURE * difference) / (luma + DARK);

/** Position of chroma on the scale of bins. */
const chromaPlace = (difference: number, luma: number): number =>
  clamped(relativeChroma(difference, luma) / CHROMA_BIN + (CHROMA_BINS - 1) / 2, 0, CHROMA_BINS - 1);

/** Square roots of the shares of colours, 0 to 100; null where too little of it is in the picture. */
export function signatureOf(image: YuvImage, kind: TrackKind, box: Box): number[] | null {
  const part = clipBox(tellingPart(kind, box), image);
  const [left, top] = [Math.ceil(part.x / 2), Math.ceil(part.y / 2)];
  const [right, bottom] = [Math.floor((part.x + part.width) / 2), Math.floor((part.y + part.height) / 2)];
  const count = (right - left) * (bottom - top);
  if (right - left < 2 || bottom - top < 2) return null;
  const counts = new Float64Array(LENGTH);
  const half = image.width >> 1;
  for (let y = top; y < bottom; y++) {
    for (let x = left; x < right; x++) {
      const at = y * half + x;
      const luma = FULL_LUMA[image.luma[2 * (y * image.width + x)]!]!;
      const u = chromaPlace(FULL_CHROMA[image.blue[at]!]! - 128, luma);
      const v = chromaPlace(FULL_CHROMA[image.red[at]!]! - 128, luma);
      // Distributed over the nearest bins, so that a small change of colour is a small change of the histogram.
      const [u0, v0] = [Math.min(CHROMA_BINS - 2, Math.floor(u)), Math.min(CHROMA_BINS - 2, Math.floor(v))];
      const [fu, fv] = [u - u0, v - v0];
      const corner = v0 * CHROMA_BINS + u0;
      counts[corner]! += (1 - fu) * (1 - fv);
      counts[corner + 1]! += fu * (1 - fv);
      counts[corner + CHROMA_BINS]! += (1 - fu) * fv;
      counts[corner + CHROMA_BINS + 1]! += fu * fv;
      const l = (luma * (LUMA_BINS - 1)) / 255;
      const l0 = Math.min(LUMA_BINS - 2, Math.floor(l));
      counts[CHROMA_BINS * CHROMA_BINS + l0]! += 1 - (l - l0);
      counts[CHROMA_BINS * CHROMA_BINS + l0 + 1]! += l - l0;
    }
  }
  return Array.from(counts, (n) => Math.round(100 * Math.sqrt(n / count)));
}

/** Likeness of two signatures, 0 to 1 (Bhattacharyya coefficient; colour weighs much more than lightness). */
export function likeness(a: readonly number[], b: readonly number[]): number {
  const colours = CHROMA_BINS * CHROMA_BINS;
  let colour = 0;
  let lightness = 0;
  for (let i = 0; i < LENGTH; i++) {
    if (i < colours) colour += a[i]! * b[i]!;
    else lightness += a[i]! * b[i]!;
  }
  return (0.85 * colour + 0.15 * lightness) / 10_000;
}

/** The mean of signatures; null of none. */
export function meanSignature(signatures: readonly (readonly number[])[]): number[] | null {
  const [first] = signatures;
  if (!first) return null;
  return first.map((_, i) =>
    Math.round(signatures.reduce((sum, signature) => sum + signature[i]!, 0) / signatures.length),
  );
}
