import type { Box } from "~/core/geometry/box";
import type { Pane } from "~/core/composition/composition";

/**
 * Draws a pane's part of a video or picture, given in its own pixels. A pane without a border of its own ends on a whole
 * pixel of the canvas: nothing shines through between it and its neighbour.
 */
export function drawPane(
  context: CanvasRenderingContext2D,
  image: HTMLVideoElement | HTMLImageElement,
  { source, target, edge }: Pane,
): void {
  const { x, y, width, height } = edge ? target : onWholePixels(target);
  context.drawImage(image, source.x, source.y, source.width, source.height, x, y, width, height);
}

function onWholePixels({ x, y, width, height }: Box): Box {
  const [left, top] = [Math.round(x), Math.round(y)];
  return { x: left, y: top, width: Math.round(x + width) - left, height: Math.round(y + height) - top };
}
