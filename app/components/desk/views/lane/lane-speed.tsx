import type Konva from "konva";
import { Circle, Group, Line, Shape } from "react-konva";
import { clamped } from "~/core/numbers/clamped";
import { curveHandles, type CurveHandles, curveOf, type Easing } from "~/core/path/easing";
import type { HandKey } from "~/core/path/hand-key";
import type { FrameRange } from "~/core/time/rate";
import type { DeskShot } from "../../model/desk-types";
import type { CanvasTheme } from "../../hooks/use-theme";

/** Canvas pixels across the speed curve. */
export const SPEED = 36;
/** Full scale, in windows per second; faster speeds are drawn at the edge. */
const FULL_SPEED = 2;
const HANDLE = 4;

interface LaneSpeedProps {
  shot: DeskShot;
  /** Offset of the curve. */
  left: number;
  fps: number;
  /** Aspect ratio of the window, width over height. */
  aspect: number;
  pxPerFrame: number;
  drawn: FrameRange;
  theme: CanvasTheme;
  onEase: (key: HandKey, easing: Easing) => void;
}

/** An eased segment from a hand key to the next one. */
interface Segment {
  key: HandKey;
  end: number;
  handles: CurveHandles;
}

function segmentsOf({ handKeys }: Pick<DeskShot, "handKeys">): Segment[] {
  return handKeys.flatMap((key, i) => {
    const next = handKeys[i + 1];
    const handles = next && key.easing ? curveHandles(key.easing) : null;
    return next && handles ? [{ key, end: next.frame, handles }] : [];
  });
}

/**
 * Speed of a shot's window, beside the lane. Where the editor has eased the way between two keyframes, handles on the curve
 * set how long it accelerates and decelerates.
 */
export function LaneSpeed({ shot, left, fps, aspect, pxPerFrame, drawn, theme, onEase }: LaneSpeedProps) {
  const windows = shot.framed?.windows;
  if (!windows) return null;
  const acrossAt = (frame: number): number => {
    const i = clamped(frame - shot.start, 0, windows.length - 2);
    const [from, to] = [windows[i]!, windows[i + 1] ?? windows[i]!];
    const speed = (fps * Math.hypot(to.x - from.x, to.y - from.y)) / (from.height * aspect);
    return left + Math.min(1, speed / FULL_SPEED) * SPEED;
  };
  const paint = (context: Konva.Context) => {
    const [start, end] = [Math.max(shot.start, drawn.start), Math.min(shot.end, drawn.end)];
    const step = Math.max(1, Math.floor(1 / pxPerFrame));
    context.beginPath();
    context.moveTo(left, start * pxPerFrame);
    for (let frame = start; frame < end; frame += step) context.lineTo(acrossAt(frame), frame * pxPerFrame);
    context.lineTo(left, end * pxPerFrame);
    context.closePath();
    context.fillStyle = theme.soft;
    context.fill();
  };
  return (
    <Group>
      <Shape sceneFunc={paint} opacity={0.6} listening={false} />
      {segmentsOf(shot).map(({ key, end, handles }) => {
        const length = end - key.frame;
        return ([0, 2] as const).map((at) => {
          const frame = key.frame + handles[at] * length;
          const place = { x: acrossAt(Math.round(frame)), y: frame * pxPerFrame };
          const root = (at === 0 ? key.frame : end) * pxPerFrame;
          /** The easing after a handle was dropped. */
          const eased = (y: number): Easing => {
            const share = clamped((y / pxPerFrame - key.frame) / length, 0, 1);
            const next = [...handles] as [number, number, number, number];
            next[at] = Math.round(1000 * share) / 1000;
            return curveOf(next);
          };
          return (
            <Group key={`${key.frame} ${at}`}>
              <Line points={[left, root, place.x, place.y]} stroke={theme.soft} strokeWidth={1} listening={false} />
              <Circle
                {...place}
                radius={HANDLE}
                fill={theme.panel}
                stroke={theme.accent}
                strokeWidth={1.5}
                hitStrokeWidth={12}
                draggable
                onMouseEnter={({ target }) => (target.getStage()!.container().style.cursor = "ns-resize")}
                onMouseLeave={({ target }) => (target.getStage()!.container().style.cursor = "default")}
                onDragEnd={({ target }) => {
                  const easing = eased(target.y());
                  target.position(place);
                  onEase(key, easing);
                }}
              />
            </Group>
          );
        });
      })}
    </Group>
  );
}
