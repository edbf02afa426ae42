import type { Size } from "~/core/geometry/box";
import { frameToSeconds, type Rate } from "~/core/time/rate";

/**
 * What a proxy and a render take at their quality, where pictures are busy: bits for a pixel of H.264, and bytes for
 * a second of sound, which a proxy has without losses.
 */
const TAKES = {
  proxy: { bitsPerPixel: 0.12, soundBytesPerSecond: 110_000 },
  render: { bitsPerPixel: 0.2, soundBytesPerSecond: 24_000 },
} as const;

/** Bytes that something is going to have at the most, but for grain and the like; to be asked for before it is begun. */
export function estimatedBytes(what: keyof typeof TAKES, { width, height }: Size, frames: number, rate: Rate): number {
  const { bitsPerPixel, soundBytesPerSecond } = TAKES[what];
  return Math.ceil((width * height * frames * bitsPerPixel) / 8 + frameToSeconds(frames, rate) * soundBytesPerSecond);
}
