import type Konva from "konva";
import { useRef } from "react";
import { Group, Rect, Text } from "react-konva";
import type { Caption } from "~/core/captions/caption";
import type { CaptionGrip } from "~/core/captions/edit-captions";
import { type FrameRange, rangeLength } from "~/core/time/rate";
import { clipRanges } from "~/core/time/ranges";
import type { CaptionCommands } from "../../model/caption-commands";
import { boxAlong, frameUnder } from "./along-lane";
import type { AlongLane } from "./lane-trim";

/** Canvas pixels across the captions. */
export const CAPTIONS = 160;
/** Pixels within which an end is gripped, and within which it snaps. */
const END_REACH = 6;
const SNAP_REACH = 7;
/** Length in pixels below which a caption has no room for its text. */
const LEAST_LABELLED = 14;

/** The film's captions in the lane, while they are edited. */
export interface CaptionsInLane extends Pick<CaptionCommands, "select" | "dragged" | "preview" | "put"> {
  captions: readonly Caption[];
  selected: Caption | null;
  speech: readonly FrameRange[];
  onSeek: (frame: number) => void;
}

interface LaneCaptionsProps extends AlongLane {
  /** Their offset across the lane, in canvas pixels. */
  left: number;
  lane: CaptionsInLane;
}

/**
 * Captions along the lane's time, beside the speech segments, dragged as a whole or by an end. They snap to cuts and to
 * borders of speech, unless Ctrl is held.
 */
export function LaneCaptions({ left, lane, axis, pxPerFrame, drawn, frames, theme }: LaneCaptionsProps) {
  const { captions, selected, speech, select, dragged, preview, put, onSeek } = lane;
  const held = useRef<{ caption: Caption; grip: CaptionGrip; from: number; moved: Caption | null } | null>(null);
  const along = { axis, pxPerFrame };
  const place = (range: FrameRange, inset: number, width: number) => boxAlong(along, range, left + inset, width);
  const frameAt = (event: Konva.KonvaEventObject<PointerEvent>) => frameUnder(along, event);
  const gripAt = (caption: Caption, frame: number): CaptionGrip => {
    const reach = Math.min(END_REACH / pxPerFrame, rangeLength(caption) / 3);
    if (frame - caption.start <= reach) return "start";
    return caption.end - frame <= reach ? "end" : "whole";
  };
  const isReviewed = (range: FrameRange) => range.end > drawn.start && range.start < drawn.end;
  const onDown = (caption: Caption, event: Konva.KonvaEventObject<PointerEvent>) => {
    if (event.evt.button !== 0) return;
    event.cancelBubble = true;
    event.target.setPointerCapture(event.evt.pointerId);
    const from = frameAt(event);
    held.current = { caption, grip: gripAt(caption, from), from, moved: null };
  };
  const onMove = (caption: Caption, event: Konva.KonvaEventObject<PointerEvent>) => {
    const now = held.current;
    const resizing = axis === "x" ? "ns-resize" : "ew-resize";
    event.target.getStage()!.container().style.cursor =
      gripAt(caption, frameAt(event)) === "whole" && !now ? "grab" : now?.grip === "whole" ? "grabbing" : resizing;
    if (!now) return;
    const by = Math.round(frameAt(event) - now.from);
    const reach = event.evt.ctrlKey || event.evt.metaKey ? 0 : SNAP_REACH / pxPerFrame;
    now.moved = by === 0 && !now.moved ? null : dragged(now.caption, now.grip, by, reach);
    if (now.moved) preview([now.moved]);
  };
  const onUp = (event: Konva.KonvaEventObject<PointerEvent>) => {
    const now = held.current;
    held.current = null;
    if (!now) return;
    event.target.releaseCapture(event.evt.pointerId);
    select(now.caption.id);
    const { moved, caption } = now;
    if (!moved) return onSeek(caption.start);
    if (moved.start === caption.start && moved.end === caption.end) return preview(null);
    put([moved], now.grip === "whole" ? "moved" : "changed");
  };
  return (
    <Group>
      {clipRanges([{ start: 0, end: frames }], drawn).map((range) => (
        <Rect key="ground" {...place(range, 0, CAPTIONS)} fill={theme.ground} opacity={0.85} listening={false} />
      ))}
      {speech.filter(isReviewed).map((segment) => (
        <Rect key={segment.start} {...place(segment, CAPTIONS - 5, 4)} fill={theme.soft} listening={false} />
      ))}
      {captions.filter(isReviewed).map((caption) => {
        const box = place(caption, 4, CAPTIONS - 12);
        const isSelected = caption.id === selected?.id;
        return (
          <Group key={caption.id}>
            <Rect
              {...box}
              cornerRadius={3}
              fill={isSelected ? theme.wash : theme.panel}
              stroke={isSelected ? theme.accent : theme.soft}
              strokeWidth={isSelected ? 1.5 : 1}
              onPointerDown={(event) => onDown(caption, event)}
              onPointerMove={(event) => onMove(caption, event)}
              onPointerUp={onUp}
              onPointerLeave={({ target }) => (target.getStage()!.container().style.cursor = "default")}
            />
            {Math.min(box.width, box.height) >= LEAST_LABELLED && (
              <Text
                x={box.x + 5}
                y={box.y + 3}
                width={box.width - 10}
                height={box.height - 4}
                text={caption.text.replaceAll("\n", " ")}
                ellipsis
                fontSize={12}
                fontFamily="Inter Variable, sans-serif"
                fill={theme.ink}
                listening={false}
              />
            )}
          </Group>
        );
      })}
    </Group>
  );
}
