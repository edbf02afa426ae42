import type Konva from "konva";
import { useCallback, useEffect, useRef } from "react";
import { Group, Rect, Shape } from "react-konva";
import { markedRange } from "~/core/checks/flag";
import type { FrameRange } from "~/core/time/rate";
import { withoutRanges } from "~/core/time/ranges";
import type { Player } from "../../model/player";
import { useOnFrame } from "../../hooks/use-player";
import type { DeskShot } from "../../model/desk-types";
import { NOW_SHARE } from "./lane-geometry";
import type { CanvasTheme } from "../../hooks/use-theme";

/** Canvas pixels across the map, and around it. */
export const MAP = 14;
/** Height of a flag's mark. */
const MARK = 2;

interface LaneMapProps {
  player: Player | null;
  shots: readonly DeskShot[];
  frames: number;
  /** The ranges shown. */
  kept: readonly FrameRange[];
  /** Height of the lane, in canvas pixels. */
  height: number;
  pxPerFrame: number;
  theme: CanvasTheme;
}

/** The whole film at a glance: shots, ranges left out, flags, and the part in view. A press or a drag seeks there. */
export function LaneMap({ player, shots, frames, kept, height, pxPerFrame, theme }: LaneMapProps) {
  const view = useRef<Konva.Rect>(null);
  const scale = height / frames;
  const place = useCallback(
    (frame: number) => {
      const room = height / pxPerFrame;
      view.current?.y((frame - NOW_SHARE * room) * scale);
      view.current?.height(Math.max(4, room * scale));
    },
    [height, pxPerFrame, scale],
  );
  useOnFrame(player, place);
  useEffect(() => place(player?.getFrame() ?? 0), [place, player]);
  const paint = (context: Konva.Context) => {
    const bar = (colour: string, { start, end }: FrameRange, left: number, width: number, least = 0) => {
      context.fillStyle = colour;
      context.fillRect(left, start * scale, width, Math.max(least, (end - start) * scale));
    };
    bar(theme.panel, { start: 0, end: frames }, 0, MAP);
    shots.forEach((shot, i) => i % 2 === 1 && bar(theme.line, shot, 2, MAP - 4));
    for (const gone of withoutRanges([{ start: 0, end: frames }], kept)) bar(theme.ground, gone, 0, MAP);
    for (const { flags } of shots) {
      for (const flag of flags) if (!flag.isReviewed) bar(theme.warn, markedRange(flag), 0, MAP, MARK);
    }
  };
  const go = ({ target, evt }: Konva.KonvaEventObject<PointerEvent>) => {
    if (evt.buttons !== 1) return;
    const y = target.getStage()!.getPointerPosition()!.y;
    player?.pause();
    player?.seek(y / scale);
  };
  return (
    <Group>
      <Shape sceneFunc={paint} listening={false} />
      <Rect
        width={MAP}
        height={height}
        fill="transparent"
        onPointerDown={(event) => {
          event.target.setPointerCapture(event.evt.pointerId);
          go(event);
        }}
        onPointerMove={go}
        onPointerEnter={({ target }) => (target.getStage()!.container().style.cursor = "pointer")}
        onPointerLeave={({ target }) => (target.getStage()!.container().style.cursor = "default")}
      />
      <Rect ref={view} width={MAP} fill={theme.wash} stroke={theme.accent} strokeWidth={1} listening={false} />
    </Group>
  );
}
