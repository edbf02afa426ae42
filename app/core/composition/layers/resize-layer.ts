/** Changes a layer so that its box has another size. */
import { clamped } from "../../numbers/clamped";
import { assertNever } from "../../basics/assert-never";
import type { Box } from "../../geometry/box";
import { type LayerGround, placeAt, placeLayer } from "./draw-layer";
import { type Layer, LIMITS, type ShapeLayer, type TextLayer } from "./layer";
import type { Pen } from "./pen";
import { safeBox } from "./safe-area";

const within = ([least, most]: readonly [number, number], value: number) => clamped(value, least, most);

function textResized(layer: TextLayer, from: Box, to: Box, isCorner: boolean, { frame, safe }: LayerGround): TextLayer {
  if (isCorner) {
    // Lines stay as they are: the line width scales with the font.
    const times = to.width / from.width;
    return {
      ...layer,
      size: within(LIMITS.textSize, layer.size * times),
      width: within(LIMITS.textWidth, layer.width * times),
    };
  }
  return { ...layer, width: within(LIMITS.textWidth, to.width / safeBox(safe, frame).width) };
}

const shapeResized = (layer: ShapeLayer, { width, height }: Box, { frame }: LayerGround): ShapeLayer => ({
  ...layer,
  width: within(LIMITS.shapeWidth, width / frame.width),
  height: within(LIMITS.shapeHeight, height / Math.min(frame.width, frame.height)),
});

function changed(layer: Layer, from: Box, to: Box, isCorner: boolean, ground: LayerGround): Layer {
  switch (layer.kind) {
    case "text":
      return textResized(layer, from, to, isCorner, ground);
    case "shape":
      return shapeResized(layer, to, ground);
    case "picture":
      return { ...layer, width: within(LIMITS.pictureWidth, (layer.width * to.width) / from.width) };
    default:
      return assertNever(layer);
  }
}

/**
 * A layer whose box was dragged from one size to another; it stays at the new box.
 * @param isCorner whether a corner was dragged, which scales a text; a side changes its line width
 * @param pen measures text; its font is changed
 */
export function resized(layer: Layer, from: Box, to: Box, isCorner: boolean, ground: LayerGround, pen: Pen): Layer {
  const next = changed(layer, from, to, isCorner, ground);
  const { width, height } = placeLayer(next, ground, pen).box;
  return { ...next, ...placeAt(layer, { x: to.x, y: to.y, width, height }, ground) };
}
