import { Line } from "react-konva";
import type { Box } from "~/core/geometry/box";
import type { DeskShot } from "../state/desk-types";
import { type LaneGeometry, toPoint } from "./lane-geometry";
import type { CanvasTheme } from "./use-theme";

interface LaneRibbonProps {
  shot: DeskShot;
  geometry: LaneGeometry;
  drawn: { start: number; end: number };
  theme: CanvasTheme;
}

/** What a shot's panes show over time: of each its extent, its two edges, and its centre line. */
export function LaneRibbon({ shot, geometry, drawn, theme }: LaneRibbonProps) {
  if (!shot.shown) return null;
  const { shown } = shot;
  return shown(shot.start).panes.map(({ own }, i) => {
    if (own) return null;
    return (
      <PaneRibbon
        key={i}
        sourceAt={(frame) => shown(frame).panes[i]!.source}
        range={{ start: Math.max(shot.start, drawn.start), end: Math.min(shot.end, drawn.end) }}
        geometry={geometry}
        theme={theme}
        isChosen={i === shot.pane}
      />
    );
  });
}

interface PaneRibbonProps extends Pick<LaneRibbonProps, "geometry" | "theme"> {
  sourceAt: (frame: number) => Box;
  range: { start: number; end: number };
  /** The others are outlines only. */
  isChosen: boolean;
}

function PaneRibbon({ sourceAt, range: { start, end }, geometry, theme, isChosen }: PaneRibbonProps) {
  // A point every second canvas pixel is as fine as can be seen.
  const step = Math.max(1, Math.floor(2 / geometry.pxPerFrame));
  const near: number[] = [];
  const far: number[] = [];
  const centre: number[] = [];
  const add = (frame: number, source: Box) => {
    const from = source[geometry.axis];
    const length = geometry.axis === "x" ? source.width : source.height;
    const put = (points: number[], position: number) => {
      const { x, y } = toPoint(geometry, position, frame);
      points.push(x, y);
    };
    put(near, from);
    put(far, from + length);
    put(centre, from + length / 2);
  };
  for (let frame = start; frame < end; frame += step) add(frame, sourceAt(frame));
  // The last one holds until the cut.
  add(end, sourceAt(end - 1));
  const back: number[] = [];
  for (let i = far.length - 2; i >= 0; i -= 2) back.push(far[i]!, far[i + 1]!);
  if (!isChosen) {
    return [near, far].map((points, i) => (
      <Line key={i} points={points} stroke={theme.soft} strokeWidth={1} dash={[4, 3]} listening={false} />
    ));
  }
  return (
    <>
      <Line points={[...near, ...back]} closed fill={theme.wash} listening={false} />
      <Line points={near} stroke={theme.accent} strokeWidth={1.5} listening={false} />
      <Line points={far} stroke={theme.accent} strokeWidth={1.5} listening={false} />
      <Line points={centre} stroke={theme.accent} strokeWidth={1} opacity={0.8} listening={false} />
    </>
  );
}
