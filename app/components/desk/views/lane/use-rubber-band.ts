import type Konva from "konva";
import { useState } from "react";
import type { Box, Point } from "~/core/geometry/box";

const between = (a: Point, b: Point): Box => ({
  x: Math.min(a.x, b.x),
  y: Math.min(a.y, b.y),
  width: Math.abs(a.x - b.x),
  height: Math.abs(a.y - b.y),
});

/** Distance in canvas pixels below which a drag is a press and selects nothing. */
const LEAST = 3;

/**
 * A box drawn over an empty part of a canvas, to select what is in it.
 * @param onSelect called with the box, or null for a press, and whether to add to the selection
 */
export function useRubberBand(onSelect: (box: Box | null, adds: boolean) => void) {
  const [from, setFrom] = useState<Point | null>(null);
  const [box, setBox] = useState<Box | null>(null);
  const at = ({ target }: Konva.KonvaEventObject<PointerEvent>) => target.getStage()!.getPointerPosition()!;
  const handlers = {
    onPointerDown: (event: Konva.KonvaEventObject<PointerEvent>) => {
      // Shapes on the canvas handle their own presses.
      if (event.target !== event.target.getStage() || event.evt.button !== 0) return;
      setFrom(at(event));
    },
    onPointerMove: (event: Konva.KonvaEventObject<PointerEvent>) => {
      if (from) setBox(between(from, at(event)));
    },
    onPointerUp: ({ evt }: Konva.KonvaEventObject<PointerEvent>) => {
      if (!from) return;
      const isDrawn = box !== null && Math.max(box.width, box.height) > LEAST;
      onSelect(isDrawn ? box : null, evt.shiftKey);
      setFrom(null);
      setBox(null);
    },
  };
  return { box, handlers };
}
