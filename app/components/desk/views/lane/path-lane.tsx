import type Konva from "konva";
import { memo, useCallback, useEffect, useMemo, useRef } from "react";
import { Group, Layer, Line, Rect, Stage, Text } from "react-konva";
import type { Point, Size } from "~/core/geometry/box";
import type { CropWindow } from "~/core/geometry/crop-window";
import type { Trim } from "~/core/version/trim";
import type { HandKey } from "~/core/path/hand-key";
import type { Key } from "~/core/path/keys";
import { type FrameRange, framesPerSecond } from "~/core/time/rate";
import { type Clock, timecodeAt } from "~/core/time/timecode";
import type { DeskShot } from "../../model/desk-types";
import type { KeyCommands } from "../../model/key-commands";
import type { SelectedKeys } from "../../model/selected-keys";
import { drawnMiddle, framesAround, fromPoint, type LaneGeometry, type LanePlace, NOW_SHARE } from "./lane-geometry";
import { LaneKeys } from "./lane-keys";
import { LaneBand } from "./lane-band";
import { CAPTIONS, type CaptionsInLane, LaneCaptions } from "./lane-captions";
import { FAR_PX_PER_FRAME, LaneFar } from "./lane-far";
import { LaneFlags } from "./lane-flags";
import { LaneMap, MAP } from "./lane-map";
import { LaneSpeed, SPEED } from "./lane-speed";
import { LaneStrip, STRIP } from "./lane-strip";
import { LaneTracks } from "./lane-tracks";
import { LaneTrim } from "./lane-trim";
import { LaneSwitches } from "./lane-switches";
import { LaneWaveform, WAVEFORM } from "./lane-waveform";
import { useRubberBand } from "./use-rubber-band";
import type { Player } from "../../model/player";
import { useOfFrame, useOnFrame } from "../../hooks/use-player";
import { type CanvasTheme, useTheme } from "../../hooks/use-theme";
import { laneTexts } from "~/texts/lane";

const t = laneTexts.pathLane;

export interface LaneProps {
  player: Player | null;
  shots: readonly DeskShot[];
  /** Size of the canvas. */
  size: Size;
  axis: "x" | "y";
  /** Start of the picture on the shared axis, and canvas pixels per source pixel. */
  origin: number;
  scale: number;
  pxPerFrame: number;
  clock: Clock;
  frames: number;
  /** The ranges shown, with the in and out points. */
  kept: readonly FrameRange[];
  trim: Trim;
  /** Loudness of each frame; null without sound. */
  waveform: Uint8Array | null;
  selectedKeys: SelectedKeys;
  /** Aspect ratio of the version's window, width over height. */
  aspect: number;
  /** Called when the easing of a hand key was changed. */
  onEase: KeyCommands["ease"];
  /** Called when a switch of a shot, by its number, was moved to another frame. */
  onMoveSwitch: (shot: DeskShot, index: number, frame: number) => void;
  /** The captions while they are edited; null otherwise. */
  captions: CaptionsInLane | null;
  /** The marked range. */
  range: FrameRange | null;
  onRange: (range: FrameRange | null) => void;
  onZoom: (factor: number) => void;
  /** Called when a key was placed; `fromFrame` is its frame before. */
  onPlace: (frame: number, window: CropWindow, fromFrame: number | null) => void;
  /** Called while a key is dragged. */
  onPreview: (frame: number, window: CropWindow, fromFrame: number | null) => void;
  /** Called when a drag was given up; the path is as before. */
  onGiveUp: () => void;
}

/** The frames that are drawn around the playhead. */
function useDrawn(player: Player | null, room: number, pxPerFrame: number): FrameRange {
  const middle = useOfFrame(player, (frame) => drawnMiddle(frame, room, pxPerFrame));
  return useMemo(() => framesAround(middle, room, pxPerFrame), [middle, room, pxPerFrame]);
}

