import { pictureTexts } from "~/texts/picture";

const t = pictureTexts.drawing;

/**
 * What is being pointed out in the picture: by a box, the thing to follow, the protected area, or the picture area without
 * letterbox; by a click, the place for the window's centre or the height of its eye line; by the pointer during playback,
 * where the window is steered.
 */
export type Drawing = "mark" | "protect" | "active" | "centre" | "eyes" | "steer";
export const DRAWING_LABEL: Record<Exclude<Drawing, "steer">, string> = {
  mark: t.mark,
  protect: t.protect,
  active: t.activeArea,
  centre: t.centre,
  eyes: t.eyes,
};
