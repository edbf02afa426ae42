import type { Size } from "~/core/geometry/box";
import { frameToSeconds, type Rate } from "~/core/time/rate";

/** Bits that H.264 takes for a pixel at the quality of a light copy and of a render; busy pictures take as much. */
export const BITS_PER_PIXEL = { proxy: 0.12, render: 0.2 } as const;

const SOUND_BYTES_PER_SECOND = 24_000;

/** Bytes that a file is going to have at the most, but for grain and the like; to be asked for before it is begun. */
export const estimatedBytes = (size: Size, frames: number, rate: Rate, bitsPerPixel: number): number =>
  Math.ceil(
    (size.width * size.height * frames * bitsPerPixel) / 8 + frameToSeconds(frames, rate) * SOUND_BYTES_PER_SECOND,
  );