/** The path of the window over time, on the picture's own axis. */
export default function PathLane(props: LaneProps) {
  const { player, shots, frames, kept, size, axis, origin, scale, pxPerFrame, selectedKeys, onZoom } = props;
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
          <LaneContent {...props} geometry={geometry} drawn={drawn} theme={theme} />
        </Group>
        <NowLine axis={axis} size={size} now={now} theme={theme} />
        {axis === "x" && <LaneMap {...{ player, shots, frames, kept, pxPerFrame, theme }} height={size.height} />}
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

interface ContentProps extends LaneProps {
  geometry: LaneGeometry;
  drawn: { start: number; end: number };
  theme: CanvasTheme;
}

/** Everything that scrolls: cuts, tracks, bands and keys of the shots near the playhead. */
function LaneContent({ shots, ...props }: ContentProps) {
  const { player, drawn, geometry, axis, size, pxPerFrame, theme, frames, kept, trim, range, onRange, waveform } =
    props;
  const { clock, aspect, onEase, captions } = props;
  const along = { axis, size, pxPerFrame, drawn, theme, frames, kept };
  const visible = shots.filter((shot) => shot.end > drawn.start && shot.start < drawn.end);
  const isFar = pxPerFrame < FAR_PX_PER_FRAME;
  const seek = (frame: number) => {
    player?.pause();
    player?.seek(frame);
  };
  return (
    <>
      {isFar && <LaneFar {...{ geometry, drawn, size, theme }} shots={visible} />}
      {!isFar && visible.map((shot) => <LaneShot key={shot.id} shot={shot} {...props} />)}
      <LaneTrim {...along} inPoint={trim.in} outPoint={trim.out} />
      {!isFar && visible.map((shot) => <LaneShotKeys key={shot.id} shot={shot} onSeek={seek} {...props} />)}
      {axis === "x" &&
        !isFar &&
        visible.map((shot) => <LaneFlags key={shot.id} {...{ shot, pxPerFrame, theme }} onSeek={seek} />)}
      {axis === "x" &&
        !isFar &&
        visible.map((shot) => (
          <LaneSwitches
            key={shot.id}
            {...{ shot, pxPerFrame, theme }}
            width={size.width}
            onMove={props.onMoveSwitch}
            onSeek={seek}
          />
        ))}
      {axis === "x" &&
        !isFar &&
        !captions &&
        visible.map((shot) => (
          <LaneSpeed
            key={shot.id}
            {...{ shot, pxPerFrame, drawn, theme, aspect, onEase }}
            fps={framesPerSecond(clock.rate)}
            left={size.width - STRIP - (waveform ? WAVEFORM : 0) - SPEED}
          />
        ))}
      {waveform && <LaneWaveform {...{ waveform, axis, size, pxPerFrame, drawn, theme }} />}
      {captions && (
        <LaneCaptions
          {...along}
          lane={captions}
          left={(axis === "x" ? size.width : size.height) - STRIP - (waveform ? WAVEFORM : 0) - CAPTIONS}
        />
      )}
      <LaneStrip {...along} range={range} onRange={onRange} />
    </>
  );
}

type LaneShotProps = Omit<ContentProps, "shots"> & { shot: DeskShot };

/** One shot's tracks, band and cut, drawn again only when something in it has changed. */
const LaneShot = memo(function LaneShot({ shot, geometry, drawn, theme, size, clock }: LaneShotProps) {
  return (
    <Group>
      <LaneTracks shot={shot} geometry={geometry} drawn={drawn} />
      <LaneBand shot={shot} geometry={geometry} drawn={drawn} theme={theme} />
      <CutRule shot={shot} size={size} geometry={geometry} theme={theme} clock={clock} />
    </Group>
  );
});

/** One shot's keys, above everything else. */
const LaneShotKeys = memo(function LaneShotKeys(props: LaneShotProps & { onSeek: (frame: number) => void }) {
  const { shot, geometry, theme, onPlace, onPreview, onGiveUp, onSeek, selectedKeys } = props;
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
        isOneOfMany(key) ? moveAll(selectedKeys.previewMove, key, point) : onPreview(...moved(key, point))
      }
      onGiveUp={() => {
        selectedKeys.giveUpMove();
        onGiveUp();
      }}
      onDrop={(key, point) =>
        isOneOfMany(key) ? moveAll(selectedKeys.move, key, point) : onPlace(...moved(key, point))
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
