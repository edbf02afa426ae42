import { Line } from "react-konva";
import type { Box } from "~/core/geometry/box";
import type { DeskShot } from "../../model/desk-types";
import type { LaneGeometry } from "./lane-geometry";
import { bandEdges, bandOutline } from "./band-edges";
import type { CanvasTheme } from "../../hooks/use-theme";

interface LaneBandProps {
  shot: DeskShot;
  geometry: LaneGeometry;
  drawn: { start: number; end: number };
  theme: CanvasTheme;
}

/** A shot's panes over time: extent, edges, and centre line of each. */
export function LaneBand({ shot, geometry, drawn, theme }: LaneBandProps) {
  if (!shot.shown) return null;
  const { shown } = shot;
  return shown(shot.start).panes.map(({ own }, i) => {
    if (own) return null;
    return (
      <PaneBand
        key={i}
        sourceAt={(frame) => shown(frame).panes[i]!.source}
        range={{ start: Math.max(shot.start, drawn.start), end: Math.min(shot.end, drawn.end) }}
        geometry={geometry}
        theme={theme}
        isSelected={i === shot.pane}
      />
    );
  });
}

interface PaneBandProps extends Pick<LaneBandProps, "geometry" | "theme"> {
  sourceAt: (frame: number) => Box;
  range: { start: number; end: number };
  /** The other panes are outlines only. */
  isSelected: boolean;
}

function PaneBand({ sourceAt, range, geometry, theme, isSelected }: PaneBandProps) {
  const { near, far, centre } = bandEdges(sourceAt, range, geometry);
  if (!isSelected) {
    return [near, far].map((points, i) => (
      <Line key={i} points={points} stroke={theme.soft} strokeWidth={1} dash={[4, 3]} listening={false} />
    ));
  }
  return (
    <>
      <Line points={bandOutline({ near, far })} closed fill={theme.wash} listening={false} />
      <Line points={near} stroke={theme.accent} strokeWidth={1.5} listening={false} />
      <Line points={far} stroke={theme.accent} strokeWidth={1.5} listening={false} />
      <Line points={centre} stroke={theme.accent} strokeWidth={1} opacity={0.8} listening={false} />
    </>
  );
}
