import { z } from "zod";
import { PaneNumber } from "../composition/stack";
import { Length, Pixels } from "../geometry/box";
import { Frame } from "../time/rate";
import { Easing } from "./easing";

/** A key that the editor has placed in a version. */
export const HandKey = z.object({
  frame: Frame,
  /** Which of the shot's panes it is in, from 0. */
  pane: PaneNumber.default(0),
  x: Pixels,
  y: Pixels,
  height: Length,
  /** Easing to the next hand key; "hold" stays to the shot's end, and null leaves it to the solver. */
  easing: Easing.nullable().default(null),
});
export type HandKey = z.infer<typeof HandKey>;
