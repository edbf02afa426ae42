/** Draws layers, on the desk and on the server, and computes their places. */
import { assertNever } from "../../basics/assert-never";
import { type Box, grownBox, type Size } from "../../geometry/box";
import { channelsOf } from "../colour";
import type { Picture } from "../picture";
import { type Layer, MOST_PLACE, type PictureLayer, type ShapeLayer, type TextLayer } from "./layer";
import type { Pen } from "./pen";
import { softReach } from "./soften";
import { type SafeArea, safeBox, USUAL_SAFE_AREA } from "./safe-area";
import { type TextBlock, textBlock } from "./text-block";

/** The darkest shadow: blur and vertical offset in em, and its opacity. */
const SHADOW = { blur: 0.22, below: 0.05, alpha: 0.85 };
/** Visible reach of a shadow beyond its layer, as a multiple of its blur. */
const SHADOW_REACH = 1.5;
/** Greatest corner radius, as a share of the shorter side. */
const ROUNDEST = 0.5;

/** A picture as the pen draws it; null where it is missing or has not loaded. */
export type PictureSource = (picture: Picture) => object | null;

/** What a layer is placed in. */
export interface LayerGround {
  /** Size of the version. */
  frame: Size;
  safe: SafeArea;
}

/** What the layers of a version are placed in. */
export const groundOf = ({ width, height, safeArea }: Size & { safeArea: SafeArea | null }): LayerGround => ({
  frame: { width, height },
  safe: safeArea ?? USUAL_SAFE_AREA,
});

/** A layer with its place. */
export interface PlacedLayer {
  /** In pixels of the frame. */
  box: Box;
  /** The area that it paints: outline and shadow reach beyond the box. */
  ink: Box;
  /** Lines of a text. */
  block: TextBlock | null;
}

/** Size of a layer that does not depend on its text, in pixels of the frame. */
export function layerSize(layer: ShapeLayer | PictureLayer, frame: Size): Size {
  const side = Math.min(frame.width, frame.height);
  if (layer.kind === "shape") return { width: layer.width * frame.width, height: layer.height * side };
  const width = layer.width * side;
  return { width, height: (width * layer.picture.height) / layer.picture.width };
}

/** Place of a layer of some size in its room. */
export const boxIn = (room: Box, { x, y }: Pick<Layer, "x" | "y">, { width, height }: Size): Box => ({
  x: room.x + x * (room.width - width),
  y: room.y + y * (room.height - height),
  width,
  height,
});

/** Place of a shape in a frame, in its pixels, for which nothing has to be measured. */
export const shapeBox = (layer: ShapeLayer, { frame, safe }: LayerGround): Box =>
  boxIn(safeBox(safe, frame), layer, layerSize(layer, frame));

/**
 * Places a layer in a frame.
 * @param pen measures text; its font is changed
 */
export function placeLayer(layer: Layer, { frame, safe }: LayerGround, pen: Pen): PlacedLayer {
  const room = safeBox(safe, frame);
  const block = layer.kind === "text" ? textBlock(layer, frame, room, pen) : null;
  const { width, height } = layer.kind === "text" ? block! : layerSize(layer, frame);
  const box = boxIn(room, layer, { width, height });
  const soft = softReach(layer, frame);
  if (layer.kind !== "text") return { box, ink: grownBox(box, soft), block };
  const { em } = block!;
  const shadow = layer.shadow > 0 ? SHADOW_REACH * SHADOW.blur * em : 0;
  // Glyphs may reach beyond their measured width.
  const around = grownBox(box, 0.15 * em + layer.outline * em + shadow + soft);
  return { box, ink: { ...around, height: around.height + SHADOW.below * em }, block };
}

/** The place of a layer whose box has moved; unchanged on an axis without room. */
export function placeAt(layer: Pick<Layer, "x" | "y">, box: Box, { frame, safe }: LayerGround): Pick<Layer, "x" | "y"> {
  const room = safeBox(safe, frame);
  const share = (free: number, from: number, before: number) =>
    Math.abs(free) < 1 ? before : Math.max(-MOST_PLACE, Math.min(MOST_PLACE, from / free));
  return {
    x: share(room.width - box.width, box.x - room.x, layer.x),
    y: share(room.height - box.height, box.y - room.y, layer.y),
  };
}

