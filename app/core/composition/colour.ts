import { z } from "zod";

export const Colour = z.string().regex(/^#[0-9a-f]{6}$/, "six hexadecimal digits after a #, in small letters");

/** Red, green and blue of a colour, 0 to 255. */
export const channelsOf = (colour: string): [number, number, number] =>
  [1, 3, 5].map((at) => parseInt(colour.slice(at, at + 2), 16)) as [number, number, number];

/** The colour of red, green and blue, 0 to 255. */
export const colourOf = (rgb: readonly [number, number, number]): string =>
  `#${rgb.map((value) => value.toString(16).padStart(2, "0")).join("")}`;

/** A colour as luma and chroma, Rec.709 in limited range (ITU-R BT.709). */
export function yuvOf(colour: string): [number, number, number] {
  const [r, g, b] = channelsOf(colour).map((value) => value / 255) as [number, number, number];
  const luma = 0.2126 * r + 0.7152 * g + 0.0722 * b;
  return [16 + 219 * luma, 128 + (224 * (b - luma)) / 1.8556, 128 + (224 * (r - luma)) / 1.5748];
}
