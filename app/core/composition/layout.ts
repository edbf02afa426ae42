/** How a shot fills its frame: the film in a part of it or in all, or in several, and what lies behind. */
import { z } from "zod";
import { assertNever } from "../basics/assert-never";
import { type Box, type Size, wholeOf } from "../geometry/box";
import { aspectRatio, centredWindow, windowBox } from "../geometry/crop-window";
import type { Backdrop } from "./backdrop";
import type { Edge } from "./edge";
import { isSilent, LEAST_SHARE, ownIn, type PanePicture, Stack, stackBoxes } from "./stack";

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
  /** Two or three windows of their own. */
  Stack,
]);
export type Layout = z.infer<typeof Layout>;

export const FILL: Layout = { kind: "fill" };
export const WHOLE: Extract<Layout, { kind: "whole" }> = { kind: "whole", amount: 1, place: 0.5 };

/** Where a shot's film and backdrop are in its frame. */
export interface LaidOut {
  /** Where each of the shot's panes is shown, in pixels of the frame. */
  panes: readonly Box[];
  /** What panes show instead of the film, by their numbers; left out where all show the film. */
  own?: readonly (PanePicture | null)[];
  /** Whether the film is silent. */
  muted?: boolean;
  /** What lies behind; null where the film covers all. */
  backdrop: { look: Backdrop; source: Box } | null;
  /** How the border of a picture looks that does not fill its frame; left out where there is none. */
  edge?: Edge;
}

/** The film covers all of the frame. */
export const covering = (frame: Size): LaidOut => ({ panes: [wholeOf(frame)], backdrop: null });

/** How many panes a layout has. */
export const paneCount = (layout: Layout): number => (layout.kind === "stack" ? layout.places.length : 1);

/** The narrowest shape, width over height, that a pane may have in some layout. */
export const narrowestPane = (picture: Size, frame: Size): number =>
  Math.min(aspectRatio(picture), aspectRatio(frame) * (frame.width > frame.height ? LEAST_SHARE : 1));

/** Size of the picture, or of an area of it, where it fits into a frame whole. */
function fitted(area: Size, frame: Size): Size {
  const scale = Math.min(frame.width / area.width, frame.height / area.height);
  return { width: area.width * scale, height: area.height * scale };
}

/** Where each of a shot's panes is shown in a frame, in its pixels. */
export function paneBoxes(layout: Layout, area: Size, frame: Size): Box[] {
  switch (layout.kind) {
    case "fill":
      return [wholeOf(frame)];
    case "whole": {
      const whole = fitted(area, frame);
      const side = (of: "width" | "height") => whole[of] + (1 - layout.amount) * (frame[of] - whole[of]);
      const [width, height] = [side("width"), side("height")];
      const { place } = layout;
      return [{ x: place * (frame.width - width), y: place * (frame.height - height), width, height }];
    }
    case "stack":
      return stackBoxes(layout, frame);
    default:
      return assertNever(layout);
  }
}

/** Where one of them is; the first if it has none with that number. */
export function paneBox(layout: Layout, area: Size, frame: Size, pane = 0): Box {
  const boxes = paneBoxes(layout, area, frame);
  return boxes[pane] ?? boxes[0]!;
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
  const panes = paneBoxes(layout, area, frame);
  // Of the picture's middle, whatever the window does before it: a backdrop is calm.
  const aspect = aspectRatio(frame);
  const window = centredWindow(area, aspect);
  const zoom = backdrop.kind === "blur" ? backdrop.zoom : 1;
  const source = windowBox({ ...window, height: window.height / zoom }, aspect);
  if (layout.kind === "stack") {
    const own = panes.map((_, pane) => ownIn(layout, pane));
    return {
      panes,
      ...(own.some(Boolean) ? { own } : {}),
      ...(isSilent(layout) ? { muted: true } : {}),
      backdrop: layout.gap > 0 ? { look: { kind: "colour", colour: layout.colour }, source } : null,
    };
  }
  const covers = panes.some(({ width, height }) => width >= frame.width && height >= frame.height);
  return covers ? covering(frame) : { panes, backdrop: { look: backdrop, source }, edge };
}
