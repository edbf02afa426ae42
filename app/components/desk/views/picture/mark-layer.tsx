import { type PointerEvent, useRef, useState } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import { sourcePoint } from "./source-point";
import { type Box, clipBox, type Point, type Size } from "~/core/geometry/box";

interface MarkLayerProps {
  /** Purpose of the box. */
  label: string;
  picture: Size;
  onStart: () => void;
  /** Called with the box in source pixels; null when drawing was given up. */
  onDrawn: (box: Box | null) => void;
  /** Called with a click; left out where clicks have no use. */
  onClicked?: (place: Point) => void;
}

/** Below this size, in source pixels, a box counts as a click. */
const LEAST_SIDE = 6;

const boxBetween = (a: Point, b: Point): Box => ({
  x: Math.min(a.x, b.x),
  y: Math.min(a.y, b.y),
  width: Math.abs(a.x - b.x),
  height: Math.abs(a.y - b.y),
});

/** Covers the picture while a box is drawn. */
export function MarkLayer({ label, picture, onStart, onDrawn, onClicked }: MarkLayerProps) {
  const from = useRef<Point | null>(null);
  const [drawn, setDrawn] = useState<Box | null>(null);
  useHotkeys("esc", () => onDrawn(null));

  const locate = (event: PointerEvent<SVGRectElement>): Point => sourcePoint(event, event.currentTarget, picture);
  const end = () => {
    const box = drawn && clipBox(drawn, picture);
    if (from.current && onClicked) onClicked(from.current);
    from.current = null;
    setDrawn(null);
    if (box && box.width >= LEAST_SIDE && box.height >= LEAST_SIDE) onDrawn(box);
  };
  return (
    <>
      <rect
        width={picture.width}
        height={picture.height}
        fill="transparent"
        className="cursor-crosshair"
        role="application"
        aria-label={label}
        onPointerDown={(event) => {
          if (event.button !== 0) return;
          onStart();
          event.currentTarget.setPointerCapture(event.pointerId);
          from.current = locate(event);
        }}
        onPointerMove={(event) => from.current && !onClicked && setDrawn(boxBetween(from.current, locate(event)))}
        onPointerUp={end}
        onPointerCancel={() => setDrawn(null)}
      />
      {drawn && (
        <rect
          {...drawn}
          pointerEvents="none"
          className="fill-accent/15 stroke-accent [vector-effect:non-scaling-stroke]"
          strokeWidth={2}
          strokeDasharray="6 3"
        />
      )}
    </>
  );
}
