/** Blurs layers. */
import type { Size } from "../../geometry/box";
import { blur, PASSES } from "../backdrop";
import type { Layer } from "./layer";

/** Radius of each box blur at full softness, as a share of the frame's shorter side. */
const MOST_RADIUS = 0.03;

/** Radius of each box blur of a layer, in pixels of the frame. */
export const softRadius = ({ softness }: Pick<Layer, "softness">, { width, height }: Size): number =>
  (softness / 100) * MOST_RADIUS * Math.min(width, height);

/** Reach of a blurred layer beyond its box, in pixels of the frame. */
export const softReach = (layer: Pick<Layer, "softness">, frame: Size): number => PASSES * softRadius(layer, frame);

/**
 * Blurs straight RGBA pixels in place. Colours are weighted by their alpha, since transparent pixels have none.
 * @param radius of each box blur, in pixels
 */
export function soften(pixels: Uint8ClampedArray, size: Size, radius: number): void {
  const whole = Math.round(radius);
  if (whole === 0) return;
  for (let i = 0; i < pixels.length; i += 4) {
    const alpha = pixels[i + 3]!;
    for (let channel = 0; channel < 3; channel++) pixels[i + channel] = (pixels[i + channel]! * alpha) / 255;
  }
  blur(pixels, size, whole, 4);
  for (let i = 0; i < pixels.length; i += 4) {
    const alpha = pixels[i + 3]!;
    if (alpha === 0) continue;
    for (let channel = 0; channel < 3; channel++) pixels[i + channel] = (pixels[i + channel]! * 255) / alpha;
  }
}
