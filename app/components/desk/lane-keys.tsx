import type Konva from "konva";
import { Circle, Rect } from "react-konva";
import type { Key } from "~/core/path/keys";
import type { DeskShot } from "./desk-types";
import { type LaneGeometry, toPoint } from "./lane-geometry";
import type { CanvasTheme } from "./use-theme";

interface LaneKeysProps {
  shot: DeskShot;
  geometry: LaneGeometry;
  theme: CanvasTheme;
  onSeek: (frame: number) => void;
  /** A key was dragged to a point; `fromFrame` is where a hand key was before, null for a computed one. */
  onDrop: (point: { x: number; y: number }, fromFrame: number | null) => void;
}

const RADIUS = 5;

const pointer = (shape: string) => (event: Konva.KonvaEventObject<MouseEvent>) => {
  const container = event.target.getStage()?.container();
  if (container) container.style.cursor = shape;
};

/** The joints of a path: a circle for one that was computed, a square for one that was placed by hand. */
export function LaneKeys({ shot, geometry, theme, onSeek, onDrop }: LaneKeysProps) {
  return shot.framed?.keys.map((key) => (
    <LaneKey
      key={`${key.frame}-${key.by}`}
      item={key}
      geometry={geometry}
      theme={theme}
      onSeek={onSeek}
      onDrop={onDrop}
    />
  ));
}

function LaneKey({ item, geometry, theme, onSeek, onDrop }: Omit<LaneKeysProps, "shot"> & { item: Key }) {
  const at = toPoint(geometry, item[geometry.axis], item.frame);
  const byHand = item.by === "hand";
  const handlers = {
    draggable: true,
    onMouseEnter: pointer("grab"),
    onMouseLeave: pointer("default"),
    onClick: () => onSeek(item.frame),
    onTap: () => onSeek(item.frame),
    onDragEnd: ({ target }: Konva.KonvaEventObject<DragEvent>) => {
      const point = { x: target.x(), y: target.y() };
      // Back to where the path still is; the new path brings the key to its new place.
      target.position(at);
      onDrop(point, byHand ? item.frame : null);
    },
  };
  return byHand ? (
    <Rect
      {...at}
      {...handlers}
      offsetX={RADIUS}
      offsetY={RADIUS}
      width={2 * RADIUS}
      height={2 * RADIUS}
      fill={theme.accent}
      stroke={theme.panel}
      strokeWidth={1.5}
      hitStrokeWidth={14}
    />
  ) : (
    <Circle
      {...at}
      {...handlers}
      radius={RADIUS}
      fill={theme.panel}
      stroke={theme.accent}
      strokeWidth={2}
      hitStrokeWidth={14}
    />
  );
}
