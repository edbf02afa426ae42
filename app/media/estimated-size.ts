import type { Size } from "~/core/geometry/box";
import { frameToSeconds, type Rate } from "~/core/time/rate";

/**
 * Data rates of a proxy and a render with busy pictures: bits per pixel of H.264, and bytes per second of sound, which is
 * lossless in a proxy.
 */
const TAKES = {
  proxy: { bitsPerPixel: 0.12, soundBytesPerSecond: 110_000 },
  render: { bitsPerPixel: 0.2, soundBytesPerSecond: 24_000 },
} as const;

/** Estimated largest size in bytes, apart from grain and the like; needed before writing begins. */
export function estimatedBytes(what: keyof typeof TAKES, { width, height }: Size, frames: number, rate: Rate): number {
  const { bitsPerPixel, soundBytesPerSecond } = TAKES[what];
  return Math.ceil((width * height * frames * bitsPerPixel) / 8 + frameToSeconds(frames, rate) * soundBytesPerSecond);
}
