/** Burnt-in text that is cut off, and that the editor has covered. */
import { filmPanes, type ShownAt } from "../composition/composition";
import { groundOf, shapeBox } from "../composition/layers/draw-layer";
import { layersAt } from "../composition/layers/layer-at";
import type { Layer } from "../composition/layers/layer";
import type { SafeArea } from "../composition/layers/safe-area";
import { boxContains, mapBox, type Size, visiblePart } from "../geometry/box";
import { boxAt, type Track } from "../subjects/tracking/track";
import { type FrameRange, framesOf } from "../time/rate";

/** Opacity below which a layer hides nothing. */
const OPAQUE = 0.9;
/** Share of its height by which a text may stick out. */
const TOLERANCE = 0.05;

interface Above {
  layers: readonly Layer[];
  safeArea: SafeArea | null;
  size: Size;
  fps: number;
}

/** Whether plain shapes cover the visible parts of texts throughout. */
export function textIsCovered(
  texts: readonly Track[],
  kept: readonly FrameRange[],
  shown: ShownAt,
  above: Above,
): boolean {
  const shapes = above.layers.filter((layer) => layer.kind === "shape" && layer.blend === "normal");
  if (shapes.length === 0) return false;
  const ground = groundOf({ ...above.size, safeArea: above.safeArea });
  const whole = { start: kept[0]?.start ?? 0, end: kept.at(-1)?.end ?? 0 };
  return kept.flatMap(framesOf).every((frame) => {
    const there = texts.flatMap((text) => boxAt(text, frame) ?? []);
    if (there.length === 0) return true;
    const covers = layersAt(shapes, frame, whole, above.fps).flatMap(({ layer, opacity }) =>
      layer.kind === "shape" && opacity >= OPAQUE ? [shapeBox(layer, ground)] : [],
    );
    return there.every((box) =>
      filmPanes(shown(frame)).every(({ source, target }) => {
        const seen = visiblePart(mapBox(box, source, target), above.size);
        return !seen || covers.some((cover) => boxContains(cover, seen, TOLERANCE * seen.height));
      }),
    );
  });
}
