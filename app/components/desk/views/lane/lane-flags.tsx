import { Group, Rect, RegularPolygon } from "react-konva";
import { markedRange } from "~/core/checks/flag";
import type { DeskShot } from "../../model/desk-types";
import { MAP } from "./lane-map";
import type { CanvasTheme } from "../../hooks/use-theme";

const RADIUS = 5;

interface LaneFlagsProps {
  shot: DeskShot;
  pxPerFrame: number;
  theme: CanvasTheme;
  onSeek: (frame: number) => void;
}

/** A shot's unreviewed flags as marks in the lane's margin, each as long as its range; a press seeks there. */
export const LaneFlags = ({ shot, pxPerFrame, theme, onSeek }: LaneFlagsProps) => (
  <Group>
    {shot.flags
      .filter(({ isReviewed }) => !isReviewed)
      .map((flag) => ({ ...flag, marked: markedRange(flag) }))
      .map(({ print, frame, marked }) => (
        <Group key={print}>
          <Rect
            x={MAP + RADIUS - 1}
            y={marked.start * pxPerFrame}
            width={2}
            height={(marked.end - marked.start) * pxPerFrame}
            fill={theme.warn}
            listening={false}
          />
          <RegularPolygon
            sides={3}
            rotation={90}
            radius={RADIUS}
            x={MAP + RADIUS}
            y={frame * pxPerFrame}
            fill={theme.warn}
            hitStrokeWidth={8}
            onClick={() => onSeek(frame)}
            onTap={() => onSeek(frame)}
            onMouseEnter={({ target }) => (target.getStage()!.container().style.cursor = "pointer")}
            onMouseLeave={({ target }) => (target.getStage()!.container().style.cursor = "default")}
          />
        </Group>
      ))}
  </Group>
);
