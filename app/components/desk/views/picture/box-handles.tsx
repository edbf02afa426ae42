import { clsx } from "clsx";
import { type KeyboardEvent, type PointerEvent, useRef, useState } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import { arrowDirection } from "~/components/common/arrow-step";
import { type Box, type Point, sameBox, type Size } from "~/core/geometry/box";
import { sourcePoint } from "./source-point";
import { resizeBox, shiftBox, type Sides } from "~/core/geometry/resize-box";
import { pictureTexts } from "~/texts/picture";

const t = pictureTexts.boxHandles;

/** What is being moved: the whole box, or some of its sides. */
type Grip = Sides | "all";

/** Which of these, by the pressed element. */
function gripOf({ dataset }: SVGElement): Grip {
  const [x, y] = dataset.grip!.split(" ").map(Number) as [Sides["x"], Sides["y"]];
  return dataset.grip === "all" ? "all" : { x, y };
}

const HANDLES: readonly Sides[] = ([-1, 0, 1] as const).flatMap((y) =>
  ([-1, 0, 1] as const).filter((x) => x !== 0 || y !== 0).map((x) => ({ x, y })),
);
const CURSORS = { "1": "nwse-resize", "-1": "nesw-resize", "0": "ns-resize" } as const;
const cursorOf = ({ x, y }: Sides): string => (y === 0 ? "ew-resize" : CURSORS[`${(x * y) as -1 | 0 | 1}`]);

/** Shortest side of a box, in source pixels. */
const LEAST_SIDE = 8;
/** Pixels per press of an arrow key, alone and with Shift. */
const NUDGE = 1;
const WIDE_NUDGE = 10;
/** Side of a handle, as a share of the picture's width. */
const HANDLE = 0.009;

interface BoxHandlesProps {
  box: Box;
  /** Name of the box: "Mark", "Protected area". */
  name: string;
  picture: Size;
  className: string;
  dashes: string;
  /** Called when a move begins: playback is to pause. */
  onStart: () => void;
  onChange: (box: Box) => void;
}

/**
 * A box that is moved by its border and resized by its corners and sides. On the keyboard, arrow keys move it, with Alt its
 * right and bottom sides, with Shift by more; Escape gives a drag up.
 */
export function BoxHandles({ box, name, picture, className, dashes, onStart, onChange }: BoxHandlesProps) {
  const [dragged, setDragged] = useState<Box | null>(null);
  const grip = useRef<{ from: Point; what: Grip } | null>(null);
  const group = useRef<SVGGElement>(null);
  const shown = dragged ?? box;
  const moved = (what: Grip, by: Point): Box =>
    what === "all" ? shiftBox(box, by, picture) : resizeBox(box, what, by, picture, LEAST_SIDE);
  const giveUp = () => {
    grip.current = null;
    setDragged(null);
  };
  useHotkeys("escape", giveUp, { enabled: dragged !== null });
  const locate = (event: PointerEvent): Point => sourcePoint(event, group.current!.ownerSVGElement!, picture);
  const handlers = {
    onPointerDown: (event: PointerEvent<SVGElement>) => {
      if (event.button !== 0) return;
      onStart();
      event.currentTarget.setPointerCapture(event.pointerId);
      grip.current = { from: locate(event), what: gripOf(event.currentTarget) };
    },
    onPointerMove: (event: PointerEvent) => {
      if (!grip.current) return;
      const { from, what: held } = grip.current;
      const here = locate(event);
      setDragged(moved(held, { x: here.x - from.x, y: here.y - from.y }));
    },
    onPointerUp: () => {
      if (dragged && !sameBox(dragged, box)) onChange(dragged);
      giveUp();
    },
    onPointerCancel: giveUp,
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const direction = arrowDirection(event.key);
    if (!direction) return;
    event.preventDefault();
    onStart();
    const step = event.shiftKey ? WIDE_NUDGE : NUDGE;
    const by = { x: step * direction[0], y: step * direction[1] };
    onChange(moved(event.altKey ? { x: 1, y: 1 } : "all", by));
  };
  const side = HANDLE * picture.width;
  const line = clsx("fill-none [vector-effect:non-scaling-stroke]", className);
  return (
    <g
      ref={group}
      tabIndex={0}
      role="application"
      aria-roledescription={t.movableBox}
      aria-label={t.dragHint(name)}
      onKeyDown={onKeyDown}
      className="group outline-none"
    >
      <rect {...shown} className={line} strokeWidth={1.5} strokeDasharray={dashes} />
      {/* What is taken hold of is wider than what is seen. */}
      <rect
        {...shown}
        fill="none"
        stroke="transparent"
        strokeWidth={10}
        pointerEvents="stroke"
        className="cursor-move [vector-effect:non-scaling-stroke]"
        data-grip="all"
        {...handlers}
      />
      <g className="opacity-0 group-hover:opacity-100 group-focus-visible:opacity-100">
        {HANDLES.map((sides) => (
          <rect
            key={`${sides.x} ${sides.y}`}
            x={shown.x + ((sides.x + 1) / 2) * shown.width - side / 2}
            y={shown.y + ((sides.y + 1) / 2) * shown.height - side / 2}
            width={side}
            height={side}
            className="fill-white stroke-black [vector-effect:non-scaling-stroke]"
            style={{ cursor: cursorOf(sides) }}
            data-grip={`${sides.x} ${sides.y}`}
            {...handlers}
          />
        ))}
      </g>
    </g>
  );
}
