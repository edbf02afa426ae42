import { Group, Line, Rect, Text } from "react-konva";
import type { FollowedSpan } from "~/core/path/shot-framing";
import { type DeskShot, subjectColour } from "../../model/desk-types";
import { MAP } from "./lane-map";
import type { CanvasTheme } from "../../hooks/use-theme";

const LABEL = 18;
/** To the right of the flags. */
const LEFT = MAP + 16;

interface LaneSwitchesProps {
  shot: DeskShot;
  /** Width of the lane, in canvas pixels. */
  width: number;
  pxPerFrame: number;
  theme: CanvasTheme;
  onMove: (shot: DeskShot, index: number, frame: number) => void;
  onSeek: (frame: number) => void;
}

/** The switches of a shot: a line across the lane at each, with the letters of its targets. */
export const LaneSwitches = ({ shot, ...props }: LaneSwitchesProps) => (
  <Group>
    {(shot.framed?.spans ?? []).slice(1).map((span, i) => (
      <LaneSwitch key={span.start} shot={shot} span={span} index={i + 1} {...props} />
    ))}
  </Group>
);

/** One switch, dragged along the time. */
function LaneSwitch(props: LaneSwitchesProps & { span: FollowedSpan; index: number }) {
  const { shot, span, index, width, pxPerFrame, theme, onMove, onSeek } = props;
  const at = span.start * pxPerFrame;
  const members = span.trackIds.flatMap((id) => shot.cast.find(({ track }) => track.id === id) ?? []);
  const [colour] = members.map((member) => subjectColour(member.colour));
  const chip = Math.max(LABEL, 10 * members.length + 8);
  return (
    <Group
      y={at}
      draggable
      dragBoundFunc={({ y }) => ({ x: 0, y })}
      onMouseEnter={({ target }) => (target.getStage()!.container().style.cursor = "ns-resize")}
      onMouseLeave={({ target }) => (target.getStage()!.container().style.cursor = "default")}
      onClick={() => onSeek(span.start)}
      onTap={() => onSeek(span.start)}
      onDragEnd={({ target }) => {
        const frame = Math.round(target.y() / pxPerFrame);
        // Its drawn place follows from the result.
        target.position({ x: 0, y: at });
        onMove(shot, index, frame);
      }}
    >
      <Line points={[LEFT, 0, width, 0]} stroke={theme.accent} strokeWidth={1} dash={[6, 4]} hitStrokeWidth={8} />
      <Rect x={LEFT} y={-LABEL / 2} width={chip} height={LABEL} cornerRadius={3} fill={colour ?? theme.soft} />
      <Text
        x={LEFT}
        y={-LABEL / 2 + 3}
        width={chip}
        align="center"
        text={members.map(({ letter }) => letter).join("")}
        fontSize={12}
        fontStyle="bold"
        fontFamily="Inter Variable, sans-serif"
        fill="#000"
      />
    </Group>
  );
}
