/** What there is to be compared with a window that fills the frame. */
import { USUAL_BACKDROP } from "~/core/composition/backdrop";
import { compose, type Composition, fill } from "~/core/composition/composition";
import { PLAIN_EDGE } from "~/core/composition/edge";
import { layOut, WHOLE } from "~/core/composition/layout";
import { newBar, newText } from "~/core/composition/layers/layer";
import { withLayers } from "~/core/composition/shown";
import { STACK } from "~/core/composition/stack";
import { type Size, wholeOf } from "~/core/geometry/box";

export interface ComparedLayout {
  name: string;
  shown: Composition;
  /** How many times as long as a window alone it may take. */
  goal: number;
}

/** A stack, the whole picture on a blurred one, and a window under five layers that stand still. */
export function comparedLayouts(picture: Size, frame: Size, frames: number): ComparedLayout[] {
  const laidOut = (layout: typeof WHOLE | typeof STACK) =>
    layOut({ layout, backdrop: USUAL_BACKDROP, edge: PLAIN_EDGE }, wholeOf(picture), frame);
  const centre = { x: picture.width / 2, y: picture.height / 2, height: picture.height };
  const still = { arrives: "cut", leaves: "cut" } as const;
  const layers = [
    { ...newBar("bar"), ...still },
    { ...newText("title", "Above the salt meadows"), ...still },
    { ...newText("name", "A name and what they do"), ...still, size: 0.05, y: 0.8 },
    { ...newText("line", "See more on the dyke"), ...still, size: 0.06, y: 0.92, outline: 0.06 },
    { ...newText("small", "Ferrow Kite Society"), ...still, size: 0.03, x: 0, y: 0 },
  ];
  const above = { layers, safeArea: null, size: frame, kept: [{ start: 0, end: frames }], fps: 25 };
  const left = { ...centre, x: 0.35 * picture.width };
  const right = { ...centre, x: 0.65 * picture.width };
  return [
    { name: "the whole picture on a blurred one", shown: compose([centre], laidOut(WHOLE), frame), goal: 1.4 },
    { name: "a stack of two", shown: compose([left, right], laidOut(STACK), frame), goal: 1.3 },
    { name: "five layers", shown: withLayers(() => fill(centre, frame), above)(0), goal: 1.15 },
  ];
}
