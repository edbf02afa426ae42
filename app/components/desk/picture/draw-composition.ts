import { type Composition, coversAll, fromScaled, inSize } from "~/core/composition/composition";
import { isPlain } from "~/core/composition/edge";
import type { Size } from "~/core/geometry/box";
import { drawBackdrop } from "./draw-backdrop";
import { drawEdged } from "./draw-edged";
import { drawLayers } from "./draw-layers";
import { drawPane } from "./draw-pane";

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
    if (composition.backdrop) drawBackdrop(canvas, video, composition.backdrop, composition.panes[0]!);
    else {
      context.fillStyle = "#000";
      context.fillRect(0, 0, width, height);
    }
  }
  for (const pane of composition.panes) {
    if (pane.edge && !isPlain(pane.edge)) drawEdged(canvas, pane, pane.edge, (to) => drawPane(to, video, pane));
    else drawPane(context, video, pane);
  }
  drawLayers(canvas, composition);
}