const withAlpha = (colour: string, percent: number): string =>
  `rgba(${channelsOf(colour).join(", ")}, ${percent / 100})`;

function outlineBox(pen: Pen, { x, y, width, height }: Box, corner: number): void {
  pen.beginPath();
  pen.roundRect(x, y, width, height, (corner / 100) * ROUNDEST * Math.min(width, height));
}

function paintBox(pen: Pen, box: Box, corner: number): void {
  outlineBox(pen, box, corner);
  pen.fill();
}

function drawPicture(pen: Pen, layer: PictureLayer, { box }: PlacedLayer, pictureOf: PictureSource): void {
  const picture = pictureOf(layer.picture);
  if (!picture) return;
  outlineBox(pen, box, layer.corner);
  pen.clip();
  pen.drawImage(picture, box.x, box.y, box.width, box.height);
}

function drawText(pen: Pen, layer: TextLayer, { box, block }: PlacedLayer): void {
  const { em, font, lines } = block!;
  if (layer.box) {
    pen.fillStyle = withAlpha(layer.box.colour, layer.box.opacity);
    paintBox(pen, box, layer.box.corner);
  }
  pen.font = font;
  pen.textAlign = "left";
  pen.textBaseline = "alphabetic";
  pen.lineJoin = "round";
  const withShadow = () => {
    if (layer.shadow === 0) return;
    const share = layer.shadow / 100;
    pen.shadowColor = `rgba(0, 0, 0, ${SHADOW.alpha * share})`;
    pen.shadowBlur = SHADOW.blur * em;
    pen.shadowOffsetY = SHADOW.below * em;
  };
  const each = (draw: (text: string, x: number, y: number) => void) => {
    // On whole pixels: letters are sharp, and do not change between two almost equal places.
    for (const { text, x, baseline } of lines) draw(text, Math.round(box.x + x), Math.round(box.y + baseline));
  };
  withShadow();
  if (layer.outline > 0) {
    pen.strokeStyle = layer.outlineColour;
    pen.lineWidth = 2 * layer.outline * em;
    each((text, x, y) => pen.strokeText(text, x, y));
    pen.shadowColor = "rgba(0, 0, 0, 0)";
  }
  pen.fillStyle = layer.colour;
  each((text, x, y) => pen.fillText(text, x, y));
  if (layer.highlight) drawHighlight(pen, layer.highlight, box, lines);
}

/** Draws some characters again, in their own colour. */
function drawHighlight(
  pen: Pen,
  { from, to, colour }: NonNullable<TextLayer["highlight"]>,
  box: Box,
  lines: TextBlock["lines"],
): void {
  pen.shadowColor = "rgba(0, 0, 0, 0)";
  pen.fillStyle = colour;
  for (const { text, x, baseline, first } of lines) {
    const [start, end] = [Math.max(0, from - first), Math.min(text.length, to - first)];
    if (end <= start) continue;
    const before = pen.measureText(text.slice(0, start)).width;
    pen.fillText(text.slice(start, end), Math.round(box.x + x) + before, Math.round(box.y + baseline));
  }
}

/** Draws a layer at its place, in the frame's pixels; its opacity is applied when it is composited. */
export function drawLayer(pen: Pen, layer: Layer, placed: PlacedLayer, pictureOf: PictureSource = () => null): void {
  pen.save();
  switch (layer.kind) {
    case "text":
      drawText(pen, layer, placed);
      break;
    case "shape":
      pen.fillStyle = layer.colour;
      paintBox(pen, placed.box, layer.corner);
      break;
    case "picture":
      drawPicture(pen, layer, placed, pictureOf);
      break;
    default:
      assertNever(layer);
  }
  pen.restore();
}
