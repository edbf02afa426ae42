/** Blend modes of layers (W3C Compositing and Blending Level 1), for which red, green and blue have to be known. */
import { clamped } from "~/core/numbers/clamped";
import type { Blend } from "~/core/composition/layers/layer";
import type { Plane } from "../resample/backdrop";
import type { OverlayPlane } from "./overlay";

type Rgb = [number, number, number];
type MixedBlend = Exclude<Blend, "normal">;

/** Rec.709 in limited range, 8-bit levels, as red, green and blue of 0 to 255; not clipped. */
function rgbOf(luma: number, blue: number, red: number, to: Rgb): void {
  const y = ((luma - 16) * 255) / 219;
  const [cb, cr] = [((blue - 128) * 255) / 224, ((red - 128) * 255) / 224];
  to[0] = y + 1.5748 * cr;
  to[1] = y - 0.1873 * cb - 0.4681 * cr;
  to[2] = y + 1.8556 * cb;
}

const asLevel = (value: number) => clamped(value, 0, 255);

const MIX: Record<MixedBlend, (below: number, above: number) => number> = {
  multiply: (below, above) => (below * above) / 255,
  screen: (below, above) => below + above - (below * above) / 255,
};

/**
 * Blends planes with the colours of a frame.
 * @param frame its planes: luma, and chroma at half size
 * @param opacity 0 to 1
 * @param by offset in even pixels
 */
export function blendColours(
  frame: readonly Plane[],
  planes: readonly OverlayPlane[],
  mode: MixedBlend,
  opacity: number,
  by: { x: number; y: number },
): void {
  const [luma, blue, red] = planes as [OverlayPlane, OverlayPlane, OverlayPlane];
  const [toLuma, toBlue, toRed] = frame as [Plane, Plane, Plane];
  const { step } = toLuma;
  const mix = MIX[mode];
  const [below, above]: [Rgb, Rgb] = [
    [0, 0, 0],
    [0, 0, 0],
  ];
  const [left, top] = [blue.x + by.x / 2, blue.y + by.y / 2];
  for (let y = Math.max(0, -top); y < blue.height && top + y < toBlue.size.height; y++) {
    for (let x = Math.max(0, -left); x < blue.stride && left + x < toBlue.size.width; x++) {
      const at = y * blue.stride + x;
      const chromaCover = blue.cover[at]!;
      if (chromaCover === 0) continue;
      const to = (top + y) * toBlue.size.width + left + x;
      // Values in the planes are multiplied by their cover.
      const cb = (blue.made[at]! * 255) / chromaCover;
      const cr = (red.made[at]! * 255) / chromaCover;
      let [sumBlue, sumRed] = [0, 0];
      for (let i = 0; i < 4; i++) {
        const [dx, dy] = [i & 1, i >> 1];
        const from = (2 * y + dy) * luma.stride + 2 * x + dx;
        const target = (2 * (top + y) + dy) * toLuma.size.width + 2 * (left + x) + dx;
        const cover = luma.cover[from]!;
        rgbOf(toLuma.samples[target]! / step, toBlue.samples[to]! / step, toRed.samples[to]! / step, below);
        if (cover > 0) {
          rgbOf((luma.made[from]! * 255) / cover, cb, cr, above);
          const share = (opacity * cover) / 255;
          for (let c = 0; c < 3; c++) {
            const under = asLevel(below[c]!);
            below[c] = under + share * (mix(under, asLevel(above[c]!)) - under);
          }
        }
        const lightness = 0.2126 * below[0] + 0.7152 * below[1] + 0.0722 * below[2];
        if (cover > 0) toLuma.samples[target] = Math.round(step * (16 + (219 * lightness) / 255));
        sumBlue += (224 * (below[2] - lightness)) / 1.8556 / 255;
        sumRed += (224 * (below[0] - lightness)) / 1.5748 / 255;
      }
      toBlue.samples[to] = Math.round(step * (128 + sumBlue / 4));
      toRed.samples[to] = Math.round(step * (128 + sumRed / 4));
    }
  }
}
