/** The colours of a line of text and of what is behind it. */
import { median } from "../../numbers/median";

/** Red, green and blue, 0 to 255. */
export type Rgb = [number, number, number];

/** Share of the pixels of a line that are surely letters: those least like the ground. */
const SURELY_LETTERS = 0.08;

export interface LineColours {
  ink: Rgb;
  ground: Rgb;
}

/**
 * @param pixels red, green and blue of a line, row by row, with some room above and below the letters
 * @param width of a row in pixels
 */
export function lineColours(pixels: Uint8Array, width: number): LineColours {
  const count = pixels.length / 3;
  const at = (i: number): Rgb => [pixels[3 * i]!, pixels[3 * i + 1]!, pixels[3 * i + 2]!];
  const middle = (of: readonly Rgb[]) => [0, 1, 2].map((c) => Math.round(median(of.map((rgb) => rgb[c]!)))) as Rgb;
  const edge = Array.from({ length: width }, (_, x) => [at(x), at(count - width + x)]).flat();
  const ground = middle(edge);
  const unlike = (rgb: Rgb) => rgb.reduce((sum, value, c) => sum + (value - ground[c]!) ** 2, 0);
  const all = Array.from({ length: count }, (_, i) => at(i)).sort((a, b) => unlike(b) - unlike(a));
  const ink = middle(all.slice(0, Math.max(1, Math.round(SURELY_LETTERS * count))));
  return { ink, ground };
}
