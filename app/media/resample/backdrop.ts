/** What lies behind the panes, in planes of 4:2:0. */
import { type Backdrop, blur, blurRadius, yuvOf } from "~/core/composition/backdrop";
import type { Size } from "~/core/geometry/box";

/** One of the three planes of a picture. */
export interface Plane {
  samples: Uint8Array;
  size: Size;
}

/** Levels that stand for black and for no colour. */
export const ZERO = [16, 128, 128] as const;

export function paintColour(planes: readonly Plane[], colour: string): void {
  const levels = yuvOf(colour);
  planes.forEach(({ samples }, plane) => samples.fill(Math.round(levels[plane]!)));
}

/** From one colour at the top to another at the foot. */
export function paintGradient(planes: readonly Plane[], { top, foot }: { top: string; foot: string }): void {
  const [from, to] = [yuvOf(top), yuvOf(foot)];
  planes.forEach(({ samples, size: { width, height } }, plane) => {
    for (let y = 0; y < height; y++) {
      const level = from[plane]! + ((y + 0.5) / height) * (to[plane]! - from[plane]!);
      samples.fill(Math.round(level), y * width, (y + 1) * width);
    }
  });
}

/** Blurs and darkens a reduced picture in place. */
export function softened(planes: readonly Plane[], { strength, darkness }: Extract<Backdrop, { kind: "blur" }>): void {
  const radius = blurRadius(strength);
  const left = 1 - darkness / 100;
  planes.forEach(({ samples, size }, plane) => {
    blur(samples, size, plane === 0 ? radius : radius / 2);
    const zero = ZERO[plane]!;
    for (let i = 0; i < samples.length; i++) samples[i] = Math.round(zero + left * (samples[i]! - zero));
  });
}
