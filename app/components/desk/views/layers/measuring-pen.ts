import type { Pen } from "~/core/composition/layers/pen";

let pen: Pen | null = null;

/** Measures texts in the browser. */
export const measuringPen = (): Pen => (pen ??= document.createElement("canvas").getContext("2d")!);
