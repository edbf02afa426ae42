import type Konva from "konva";
import { useCallback, useEffect, useMemo, useRef } from "react";
import { Group, Layer, Line, Rect, Stage } from "react-konva";
import type { Size } from "~/core/geometry/box";
import type { HandKey } from "~/core/path/hand-key";
import type { FrameRange } from "~/core/time/rate";
import { useDesk } from "../../hooks/use-desk";
import { useOfFrame, useOnFrame } from "../../hooks/use-player";
import { type CanvasTheme, useTheme } from "../../hooks/use-theme";
import type { Player } from "../../model/player";
import { LaneContent } from "./lane-content";
import { drawnMiddle, framesAround, fromPoint, type LaneGeometry, type LanePlace, NOW_SHARE } from "./lane-geometry";
import { LaneMap } from "./lane-map";
import { useRubberBand } from "./use-rubber-band";

interface PathLaneProps extends LaneGeometry {
  /** Size of the canvas. */
  size: Size;
  /** Loudness of each frame; null without sound. */
  waveform: Uint8Array | null;
  onZoom: (factor: number) => void;
}

/** The frames that are drawn around the playhead. */
function useDrawn(player: Player | null, room: number, pxPerFrame: number): FrameRange {
  const middle = useOfFrame(player, (frame) => drawnMiddle(frame, room, pxPerFrame));
  return useMemo(() => framesAround(middle, room, pxPerFrame), [middle, room, pxPerFrame]);
}

/** The path of the window over time, on the picture's own axis. */
export default function PathLane({ size, axis, origin, scale, pxPerFrame, waveform, onZoom }: PathLaneProps) {
  const { player, shots, film, kept, selectedKeys } = useDesk("player", "shots", "film", "kept", "selectedKeys");
  const theme = useTheme();
  const scrolled = useRef<Konva.Group>(null);
  const room = axis === "x" ? size.height : size.width;
  const now = Math.round(room * NOW_SHARE);
  const geometry = useMemo<LaneGeometry>(
    () => ({ axis, origin, scale, pxPerFrame }),
    [axis, origin, scale, pxPerFrame],
  );
  const drawn = useDrawn(player, room, pxPerFrame);

  const scroll = useCallback(
    (frame: number) => {
      scrolled.current?.[axis === "x" ? "y" : "x"](now - frame * pxPerFrame);
    },
    [axis, now, pxPerFrame],
  );
  useOnFrame(player, scroll);
  useEffect(() => scroll(player?.getFrame() ?? 0), [scroll, player, theme]);

  const wheel = ({ evt }: Konva.KonvaEventObject<WheelEvent>) => {
    evt.preventDefault();
    if (evt.ctrlKey || evt.metaKey) return onZoom(Math.exp(-evt.deltaY / 300));
    const by = (evt.deltaY + evt.deltaX) / pxPerFrame / 2;
    player?.step(Math.sign(by) * Math.max(1, Math.round(Math.abs(by))));
  };
  const band = useRubberBand((box, adds) => {
    const before = adds ? selectedKeys.frames : [];
    if (!box || !scrolled.current) return selectedKeys.select(before);
    const moved = scrolled.current.position();
    const [a, b] = [box, { x: box.x + box.width, y: box.y + box.height }].map(({ x, y }) =>
      fromPoint(geometry, { x: x - moved.x, y: y - moved.y }),
    ) as [LanePlace, LanePlace];
    const isIn = (key: HandKey) =>
      key.frame >= a.frame && key.frame <= b.frame && key[axis] >= a.value && key[axis] <= b.value;
    const inside = shots.flatMap(({ handKeys }) => handKeys.filter(isIn).map(({ frame }) => frame));
    selectedKeys.select([...before, ...inside]);
  });

  if (!theme || size.width === 0) return null;
  return (
    <Stage width={size.width} height={size.height} onWheel={wheel} {...band.handlers}>
      <Layer>
        <Group ref={scrolled}>
          <LaneContent geometry={geometry} drawn={drawn} size={size} theme={theme} waveform={waveform} />
        </Group>
        <NowLine axis={axis} size={size} now={now} theme={theme} />
        {axis === "x" && (
          <LaneMap {...{ player, shots, kept, pxPerFrame, theme }} frames={film.frames} height={size.height} />
        )}
        {band.box && <Rect {...band.box} stroke={theme.accent} dash={[4, 3]} fill={theme.wash} listening={false} />}
      </Layer>
    </Stage>
  );
}

/** The line at the playhead: the picture above shows this moment. */
function NowLine({ axis, size, now, theme }: { axis: "x" | "y"; size: Size; now: number; theme: CanvasTheme }) {
  const points = axis === "x" ? [0, now, size.width, now] : [now, 0, now, size.height];
  return <Line points={points} stroke={theme.ink} strokeWidth={1.5} dash={[2, 3]} listening={false} />;
}
