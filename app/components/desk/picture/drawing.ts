/**
 * What is pointed out in the picture: by a box the thing to follow, a part to be kept inside the window, or what is not bars;
 * by a click what the window is to have in its middle; by the pointer, while the film plays, where the window is led.
 */
export type Drawing = "mark" | "protect" | "active" | "centre" | "steer";
export const DRAWING_LABEL: Record<Exclude<Drawing, "steer">, string> = {
  mark: "Draw a box around the subject",
  protect: "Draw a box around the area to keep in the window",
  active: "Draw a box around the picture without its bars",
  centre: "Click what the window should be centred on",
};
