/** Backdrops in 4:2:0 planes. */
import { clamped } from "~/core/numbers/clamped";
import { type Backdrop, blur, blurRadius } from "~/core/composition/backdrop";
import { yuvOf } from "~/core/composition/colour";
import type { Box, Size } from "~/core/geometry/box";
import type { Samples } from "~/core/image/bit-depth";

/** One of the three planes of a picture. */
export interface Plane {
  samples: Samples;
  size: Size;
  /** Levels per level of 8 bits. */
  step: number;
}

/** 8-bit levels of black and of no colour. */
export const ZERO = [16, 128, 128] as const;

export function paintColour(planes: readonly Plane[], colour: string): void {
  const levels = yuvOf(colour);
  planes.forEach(({ samples, step }, plane) => samples.fill(Math.round(step * levels[plane]!)));
}

/** A gradient from one colour at the top to another at the foot. */
export function paintGradient(planes: readonly Plane[], { top, foot }: { top: string; foot: string }): void {
  const [from, to] = [yuvOf(top), yuvOf(foot)];
  planes.forEach(({ samples, step, size: { width, height } }, plane) => {
    for (let y = 0; y < height; y++) {
      const level = from[plane]! + ((y + 0.5) / height) * (to[plane]! - from[plane]!);
      samples.fill(Math.round(step * level), y * width, (y + 1) * width);
    }
  });
}

/**
 * The pixels of a part of a line seen at each pixel of the line, reflected at the part's borders; its own are those from
 * `first` to before `end`, which it covers wholly.
 */
function reflections(start: number, length: number, line: number): { seen: Int32Array; first: number; end: number } {
  const [first, end] = [Math.max(0, Math.ceil(start)), Math.min(line, Math.floor(start + length))];
  const seen = Int32Array.from({ length: line }, (_, pixel) => {
    const phase = (((pixel + 0.5 - start) % (2 * length)) + 2 * length) % (2 * length);
    const place = Math.floor(start + (phase < length ? phase : 2 * length - phase));
    return clamped(place, first, end - 1);
  });
  return { seen, first, end };
}

/**
 * Continues a part of a plane reflected beyond its borders, and darkens that.
 * @param part in the plane's pixels
 * @param zero the 8-bit level of black, or of no colour
 */
export function paintMirrored(
  { samples, step, size: { width, height } }: Plane,
  part: Box,
  darkness: number,
  zero: number,
): void {
  const columns = reflections(part.x, part.width, width);
  const rows = reflections(part.y, part.height, height);
  const left = 1 - darkness / 100;
  const black = step * zero;
  for (let row = 0; row < height; row++) {
    const from = rows.seen[row]! * width;
    const isInside = row >= rows.first && row < rows.end;
    for (let column = 0, to = row * width; column < width; column++, to++) {
      if (isInside && column >= columns.first && column < columns.end) continue;
      samples[to] = Math.round(black + left * (samples[from + columns.seen[column]!]! - black));
    }
  }
}

/** Blurs and darkens a reduced picture in place. */
export function softened(planes: readonly Plane[], { strength, darkness }: Extract<Backdrop, { kind: "blur" }>): void {
  const radius = blurRadius(strength);
  const left = 1 - darkness / 100;
  planes.forEach(({ samples, size, step }, plane) => {
    blur(samples, size, plane === 0 ? radius : radius / 2);
    const zero = step * ZERO[plane]!;
    for (let i = 0; i < samples.length; i++) samples[i] = Math.round(zero + left * (samples[i]! - zero));
  });
}
