/** Bits per sample of a picture: 8 as in most files, or 10 as in camera and mastering files. */

export const BIT_DEPTHS = [8, 10] as const;
export type BitDepth = (typeof BIT_DEPTHS)[number];

/** The depth that loses nothing of samples with some number of bits, or the least. */
export const depthFor = (bits: number): BitDepth => (bits > 8 ? 10 : 8);

/** 8-bit samples, or 10-bit ones in two bytes each. */
export type Samples = Uint8Array | Uint16Array;

export const bytesPerSample = (depth: BitDepth): 1 | 2 => (depth === 8 ? 1 : 2);

/** Levels per level of 8 bits: black, white and all between are four times as high at 10 (ITU-R BT.709-6, table 4). */
export const levelsPerStep = (depth: BitDepth): number => 1 << (depth - 8);

/** ffmpeg's name of 4:2:0 planes. */
export const pixelFormat = (depth: BitDepth): string => (depth === 8 ? "yuv420p" : "yuv420p10le");

/** Little-endian bytes, as from ffmpeg, viewed as samples without a copy. */
export const samplesOf = (bytes: Uint8Array, depth: BitDepth): Samples =>
  depth === 8 ? bytes : new Uint16Array(bytes.buffer, bytes.byteOffset, bytes.byteLength / 2);
