import { Group, Line, Rect, Text } from "react-konva";
import type { Size } from "~/core/geometry/box";
import { type FrameRange, rangeKey } from "~/core/time/rate";
import { clipRanges, withoutRanges } from "~/core/time/ranges";
import type { CanvasTheme } from "../../hooks/use-theme";
import { laneTexts } from "~/texts/lane";

const t = laneTexts.laneTrim;

/** What everything drawn along a lane has in common. */
export interface AlongLane {
  /** The ranges shown. */
  kept: readonly FrameRange[];
  /** Length of the film. */
  frames: number;
  axis: "x" | "y";
  /** Size of the canvas. */
  size: Size;
  pxPerFrame: number;
  /** The range of frames that is drawn. */
  drawn: FrameRange;
  theme: CanvasTheme;
}

interface LaneTrimProps extends AlongLane {
  inPoint: number | null;
  outPoint: number | null;
}

const LABEL_SIZE = 12;
/** Length in canvas pixels below which a range has no room for a label. */
const LEAST_LABELLED = 22;

/** Shading of the ranges left out, and the in and out points. */
export function LaneTrim(props: LaneTrimProps) {
  const { kept, inPoint, outPoint, frames, axis, size, pxPerFrame, drawn, theme } = props;
  const film = { start: 0, end: frames };
  const gone = clipRanges(withoutRanges([film], kept), drawn);
  const across = axis === "x" ? size.width : size.height;
  const place = (at: number, length: number) =>
    axis === "x" ? { x: 0, y: at, width: across, height: length } : { x: at, y: 0, width: length, height: across };
  const labelOf = ({ start, end }: FrameRange) => {
    if (inPoint !== null && end <= inPoint) return t.beforeTheInPoint;
    return outPoint !== null && start >= outPoint ? t.afterTheOutPoint : t.leftOut;
  };
  return (
    <Group listening={false}>
      {gone.map((range) => {
        const at = range.start * pxPerFrame;
        const length = (range.end - range.start) * pxPerFrame;
        return (
          <Group key={rangeKey(range)}>
            <Rect {...place(at, length)} fill={theme.ground} opacity={0.82} />
            {axis === "x" && length >= LEAST_LABELLED && (
              <Text
                x={0}
                y={at + Math.min(length - LABEL_SIZE - 4, 20)}
                width={across}
                align="center"
                text={labelOf(range)}
                fontSize={LABEL_SIZE}
                fontFamily="Inter Variable, sans-serif"
                fill={theme.soft}
              />
            )}
          </Group>
        );
      })}
      {[inPoint, outPoint].map((point, i) => {
        if (point === null) return null;
        const at = point * pxPerFrame;
        return (
          <Line
            key={i}
            points={axis === "x" ? [0, at, across, at] : [at, 0, at, across]}
            stroke={theme.accent}
            strokeWidth={2}
          />
        );
      })}
    </Group>
  );
}
