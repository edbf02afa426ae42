import { type Composition, coversAll, fromScaled, inSize } from "~/core/composition/composition";
import type { Size } from "~/core/geometry/box";
import { drawBackdrop } from "./draw-backdrop";

/**
 * Draws a composition so that it fills a canvas.
 *
 * @param video the film at the frame; it may have fewer pixels than the source that compositions are measured in
 * @param picture size of the source
 */
export function drawComposition(canvas: HTMLCanvasElement, video: HTMLVideoElement, shown: Composition, picture: Size) {
  const context = canvas.getContext("2d")!;
  const { width, height } = canvas;
  const composition = fromScaled(inSize(shown, { width, height }), video.videoWidth / picture.width);
  context.imageSmoothingQuality = "high";
  if (!composition.panes.some((pane) => coversAll(composition, pane))) {
    if (composition.backdrop) drawBackdrop(canvas, video, composition.backdrop);
    else {
      context.fillStyle = "#000";
      context.fillRect(0, 0, width, height);
    }
  }
  for (const { source, target } of composition.panes) {
    context.drawImage(
      video,
      ...([source.x, source.y, source.width, source.height] as const),
      ...([target.x, target.y, target.width, target.height] as const),
    );
  }
}
