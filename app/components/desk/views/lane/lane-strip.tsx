import type Konva from "konva";
import { useRef } from "react";
import { Group, Rect } from "react-konva";
import { clamped } from "~/core/numbers/clamped";
import { type FrameRange, rangeKey } from "~/core/time/rate";
import { clipRanges } from "~/core/time/ranges";
import { boxAlong, frameUnder } from "./along-lane";
import type { AlongLane } from "./lane-trim";
import type { CanvasTheme } from "../../hooks/use-theme";

/** Canvas pixels across the strip. */
export const STRIP = 18;
const BAR = 6;

interface LaneStripProps extends AlongLane {
  /** The marked range. */
  range: FrameRange | null;
  onRange: (range: FrameRange | null) => void;
}

/** A strip along the lane: a bar where the version shows the film. A drag along it marks a range. */
export function LaneStrip(props: LaneStripProps) {
  const { kept, range, frames, axis, size, pxPerFrame, drawn, theme, onRange } = props;
  const from = useRef<number | null>(null);
  const edge = (axis === "x" ? size.width : size.height) - STRIP;
  const along = { axis, pxPerFrame };
  const place = (range: FrameRange, inset: number, width: number) => boxAlong(along, range, edge + inset, width);
  const frameAt = (event: Konva.KonvaEventObject<PointerEvent>) =>
    clamped(Math.round(frameUnder(along, event)), 0, frames);
  const film = clipRanges([{ start: 0, end: frames }], drawn);
  return (
    <Group>
      {film.map((range) => (
        <Rect
          key="strip"
          {...place(range, 0, STRIP)}
          fill={theme.panel}
          onPointerEnter={({ target }) => (target.getStage()!.container().style.cursor = "crosshair")}
          onPointerLeave={({ target }) => (target.getStage()!.container().style.cursor = "default")}
          onPointerDown={(event) => {
            if (event.evt.button !== 0) return;
            event.target.setPointerCapture(event.evt.pointerId);
            from.current = frameAt(event);
            onRange(null);
          }}
          onPointerMove={(event) => {
            if (from.current === null) return;
            const to = frameAt(event);
            if (to !== from.current) {
              onRange({ start: Math.min(from.current, to), end: Math.max(from.current, to) });
            }
          }}
          onPointerUp={(event) => {
            event.target.releaseCapture(event.evt.pointerId);
            from.current = null;
          }}
        />
      ))}
      {clipRanges(kept, drawn).map((range) => (
        <Rect key={rangeKey(range)} {...place(range, (STRIP - BAR) / 2, BAR)} fill={theme.soft} listening={false} />
      ))}
      {range && <Range place={place(range, 0, STRIP)} axis={axis} edge={edge} theme={theme} />}
    </Group>
  );
}

interface RangeProps {
  place: { x: number; y: number; width: number; height: number };
  axis: "x" | "y";
  edge: number;
  theme: CanvasTheme;
}

/** The marked range, across the lane and its strip. */
function Range({ place, axis, edge, theme }: RangeProps) {
  const across = axis === "x" ? { x: 0, width: edge + STRIP } : { y: 0, height: edge + STRIP };
  return (
    <>
      <Rect {...place} {...across} fill={theme.wash} listening={false} />
      <Rect {...place} {...across} stroke={theme.accent} strokeWidth={1} dash={[4, 3]} listening={false} />
      <Rect {...place} fill={theme.accent} opacity={0.6} listening={false} />
    </>
  );
}
