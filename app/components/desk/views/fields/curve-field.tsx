import { clamped } from "~/core/numbers/clamped";
import { type KeyboardEvent, type PointerEvent, useRef, useState } from "react";
import { arrowDirection } from "~/components/common/arrow-step";
import { type Curve, type CurveHandles, curveOf, handlesOf } from "~/core/path/easing";
import { inspectorTexts } from "~/texts/inspector";

const t = inspectorTexts.curveField;

interface CurveFieldProps {
  curve: Curve;
  onChange: (curve: Curve) => void;
}

const SIDE = 100;
/** Room around the square for handles on its edge. */
const EDGE = 8;
const STEP = 0.05;
const HANDLES = [
  { label: t.easingOutOfThisKey, at: 0, root: [0, 0] },
  { label: t.easingIntoTheNextKey, at: 2, root: [1, 1] },
] as const;

const share = (value: number) => Math.round(100 * clamped(value, 0, 1)) / 100;
const moved = (handles: CurveHandles, at: 0 | 2, x: number, y: number): CurveHandles => {
  const [x1, y1, x2, y2] = handles;
  return at === 0 ? [share(x), share(y), x2, y2] : [x1, y1, share(x), share(y)];
};

/** An easing curve between two keyframes, shaped by two handles: time to the right, progress upwards. */
export function CurveField({ curve, onChange }: CurveFieldProps) {
  const square = useRef<SVGRectElement>(null);
  const [dragged, setDragged] = useState<CurveHandles | null>(null);
  const handles = dragged ?? handlesOf(curve)!;
  const point = ([x, y]: readonly [number, number]) => `${x * SIDE} ${(1 - y) * SIDE}`;
  const [x1, y1, x2, y2] = handles;

  const drag = (at: 0 | 2) => (event: PointerEvent) => {
    if (!event.currentTarget.hasPointerCapture(event.pointerId)) return;
    const bounds = square.current!.getBoundingClientRect();
    const x = (event.clientX - bounds.left) / bounds.width;
    setDragged(moved(handles, at, x, 1 - (event.clientY - bounds.top) / bounds.height));
  };
  const drop = () => {
    if (dragged) onChange(curveOf(dragged));
    setDragged(null);
  };
  const nudge = (at: 0 | 2) => (event: KeyboardEvent) => {
    const by = arrowDirection(event.key);
    if (!by) return;
    event.preventDefault();
    event.stopPropagation();
    onChange(curveOf(moved(handles, at, handles[at] + STEP * by[0], handles[at + 1]! - STEP * by[1])));
  };

  return (
    <svg
      viewBox={`${-EDGE} ${-EDGE} ${SIDE + 2 * EDGE} ${SIDE + 2 * EDGE}`}
      className="size-28 shrink-0 touch-none"
      aria-label={t.curveToYourNextKey}
    >
      <rect ref={square} width={SIDE} height={SIDE} className="fill-raised stroke-line" />
      <path
        d={`M${point([0, 0])}C${point([x1, y1])} ${point([x2, y2])} ${point([1, 1])}`}
        className="fill-none stroke-accent"
        strokeWidth={2}
      />
      {HANDLES.map(({ label, at, root }) => (
        <g key={label}>
          <path d={`M${point(root)}L${point([handles[at], handles[at + 1]!])}`} className="stroke-soft" />
          <circle
            cx={handles[at] * SIDE}
            cy={(1 - handles[at + 1]!) * SIDE}
            r={5}
            role="slider"
            tabIndex={0}
            aria-label={label}
            aria-valuenow={handles[at + 1]}
            aria-valuetext={t.handleAt(handles[at]!, handles[at + 1]!)}
            className="cursor-grab fill-panel stroke-accent outline-accent focus-visible:outline-2"
            strokeWidth={2}
            onPointerDown={(event) => event.currentTarget.setPointerCapture(event.pointerId)}
            onPointerMove={drag(at)}
            onPointerUp={drop}
            onPointerCancel={() => setDragged(null)}
            onKeyDown={nudge(at)}
          />
        </g>
      ))}
    </svg>
  );
}
