import { asSwitches, moveSwitch } from "~/core/subjects/attention/edit-switches";
import type { Size } from "~/core/geometry/box";
import { framesPerSecond } from "~/core/time/rate";
import { useDesk } from "../../hooks/use-desk";
import type { CanvasTheme } from "../../hooks/use-theme";
import type { DeskShot } from "../../model/desk-types";
import { CAPTIONS, type CaptionsInLane, LaneCaptions } from "./lane-captions";
import { FAR_PX_PER_FRAME, LaneFar } from "./lane-far";
import { LaneFlags } from "./lane-flags";
import type { LaneGeometry } from "./lane-geometry";
import { LaneShot, LaneShotKeys } from "./lane-shot";
import { LaneSpeed, SPEED } from "./lane-speed";
import { LaneStrip, STRIP } from "./lane-strip";
import { LaneSwitches } from "./lane-switches";
import { LaneTrim } from "./lane-trim";
import { LaneWaveform, WAVEFORM } from "./lane-waveform";

/** The film's captions while their panel is open; null otherwise. */
function useCaptionsInLane(): CaptionsInLane | null {
  const { panel, state, speech, player, captionCommands } = useDesk(
    "panel",
    "state",
    "speech",
    "player",
    "captionCommands",
  );
  if (panel !== "captions" || state.captions.length === 0) return null;
  const { selected, select, dragged, preview, put } = captionCommands;
  const onSeek = (frame: number) => player?.seek(frame);
  return { captions: state.captions, selected, speech, select, dragged, preview, put, onSeek };
}

interface LaneContentProps {
  geometry: LaneGeometry;
  /** The range of frames that is drawn. */
  drawn: { start: number; end: number };
  /** Size of the canvas. */
  size: Size;
  theme: CanvasTheme;
  /** Loudness of each frame; null without sound. */
  waveform: Uint8Array | null;
}

/** Everything that scrolls: cuts, tracks, bands and keys of the shots near the playhead. */
export function LaneContent(props: LaneContentProps) {
  const { player, shots, film, kept, version, aspect, keyCommands, shotCommands, rangeCommands } = useDesk(
    "player",
    "shots",
    "film",
    "kept",
    "version",
    "aspect",
    "keyCommands",
    "shotCommands",
    "rangeCommands",
  );
  const { geometry, drawn, size, theme, waveform } = props;
  const { axis, pxPerFrame } = geometry;
  const captions = useCaptionsInLane();
  const moveOneSwitch = (shot: DeskShot, index: number, frame: number) => {
    if (shot.framed) shotCommands.follow([shot], moveSwitch(asSwitches(shot.framed.spans), index, frame, shot));
  };
  const along = { axis, size, pxPerFrame, drawn, theme, frames: film.frames, kept };
  const visible = shots.filter((shot) => shot.end > drawn.start && shot.start < drawn.end);
  const isFar = pxPerFrame < FAR_PX_PER_FRAME;
  const seek = (frame: number) => {
    player?.pause();
    player?.seek(frame);
  };
  return (
    <>
      {isFar && <LaneFar {...{ geometry, drawn, size, theme }} shots={visible} />}
      {!isFar && visible.map((shot) => <LaneShot key={shot.id} shot={shot} {...props} clock={film.clock} />)}
      <LaneTrim {...along} inPoint={version.trim.in} outPoint={version.trim.out} />
      {!isFar && visible.map((shot) => <LaneShotKeys key={shot.id} {...{ shot, geometry, theme }} onSeek={seek} />)}
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
            onMove={moveOneSwitch}
            onSeek={seek}
          />
        ))}
      {axis === "x" &&
        !isFar &&
        !captions &&
        visible.map((shot) => (
          <LaneSpeed
            key={shot.id}
            {...{ shot, pxPerFrame, drawn, theme, aspect }}
            onEase={keyCommands.ease}
            fps={framesPerSecond(film.clock.rate)}
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
      <LaneStrip {...along} range={rangeCommands.marked} onRange={rangeCommands.markRange} />
    </>
  );
}
