import { CELLS, type FrameFeatures, LUMA_GRID } from "./frame-features";

/** Bytes of each part of a frame's features, in packing order. */
const LENGTHS = {
  histogram: 80,
  luma: LUMA_GRID.columns * LUMA_GRID.rows,
  chroma: CELLS.columns * CELLS.rows * 2,
};
const BYTES_PER_FRAME = LENGTHS.histogram + LENGTHS.luma + LENGTHS.chroma;

/** Packs features into one block of bytes, frame after frame. */
export function packFeatures(features: readonly FrameFeatures[]): Uint8Array {
  const bytes = new Uint8Array(features.length * BYTES_PER_FRAME);
  let at = 0;
  for (const { histogram, luma, chroma } of features) {
    for (const part of [histogram, luma, chroma]) {
      bytes.set(part, at);
      at += part.length;
    }
  }
  return bytes;
}

/** @throws Error if the block is not a whole number of frames */
export function unpackFeatures(bytes: Uint8Array): FrameFeatures[] {
  if (bytes.length % BYTES_PER_FRAME !== 0) throw new Error("packed features are cut off");
  return Array.from({ length: bytes.length / BYTES_PER_FRAME }, (_, frame) => {
    let at = frame * BYTES_PER_FRAME;
    const part = (length: number) => bytes.slice(at, (at += length));
    return { histogram: part(LENGTHS.histogram), luma: part(LENGTHS.luma), chroma: part(LENGTHS.chroma) };
  });
}
