import type Konva from "konva";
import { Shape } from "react-konva";
import type { Size } from "~/core/geometry/box";
import type { FrameRange } from "~/core/time/rate";
import type { DeskShot } from "../state/desk-types";
import { type LaneGeometry, toPoint } from "./lane-geometry";
import type { CanvasTheme } from "./use-theme";

/** With fewer canvas pixels for a frame than this, the lane is drawn from afar: keys and tracks are too dense to be told apart. */
export const FAR_PX_PER_FRAME = 0.2;
const KEY = 3;

interface LaneFarProps {
  shots: readonly DeskShot[];
  geometry: LaneGeometry;
  drawn: FrameRange;
  size: Size;
  theme: CanvasTheme;
}

/** Many shots at once, in one go: ribbons, cuts and hand keys. */
export function LaneFar({ shots, geometry, drawn, size, theme }: LaneFarProps) {
  const paint = (context: Konva.Context) => {
    for (const shot of shots) paintShot(context, shot);
  };
  const paintShot = (context: Konva.Context, shot: DeskShot) => {
    const [start, end] = [Math.max(shot.start, drawn.start), Math.min(shot.end, drawn.end)];
    const rule = toPoint(geometry, 0, shot.start);
    context.fillStyle = theme.line;
    if (geometry.axis === "x") context.fillRect(0, rule.y, size.width, 1);
    else context.fillRect(rule.x, 0, 1, size.height);
    if (!shot.shown) return;
    const step = Math.max(1, Math.floor(2 / geometry.pxPerFrame));
    const near: { x: number; y: number }[] = [];
    const far: { x: number; y: number }[] = [];
    const add = (at: number, frame: number) => {
      const pane = shot.shown!(frame).panes[shot.pane];
      if (!pane || pane.own) return;
      const { source } = pane;
      const from = source[geometry.axis];
      const length = geometry.axis === "x" ? source.width : source.height;
      near.push(toPoint(geometry, from, at));
      far.push(toPoint(geometry, from + length, at));
    };
    for (let frame = start; frame < end; frame += step) add(frame, frame);
    add(end, end - 1);
    context.beginPath();
    [...near, ...far.reverse()].forEach(({ x, y }, i) => (i === 0 ? context.moveTo(x, y) : context.lineTo(x, y)));
    context.closePath();
    context.fillStyle = theme.wash;
    context.fill();
    context.strokeStyle = theme.accent;
    context.lineWidth = 1;
    context.stroke();
    context.fillStyle = theme.accent;
    for (const key of shot.handKeys) {
      const { x, y } = toPoint(geometry, key[geometry.axis], key.frame);
      context.fillRect(x - KEY / 2, y - KEY / 2, KEY, KEY);
    }
  };
  return <Shape sceneFunc={paint} listening={false} />;
}
