/** The families that ship with the app, on the desk and for the render. */
import { type OwnFont, ownFamily } from "./own-font";

export const FAMILIES = ["plain", "display", "serif", "mono"] as const;
export type Family = (typeof FAMILIES)[number];

/** As the packages of their files call them. */
export const FAMILY_NAMES: Record<Family, string> = {
  plain: "Inter Variable",
  display: "Bricolage Grotesque Variable",
  serif: "Source Serif 4 Variable",
  mono: "JetBrains Mono Variable",
};

/** What has the letters that these do not: the same on both sides, so that both draw the same. */
export const FALLBACKS = ["Noto Sans", "Noto Sans CJK JP", "Noto Sans Arabic", "Noto Sans Hebrew", "Noto Color Emoji"];

/** A font of one's own is as it is: asked for another weight, one side would make it bold by force, and the other not. */
const OWN_WEIGHT = 400;

/** What a text is set in: one of these, or a font of the editor's own. */
export interface TypeChoice {
  family: Family;
  weight: number;
  font: OwnFont | null;
}

/** A font as a canvas takes it. */
export function fontOf({ family, weight, font }: TypeChoice, px: number): string {
  const names = [font ? ownFamily(font.id) : FAMILY_NAMES[family], ...FALLBACKS];
  return `${font ? OWN_WEIGHT : weight} ${px}px ${names.map((name) => `"${name}"`).join(", ")}`;
}
