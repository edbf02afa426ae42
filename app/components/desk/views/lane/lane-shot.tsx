import { memo } from "react";
import { Group, Rect, Text } from "react-konva";
import type { Point, Size } from "~/core/geometry/box";
import type { Key } from "~/core/path/keys";
import { type Clock, timecodeAt } from "~/core/time/timecode";
import { laneTexts } from "~/texts/lane";
import { useDesk } from "../../hooks/use-desk";
import type { CanvasTheme } from "../../hooks/use-theme";
import type { DeskShot } from "../../model/desk-types";
import type { SelectedKeys } from "../../model/selected-keys";
import { LaneBand } from "./lane-band";
import { fromPoint, type LaneGeometry } from "./lane-geometry";
import { LaneKeys } from "./lane-keys";
import { MAP } from "./lane-map";
import { LaneTracks } from "./lane-tracks";

const t = laneTexts.pathLane;

interface LaneShotProps {
  shot: DeskShot;
  geometry: LaneGeometry;
  drawn: { start: number; end: number };
  size: Size;
  clock: Clock;
  theme: CanvasTheme;
}

/** One shot's tracks, band and cut, drawn again only when something in it has changed. */
export const LaneShot = memo(function LaneShot({ shot, geometry, drawn, theme, size, clock }: LaneShotProps) {
  return (
    <Group>
      <LaneTracks shot={shot} geometry={geometry} drawn={drawn} />
      <LaneBand shot={shot} geometry={geometry} drawn={drawn} theme={theme} />
      <CutRule shot={shot} size={size} geometry={geometry} theme={theme} clock={clock} />
    </Group>
  );
});

interface LaneShotKeysProps extends Pick<LaneShotProps, "shot" | "geometry" | "theme"> {
  onSeek: (frame: number) => void;
}

/** One shot's keys, above everything else. */
export const LaneShotKeys = memo(function LaneShotKeys({ shot, geometry, theme, onSeek }: LaneShotKeysProps) {
  const { keyCommands, selectedKeys } = useDesk("keyCommands", "selectedKeys");
  /** The window of a key dragged to a point; the axis that the lane does not show stays. */
  const moved = (key: Key, point: Point) => {
    const { value, frame } = fromPoint(geometry, point);
    const { x, y, height } = key;
    const at = Math.max(shot.start, Math.min(shot.end - 1, frame));
    return [at, { x, y, height, [geometry.axis]: value }, key.by === "hand" ? key.frame : null] as const;
  };
  /** A selected key takes the other selected ones along. */
  const isOneOfMany = ({ by, frame }: Key) =>
    by === "hand" && selectedKeys.frames.size > 1 && selectedKeys.frames.has(frame);
  const moveAll = (move: SelectedKeys["move"], key: Key, point: Point) => {
    const { value, frame } = fromPoint(geometry, point);
    move(frame - key.frame, { x: 0, y: 0, [geometry.axis]: value - key[geometry.axis] });
  };
  return (
    <LaneKeys
      shot={shot}
      geometry={geometry}
      theme={theme}
      selected={selectedKeys.frames}
      onToggle={selectedKeys.toggle}
      onSeek={onSeek}
      onDrag={(key, point) =>
        isOneOfMany(key) ? moveAll(selectedKeys.previewMove, key, point) : keyCommands.preview(...moved(key, point))
      }
      onGiveUp={() => {
        selectedKeys.giveUpMove();
        keyCommands.preview(0, null);
      }}
      onDrop={(key, point) =>
        isOneOfMany(key) ? moveAll(selectedKeys.move, key, point) : keyCommands.place(...moved(key, point))
      }
    />
  );
});

/** The start of a shot, with its number and timecode. */
function CutRule({
  shot,
  size,
  geometry,
  theme,
  clock,
}: {
  shot: DeskShot;
  size: Size;
  geometry: LaneGeometry;
  theme: CanvasTheme;
  clock: Clock;
}) {
  const at = shot.start * geometry.pxPerFrame;
  const label = `${shot.number}  ${timecodeAt(shot.start, clock)}${shot.isAnalysed ? "" : t.notAnalysedYet}`;
  const font = { fontSize: 12, fontFamily: "JetBrains Mono Variable, monospace", fill: theme.soft };
  return geometry.axis === "x" ? (
    <Group listening={false}>
      <Rect x={0} y={at} width={size.width} height={1} fill={theme.soft} />
      <Text x={MAP + 12} y={at + 4} text={label} {...font} />
    </Group>
  ) : (
    <Group listening={false}>
      <Rect x={at} y={0} width={1} height={size.height} fill={theme.soft} />
      <Text x={at + 5} y={4} text={String(shot.number)} {...font} />
    </Group>
  );
}
