import type { Box } from "~/core/geometry/box";
import type { Pane } from "~/core/composition/composition";

/**
 * Draws a pane's part of a video or picture, in its own pixels, where the pane is. One that has no border of its own ends with
 * a pixel of the canvas: beside it is another, and what lies behind would shine through between the two.
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
