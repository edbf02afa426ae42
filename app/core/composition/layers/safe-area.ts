/** The safe area: the part of a frame that no interface covers where it is shown, such as a phone's buttons. */
import { z } from "zod";
import type { Box, Size } from "../../geometry/box";
import { shapesTexts } from "../../../texts/shapes";

const t = shapesTexts.safeArea;

const Inset = z.number().min(0).max(0.45);

/** Margins covered at each side, as shares of the frame's width or height. */
export const SafeArea = z.object({ left: Inset, top: Inset, right: Inset, foot: Inset });
export type SafeArea = z.infer<typeof SafeArea>;

/** The usual margins where none are set. */
export const USUAL_SAFE_AREA: SafeArea = { left: 0.05, top: 0.05, right: 0.05, foot: 0.05 };

/** Margins to begin with; each can be changed. */
export const SAFE_AREAS: readonly { name: string; area: SafeArea }[] = [
  { name: t.evenMargin, area: USUAL_SAFE_AREA },
  { name: t.wideMargin, area: { left: 0.1, top: 0.1, right: 0.1, foot: 0.1 } },
  { name: t.textBelow, area: { left: 0.05, top: 0.06, right: 0.05, foot: 0.2 } },
  { name: t.textAndButtons, area: { left: 0.05, top: 0.08, right: 0.16, foot: 0.22 } },
];

/** Box of the safe area in a frame, in its pixels. */
export const safeBox = ({ left, top, right, foot }: SafeArea, { width, height }: Size): Box => ({
  x: left * width,
  y: top * height,
  width: (1 - left - right) * width,
  height: (1 - top - foot) * height,
});
