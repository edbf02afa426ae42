/** The font families that ship with the app, for the desk and the render. */
import { type OwnFont, ownFamily } from "./own-font";

export const FAMILIES = ["plain", "display", "serif", "mono"] as const;
export type Family = (typeof FAMILIES)[number];

/** Their names in the font packages. */
export const FAMILY_NAMES: Record<Family, string> = {
  plain: "Inter Variable",
  display: "Bricolage Grotesque Variable",
  serif: "Source Serif 4 Variable",
  mono: "JetBrains Mono Variable",
};

/** Fallbacks for characters that these lack: the same for desk and render, so that both draw alike. */
export const FALLBACKS = ["Noto Sans", "Noto Sans CJK JP", "Noto Sans Arabic", "Noto Sans Hebrew", "Noto Color Emoji"];

/** An own font is used as it is: asked for another weight, one side would synthesise bold, and the other not. */
const OWN_WEIGHT = 400;

/** Typeface of a text: one of these families, or one of the editor's own fonts. */
export interface TypeChoice {
  family: Family;
  weight: number;
  font: OwnFont | null;
}

/** A font in CSS syntax. */
export function fontOf({ family, weight, font }: TypeChoice, px: number): string {
  const names = [font ? ownFamily(font.id) : FAMILY_NAMES[family], ...FALLBACKS];
  return `${font ? OWN_WEIGHT : weight} ${px}px ${names.map((name) => `"${name}"`).join(", ")}`;
}
