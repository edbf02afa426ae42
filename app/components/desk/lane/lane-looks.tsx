import { Group, RegularPolygon } from "react-konva";
import type { DeskShot } from "../state/desk-types";
import { MAP } from "./lane-map";
import type { CanvasTheme } from "./use-theme";

const RADIUS = 5;

interface LaneLooksProps {
  shot: DeskShot;
  pxPerFrame: number;
  theme: CanvasTheme;
  onSeek: (frame: number) => void;
}

/** A shot's second looks, as marks in the lane's margin: a press goes there. */
export const LaneLooks = ({ shot, pxPerFrame, theme, onSeek }: LaneLooksProps) => (
  <Group>
    {shot.looks.map(({ kind, frame }, i) => (
      <RegularPolygon
        key={`${kind} ${i}`}
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
    ))}
  </Group>
);
