import type Konva from "konva";
import { Shape } from "react-konva";
import type { Size } from "~/core/geometry/box";
import type { FrameRange } from "~/core/time/rate";
import type { DeskShot } from "../../model/desk-types";
import { type LaneGeometry, toPoint } from "./lane-geometry";
import { bandEdges, bandOutline } from "./band-edges";
import type { CanvasTheme } from "../../hooks/use-theme";

/** Below this many canvas pixels per frame the lane is simplified: keys and tracks would be too dense. */
export const FAR_PX_PER_FRAME = 0.2;
const KEY = 3;

interface LaneFarProps {
  shots: readonly DeskShot[];
  geometry: LaneGeometry;
  drawn: FrameRange;
  size: Size;
  theme: CanvasTheme;
}

/** Many shots at once: bands, cuts and hand keys. */
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
    const { shown, pane } = shot;
    if (!shown || shown(shot.start).panes[pane]?.own) return;
    const outline = bandOutline(bandEdges((frame) => shown(frame).panes[pane]!.source, { start, end }, geometry));
    context.beginPath();
    for (let i = 0; i < outline.length; i += 2) {
      if (i === 0) context.moveTo(outline[0]!, outline[1]!);
      else context.lineTo(outline[i]!, outline[i + 1]!);
    }
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
