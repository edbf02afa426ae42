import type Konva from "konva";
import { useRef, useState } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import { Circle } from "react-konva";
import type { Point } from "~/core/geometry/box";
import type { Key } from "~/core/path/keys";
import type { DeskShot } from "../../model/desk-types";
import { type LaneGeometry, toPoint } from "./lane-geometry";
import type { CanvasTheme } from "../../hooks/use-theme";

interface LaneKeysProps {
  shot: DeskShot;
  geometry: LaneGeometry;
  theme: CanvasTheme;
  onSeek: (frame: number) => void;
  /** Called when a key is dragged over a point, or dropped there. */
  onDrag: (key: Key, point: Point) => void;
  onDrop: (key: Key, point: Point) => void;
  /** Called when a drag is given up. */
  onGiveUp: () => void;
  /** Frames of the selected hand keys; a press with Shift adds one or removes it. */
  selected: ReadonlySet<number>;
  onToggle: (frame: number) => void;
}

const RADIUS = 5;

const pointer = (shape: string) => (event: Konva.KonvaEventObject<MouseEvent>) => {
  const container = event.target.getStage()?.container();
  if (container) container.style.cursor = shape;
};

/** The key being dragged, and where the other hand keys are. */
interface Held {
  key: Key;
  node: Konva.Node;
  others: ReadonlySet<number>;
}

/** Hand keys are where the editor placed them, even before the path around them is laid again. */
function keysOfShot({ framed, handKeys }: Pick<DeskShot, "framed" | "handKeys">): Key[] {
  const placed = new Set(handKeys.map(({ frame }) => frame));
  const computed = (framed?.keys ?? []).filter(({ by, frame }) => by === "solver" && !placed.has(frame));
  return [...computed, ...handKeys.map((key): Key => ({ ...key, easing: key.easing ?? "ease", by: "hand" }))];
}

/** The keyframes of a path: a hollow dot for one that was computed, a filled one for one that was placed by hand. */
export function LaneKeys(props: LaneKeysProps) {
  const { shot, geometry, theme, onSeek, onDrag, onDrop, onGiveUp, selected, onToggle } = props;
  const [held, setHeld] = useState<Held | null>(null);
  const keys = keysOfShot(shot);
  // The path lags behind the drag: the key under the pointer is drawn by itself.
  const isOther = ({ by, frame }: Key) =>
    by === "hand" ? held?.others.has(frame) : held?.key.by === "hand" || held?.key.frame !== frame;
  const shown = held ? [...keys.filter(isOther), held.key] : keys;
  const isGivenUp = useRef(false);
  const giveUp = () => {
    isGivenUp.current = true;
    held?.node.stopDrag();
  };
  useHotkeys("escape", giveUp, { enabled: held !== null });
  const hold = (key: Key, node: Konva.Node) => {
    const others = keys.filter((other) => other.by === "hand" && other !== key).map(({ frame }) => frame);
    isGivenUp.current = false;
    setHeld({ key, node, others: new Set(others) });
  };
  return shown.map((key) => (
    <LaneKey
      key={`${key.frame}-${key.by}`}
      item={key}
      geometry={geometry}
      theme={theme}
      onSeek={onSeek}
      isSelected={key.by === "hand" && selected.has(key.frame)}
      onToggle={onToggle}
      onHold={(node) => hold(key, node)}
      onDrag={(point) => onDrag(key, point)}
      onDrop={(point) => {
        setHeld(null);
        if (isGivenUp.current) onGiveUp();
        else onDrop(key, point);
      }}
    />
  ));
}

interface LaneKeyProps extends Pick<LaneKeysProps, "geometry" | "theme" | "onSeek" | "onToggle"> {
  item: Key;
  isSelected: boolean;
  onHold: (node: Konva.Node) => void;
  onDrag: (point: Point) => void;
  onDrop: (point: Point) => void;
}

function LaneKey({ item, isSelected, geometry, theme, onSeek, onToggle, onHold, onDrag, onDrop }: LaneKeyProps) {
  const at = toPoint(geometry, item[geometry.axis], item.frame);
  const byHand = item.by === "hand";
  const handlers = {
    draggable: true,
    onMouseEnter: pointer("grab"),
    onMouseLeave: pointer("default"),
    onClick: ({ evt }: Konva.KonvaEventObject<MouseEvent>) =>
      evt.shiftKey && byHand ? onToggle(item.frame) : onSeek(item.frame),
    onTap: () => onSeek(item.frame),
    onDragStart: ({ target }: Konva.KonvaEventObject<DragEvent>) => onHold(target),
    onDragMove: ({ target }: Konva.KonvaEventObject<DragEvent>) => onDrag({ x: target.x(), y: target.y() }),
    onDragEnd: ({ target }: Konva.KonvaEventObject<DragEvent>) => {
      const point = { x: target.x(), y: target.y() };
      // Back to where the path still is; the new path moves the key to its new place.
      target.position(at);
      onDrop(point);
    },
  };
  const line = byHand ? (isSelected ? theme.ink : theme.panel) : theme.accent;
  return (
    <Circle
      {...at}
      {...handlers}
      radius={RADIUS}
      fill={byHand ? theme.accent : theme.panel}
      stroke={line}
      strokeWidth={isSelected ? 2.5 : byHand ? 1.5 : 2}
      hitStrokeWidth={14}
    />
  );
}
