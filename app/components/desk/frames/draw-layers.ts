import type { Composition } from "~/core/composition/composition";
import { drawLayer, type LayerGround, placeLayer } from "~/core/composition/layers/draw-layer";
import type { LayerAt } from "~/core/composition/layers/layer-at";
import type { Layer } from "~/core/composition/layers/layer";
import { soften, softRadius } from "~/core/composition/layers/soften";
import type { Box } from "~/core/geometry/box";
import type { PictureSource } from "./moving-pictures";
import { ownPicture } from "./own-pictures";

interface DrawnLayer {
  /** Layer and canvas that it was drawn for. */
  key: string;
  /** Its place, in pixels of the frame. */
  ink: Box;
  picture: HTMLCanvasElement;
}

/** A layer that does not move is drawn again only when it or the canvas's size changes. */
const drawn = new WeakMap<Layer, DrawnLayer>();

/** Discards drawings made before their fonts had loaded. */
export function forgetDrawnLayers(layers: readonly Layer[]): void {
  for (const layer of layers) drawn.delete(layer);
}

function pictureOf(
  canvas: HTMLCanvasElement,
  { layer, picture: at }: LayerAt,
  ground: LayerGround,
  scale: number,
  sourceOf: PictureSource,
): DrawnLayer {
  const known = drawn.get(layer);
  const key = JSON.stringify([ground, scale]);
  if (known?.key === key && !at) return known;
  const picture = known?.picture ?? canvas.ownerDocument.createElement("canvas");
  // Lines are broken at the version's own size, as in the render, whatever the size of the canvas is.
  const placed = placeLayer(layer, ground, picture.getContext("2d")!);
  const { ink } = placed;
  [picture.width, picture.height] = [
    Math.max(1, Math.ceil(ink.width * scale)),
    Math.max(1, Math.ceil(ink.height * scale)),
  ];
  const context = picture.getContext("2d")!;
  context.scale(scale, scale);
  context.translate(-ink.x, -ink.y);
  drawLayer(context, layer, placed, (own) => (at ? (sourceOf(at)?.image ?? null) : ownPicture(own)));
  const radius = scale * softRadius(layer, ground.frame);
  if (radius > 0) {
    const pixels = context.getImageData(0, 0, picture.width, picture.height);
    soften(pixels.data, pixels, radius);
    context.putImageData(pixels, 0, 0);
  }
  const made = { key, ink, picture };
  // A layer whose picture has not loaded is drawn again when it has.
  if (layer.kind !== "picture" || ownPicture(layer.picture)) drawn.set(layer, made);
  return made;
}

function drawOne(canvas: HTMLCanvasElement, at: LayerAt, ground: LayerGround, sourceOf: PictureSource): void {
  const { opacity, shift, layer } = at;
  const context = canvas.getContext("2d")!;
  const scale = canvas.width / ground.frame.width;
  const { ink, picture } = pictureOf(canvas, at, ground, scale, sourceOf);
  context.globalAlpha = opacity;
  context.globalCompositeOperation = layer.blend === "normal" ? "source-over" : layer.blend;
  context.drawImage(picture, scale * ink.x + shift.x * canvas.width, scale * ink.y + shift.y * canvas.height);
  context.globalAlpha = 1;
  context.globalCompositeOperation = "source-over";
}

/** Draws the layers above the panes. */
export function drawLayers(canvas: HTMLCanvasElement, { layers }: Composition, sourceOf: PictureSource): void {
  for (const at of layers?.at ?? []) drawOne(canvas, at, layers!.ground, sourceOf);
}
