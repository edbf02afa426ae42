/** The edge of a film that does not fill its frame. */
import { clamped } from "../numbers/clamped";
import { z } from "zod";
import type { Box, Size } from "../geometry/box";

export const EDGE_LOOKS = ["none", "shadow", "feather"] as const;

export const Edge = z.object({
  /** A soft shadow around it, or a border that fades into the backdrop. */
  look: z.enum(EDGE_LOOKS),
  /** Roundness of its corners: 0 for square, 100 for half its shorter side. */
  corner: z.number().min(0).max(100),
});
export type Edge = z.infer<typeof Edge>;

export const PLAIN_EDGE: Edge = { look: "none", corner: 0 };

/** Reach of shadow and fade, as shares of the frame's shorter side, and greatest darkness of the shadow. */
const SHADOW_REACH = 0.05;
const FADE_REACH = 0.05;
const SHADOW = 0.6;

export const isPlain = ({ look, corner }: Edge): boolean => look === "none" && corner === 0;

/** Distance from the border of a box with round corners, in pixels, negative inside (Quílez 2019). */
function distanceFrom({ x, y, width, height }: Box, radius: number, at: { x: number; y: number }): number {
  const across = Math.abs(at.x - x - width / 2) - width / 2 + radius;
  const down = Math.abs(at.y - y - height / 2) - height / 2 + radius;
  return Math.hypot(Math.max(0, across), Math.max(0, down)) + Math.min(0, Math.max(across, down)) - radius;
}

/**
 * Extends the sides of a box that lie on the frame's border beyond it: nothing is visible there for an edge to stand out
 * from.
 */
function beyondFrame({ x, y, width, height }: Box, frame: Size): Box {
  const near = 0.5;
  const left = x <= near ? x - frame.width : x;
  const top = y <= near ? y - frame.height : y;
  const right = x + width >= frame.width - near ? x + width + frame.width : x + width;
  const bottom = y + height >= frame.height - near ? y + height + frame.height : y + height;
  return { x: left, y: top, width: right - left, height: bottom - top };
}

const smooth = (share: number): number => {
  const t = clamped(share, 0, 1);
  return t * t * (3 - 2 * t);
};

/** Opacity at a place of a frame, 0 to 1; places are in pixels from its top left. */
export type ShareAt = (x: number, y: number) => number;

/** Opacity of a pane, and of its shadow, at places of a frame. */
export function edgeOf({ look, corner }: Edge, pane: Box, frame: Size): { cover: ShareAt; shadow: ShareAt } {
  const radius = (corner / 100) * (Math.min(pane.width, pane.height) / 2);
  const open = beyondFrame(pane, frame);
  const short = Math.min(frame.width, frame.height);
  const [fade, dim] = [FADE_REACH * short, SHADOW_REACH * short];
  return {
    cover: (x, y) => {
      // Share of the pixel inside, where the border goes through it.
      const sharp = clamped(0.5 - distanceFrom(pane, radius, { x, y }), 0, 1);
      return look === "feather" ? Math.min(sharp, smooth(-distanceFrom(open, radius, { x, y }) / fade)) : sharp;
    },
    shadow: (x, y) => (look === "shadow" ? SHADOW * (1 - smooth(distanceFrom(open, radius, { x, y }) / dim)) : 0),
  };
}
