import type { FrameFeatures } from "./frame-features";

/** The parts of a frame's features in the order in which they are packed, with their lengths in bytes. */
const PARTS = [
  ["histogram", 80],
  ["quarters", 128],
  ["edges", 144],
  ["thumbnail", 576],
] as const satisfies readonly (readonly [keyof FrameFeatures, number])[];

const BYTES_PER_FRAME = PARTS.reduce((sum, [, length]) => sum + length, 0);

/** Packs features into one block of bytes, frame after frame. */
export function packFeatures(features: readonly FrameFeatures[]): Uint8Array {
  const bytes = new Uint8Array(features.length * BYTES_PER_FRAME);
  let at = 0;
  for (const feature of features) {
    for (const [part, length] of PARTS) {
      bytes.set(feature[part], at);
      at += length;
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
    return { histogram: part(80), quarters: part(128), edges: part(144), thumbnail: part(576) };
  });
}
