import { Line } from "react-konva";
import type { Box } from "~/core/geometry/box";
import type { DeskShot } from "../state/desk-types";
import type { LaneGeometry } from "./lane-geometry";
import { ribbonEdges, ribbonOutline } from "./ribbon-edges";
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

function PaneRibbon({ sourceAt, range, geometry, theme, isChosen }: PaneRibbonProps) {
  const { near, far, centre } = ribbonEdges(sourceAt, range, geometry);
  if (!isChosen) {
    return [near, far].map((points, i) => (
      <Line key={i} points={points} stroke={theme.soft} strokeWidth={1} dash={[4, 3]} listening={false} />
    ));
  }
  return (
    <>
      <Line points={ribbonOutline({ near, far })} closed fill={theme.wash} listening={false} />
      <Line points={near} stroke={theme.accent} strokeWidth={1.5} listening={false} />
      <Line points={far} stroke={theme.accent} strokeWidth={1.5} listening={false} />
      <Line points={centre} stroke={theme.accent} strokeWidth={1} opacity={0.8} listening={false} />
    </>
  );
}
