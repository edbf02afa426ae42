import type { Box, Size } from "~/core/geometry/box";

/** A box of a frame as shares of its size, for overlays. */
export const shareOf = (box: Box, frame: Size) => ({
  left: `${(100 * box.x) / frame.width}%`,
  top: `${(100 * box.y) / frame.height}%`,
  width: `${(100 * box.width) / frame.width}%`,
  height: `${(100 * box.height) / frame.height}%`,
});
