import { pictureTexts } from "~/texts/picture";

const t = pictureTexts.drawing;

/**
 * What is pointed out in the picture: by a box the thing to follow, a part to be kept inside the window, or what is not bars;
 * by a click what the window is to have in its middle, or how high up in it the eyes are to be; by the pointer, while the film plays, where the window is led.
 */
export type Drawing = "mark" | "protect" | "active" | "centre" | "eyes" | "steer";
export const DRAWING_LABEL: Record<Exclude<Drawing, "steer">, string> = {
  mark: t.mark,
  protect: t.protect,
  active: t.activeArea,
  centre: t.centre,
  eyes: t.eyes,
};
