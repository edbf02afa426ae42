import { MOST_TEXT, newText, type TextLayer } from "../composition/layers/layer";
import type { Caption } from "./caption";

/** How captions look: quiet letters on a dark ground, just above what is covered at the foot of the frame. */
const LOOK = {
  ...{ family: "plain", weight: 600, size: 0.052, shadow: 0, shrinks: true },
  ...{ box: { colour: "#000000", opacity: 60, corner: 25 }, x: 0.5, y: 1, width: 1 },
  ...{ arrives: "cut", leaves: "cut" },
} as const satisfies Partial<TextLayer>;

/** Captions as layers, which are drawn as all others. */
export const captionLayers = (captions: readonly Caption[]): TextLayer[] =>
  captions.map(({ start, end, text }, i) => ({
    ...newText(`caption-${i + 1}`, text.slice(0, MOST_TEXT)),
    ...LOOK,
    range: { start, end },
  }));
