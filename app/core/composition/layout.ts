/** How a shot fills its frame: the film in a part of it or in all, and what lies behind. */
import { z } from "zod";
import { type Box, type Size, wholeOf } from "../geometry/box";
import { aspectRatio, centredWindow, windowBox } from "../geometry/crop-window";
import type { Backdrop } from "./backdrop";
import type { Edge } from "./edge";

const Share = z.number().min(0).max(1);

export const Layout = z.discriminatedUnion("kind", [
  /** The crop window fills the frame. */
  z.object({ kind: z.literal("fill") }),
  /**
   * The whole picture before a backdrop, or a part of it that is between that and the crop window.
   *
   * `amount` is 1 for the whole picture, and 0 for what fills the frame; `place` is where it stands in what is left of the
   * frame, 0 for its top or left and 1 for its foot or right.
   */
  z.object({ kind: z.literal("whole"), amount: Share, place: Share }),
]);
export type Layout = z.infer<typeof Layout>;

export const FILL: Layout = { kind: "fill" };
export const WHOLE: Extract<Layout, { kind: "whole" }> = { kind: "whole", amount: 1, place: 0.5 };

/** Where a shot's film and backdrop are in its frame. */
export interface LaidOut {
  /** Where the film is shown, in pixels of the frame. */
  pane: Box;
  /** What lies behind; null where the film covers all. */
  backdrop: { look: Backdrop; source: Box } | null;
  /** How its border looks; left out where it covers all. */
  edge?: Edge;
}

/** The film covers all of the frame. */
export const covering = (frame: Size): LaidOut => ({ pane: wholeOf(frame), backdrop: null });

/** Size of the picture, or of an area of it, where it fits into a frame whole. */
function fitted(area: Size, frame: Size): Size {
  const scale = Math.min(frame.width / area.width, frame.height / area.height);
  return { width: area.width * scale, height: area.height * scale };
}

/** Where the film is shown in a frame, in its pixels. */
export function paneBox(layout: Layout, area: Size, frame: Size): Box {
  if (layout.kind === "fill") return wholeOf(frame);
  const whole = fitted(area, frame);
  const side = (of: "width" | "height") => whole[of] + (1 - layout.amount) * (frame[of] - whole[of]);
  const [width, height] = [side("width"), side("height")];
  const { place } = layout;
  return { x: place * (frame.width - width), y: place * (frame.height - height), width, height };
}

/**
 * Where a shot's film and backdrop are in a frame.
 *
 * @param area the part of the picture that is not bars
 */
export function layOut(
  { layout, backdrop, edge }: { layout: Layout; backdrop: Backdrop; edge: Edge },
  area: Box,
  frame: Size,
): LaidOut {
  const pane = paneBox(layout, area, frame);
  const covers = pane.width >= frame.width && pane.height >= frame.height;
  if (covers) return covering(frame);
  // Of the picture's middle, whatever the window does before it: a backdrop is calm.
  const aspect = aspectRatio(frame);
  const source = windowBox(centredWindow(area, aspect), aspect);
  return { pane, backdrop: { look: backdrop, source }, edge };
}
