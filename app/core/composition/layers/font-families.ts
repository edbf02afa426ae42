/** The families that ship with the app, on the desk and for the render. */

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

/** A font as a canvas takes it. */
export const fontOf = (family: Family, weight: number, px: number): string =>
  `${weight} ${px}px ${[FAMILY_NAMES[family], ...FALLBACKS].map((name) => `"${name}"`).join(", ")}`;
