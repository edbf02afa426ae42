/** How a shot fills its frame: with the film in all of it, in part of it or in several panes, and the backdrop. */
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
   * The whole picture over a backdrop, or a part of it between that and the crop window. `amount` is 1 for the whole
   * picture, and 0 for what fills the frame; `place` is its place in the rest of the frame, 0 for top or left and 1 for
   * foot or right.
   */
  z.object({ kind: z.literal("whole"), amount: Share, place: Share }),
  /** Two or three panes with a window each. */
  Stack,
]);
export type Layout = z.infer<typeof Layout>;

export const FILL: Layout = { kind: "fill" };
export const WHOLE: Extract<Layout, { kind: "whole" }> = { kind: "whole", amount: 1, place: 0.5 };

/** Places of a shot's film and backdrop in its frame. */
export interface LaidOut {
  /** Box of each of the shot's panes, in pixels of the frame. */
  panes: readonly Box[];
  /** What panes show instead of the film, by pane number; left out where all show the film. */
  own?: readonly (PanePicture | null)[];
  /** Whether the film is muted. */
  muted?: boolean;
  /** The backdrop; null where the film covers everything. */
  backdrop: { look: Backdrop; source: Box } | null;
  /** Edge of a picture that does not fill its frame; left out where there is none. */
  edge?: Edge;
}

/** The film covers the whole frame. */
export const covering = (frame: Size): LaidOut => ({ panes: [wholeOf(frame)], backdrop: null });

/** Number of panes of a layout. */
export const paneCount = (layout: Layout): number => (layout.kind === "stack" ? layout.places.length : 1);

/** The narrowest aspect ratio, width over height, that a pane may have in any layout. */
export const narrowestPane = (picture: Size, frame: Size): number =>
  Math.min(aspectRatio(picture), aspectRatio(frame) * (frame.width > frame.height ? LEAST_SHARE : 1));

/** Size of the picture, or of an area of it, fitted whole into a frame. */
function fitted(area: Size, frame: Size): Size {
  const scale = Math.min(frame.width / area.width, frame.height / area.height);
  return { width: area.width * scale, height: area.height * scale };
}

/** Box of each of a shot's panes in a frame, in its pixels. */
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

/** Box of one pane; of the first where there is none with that number. */
export function paneBox(layout: Layout, area: Size, frame: Size, pane = 0): Box {
  const boxes = paneBoxes(layout, area, frame);
  return boxes[pane] ?? boxes[0]!;
}

/**
 * Places of a shot's film and backdrop in a frame.
 * @param area the picture area without letterbox
 */
export function layOut(
  { layout, backdrop, edge }: { layout: Layout; backdrop: Backdrop; edge: Edge },
  area: Box,
  frame: Size,
): LaidOut {
  const panes = paneBoxes(layout, area, frame);
  // Of the picture's centre, whatever the window in front does: a backdrop is calm.
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
