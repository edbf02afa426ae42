import { type Composition, coversAll, fromScaled, inSize, type Pane } from "~/core/composition/composition";
import { isPlain } from "~/core/composition/edge";
import type { PictureAt } from "~/core/composition/picture";
import { scaleBox, type Size } from "~/core/geometry/box";
import { drawBackdrop } from "./draw-backdrop";
import { drawEdged } from "./draw-edged";
import { drawLayers } from "./draw-layers";
import { drawPane } from "./draw-pane";
import { firstFrame, type PictureSource } from "./moving-pictures";

/**
 * Draws a composition over a whole canvas.
 * @param video the film at the frame, possibly at fewer pixels than the source in which compositions are measured
 * @param picture size of the source
 * @param sourceOf gives the editor's own pictures
 */
export function drawComposition(
  canvas: HTMLCanvasElement,
  video: HTMLVideoElement,
  shown: Composition,
  picture: Size,
  sourceOf: PictureSource = firstFrame,
) {
  const context = canvas.getContext("2d")!;
  const { width, height } = canvas;
  const composition = fromScaled(inSize(shown, { width, height }), video.videoWidth / picture.width);
  context.imageSmoothingQuality = "high";
  if (!composition.panes.some((pane) => coversAll(composition, pane))) {
    if (composition.backdrop) drawBackdrop(canvas, video, composition.backdrop, composition.panes[0]!, sourceOf);
    else {
      context.fillStyle = "#000";
      context.fillRect(0, 0, width, height);
    }
  }
  for (const pane of composition.panes) {
    if (pane.own) drawOwn(context, pane, pane.own, sourceOf);
    else if (pane.edge && !isPlain(pane.edge)) drawEdged(canvas, pane, pane.edge, (to) => drawPane(to, video, pane));
    else drawPane(context, video, pane);
  }
  drawLayers(canvas, composition, sourceOf);
}

/** Draws one of the editor's own pictures in its pane; the played file may have fewer pixels than the picture. */
function drawOwn(context: CanvasRenderingContext2D, pane: Pane, at: PictureAt, sourceOf: PictureSource): void {
  const shown = sourceOf(at);
  if (!shown) return;
  drawPane(context, shown.image, { ...pane, source: scaleBox(pane.source, shown.width / at.picture.width) });
}
