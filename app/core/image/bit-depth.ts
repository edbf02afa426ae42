/** How many bits a sample of a picture has: 8 as in most files, or 10 as cameras and finishing have them. */

export const BIT_DEPTHS = [8, 10] as const;
export type BitDepth = (typeof BIT_DEPTHS)[number];

/** The depth in which nothing of samples with so many bits is lost, or least of them. */
export const depthFor = (bits: number): BitDepth => (bits > 8 ? 10 : 8);

/** Samples of 8 bits, or of 10 in two bytes each. */
export type Samples = Uint8Array | Uint16Array;

export const bytesPerSample = (depth: BitDepth): 1 | 2 => (depth === 8 ? 1 : 2);

/** Levels that are one of 8 bits: black, white and all between are four times as high at 10 (ITU-R BT.709-6, table 4). */
export const levelsPerStep = (depth: BitDepth): number => 1 << (depth - 8);

/** Planes of 4:2:0 as ffmpeg calls them. */
export const pixelFormat = (depth: BitDepth): string => (depth === 8 ? "yuv420p" : "yuv420p10le");

/** Bytes, little-endian as ffmpeg gives them, as samples; they are not copied. */
export const samplesOf = (bytes: Uint8Array, depth: BitDepth): Samples =>
  depth === 8 ? bytes : new Uint16Array(bytes.buffer, bytes.byteOffset, bytes.byteLength / 2);
