import { Line } from "react-konva";
import type { CropWindow } from "~/core/geometry/crop-window";
import type { DeskShot } from "../state/desk-types";
import { type LaneGeometry, toPoint } from "./lane-geometry";
import type { CanvasTheme } from "./use-theme";

interface LaneRibbonProps {
  shot: DeskShot;
  geometry: LaneGeometry;
  drawn: { start: number; end: number };
  theme: CanvasTheme;
  /** The window's length on the lane's axis beside its height. */
  lengthOfHeight: number;
}

/** The window's extent over time, its two edges, and its centre line. */
export function LaneRibbon({ shot, geometry, drawn, theme, lengthOfHeight }: LaneRibbonProps) {
  if (!shot.framed) return null;
  const { windows } = shot.framed;
  const start = Math.max(shot.start, drawn.start);
  const end = Math.min(shot.end, drawn.end);
  // A point every second canvas pixel is as fine as can be seen.
  const step = Math.max(1, Math.floor(2 / geometry.pxPerFrame));
  const near: number[] = [];
  const far: number[] = [];
  const centre: number[] = [];
  const add = (frame: number, window: CropWindow) => {
    const value = window[geometry.axis];
    const half = (window.height * lengthOfHeight) / 2;
    const put = (points: number[], position: number) => {
      const { x, y } = toPoint(geometry, position, frame);
      points.push(x, y);
    };
    put(near, value - half);
    put(far, value + half);
    put(centre, value);
  };
  for (let frame = start; frame < end; frame += step) add(frame, windows[frame - shot.start]!);
  // The last window holds until the cut.
  add(end, windows[end - 1 - shot.start]!);
  const back: number[] = [];
  for (let i = far.length - 2; i >= 0; i -= 2) back.push(far[i]!, far[i + 1]!);
  return (
    <>
      <Line points={[...near, ...back]} closed fill={theme.wash} listening={false} />
      <Line points={near} stroke={theme.accent} strokeWidth={1.5} listening={false} />
      <Line points={far} stroke={theme.accent} strokeWidth={1.5} listening={false} />
      <Line points={centre} stroke={theme.accent} strokeWidth={1} opacity={0.8} listening={false} />
    </>
  );
}
