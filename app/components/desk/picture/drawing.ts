/** What a box is drawn around: the thing to follow, a part to be kept inside the window, or what is not bars. */
export type Drawing = "mark" | "protect" | "active";
export const DRAWING_LABEL: Record<Drawing, string> = {
  mark: "Draw a box around the subject",
  protect: "Draw a box around the area to keep in the window",
  active: "Draw a box around the picture without its bars",
};
