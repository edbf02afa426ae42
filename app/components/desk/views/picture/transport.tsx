import { ChevronLeft, ChevronRight, Pause, Play, Repeat, SkipBack, SkipForward } from "lucide-react";
import type { Ref } from "react";
import type { FrameRange } from "~/core/time/rate";
import { type Clock, formatTimecode } from "~/core/time/timecode";
import { IconButton } from "~/components/common/button";
import { TimecodeField } from "~/components/common/timecode-field";
import { ToggleButton } from "~/components/common/toggle-button";
import { type DeskShot, neighbouringCuts } from "../../model/desk-types";
import type { Player } from "../../model/player";
import { useShortcutText } from "../../hooks/use-shortcut-keys";
import { SoundControl } from "./sound-control";
import { useFrame, useLoop, usePlaying, useShotHere, useSpeed } from "../../hooks/use-player";
import { pictureTexts } from "~/texts/picture";

const t = pictureTexts.transport;

interface TransportProps {
  player: Player | null;
  shots: DeskShot[];
  /** The marked range, which is looped instead of the shot. */
  range: FrameRange | null;
  clock: Clock;
  frames: number;
  timecodeRef: Ref<HTMLInputElement>;
}

/** Play, step, jump between cuts, loop, and a timecode field. */
export function Transport({ player, shots, range, clock, frames, timecodeRef }: TransportProps) {
  const keysOf = useShortcutText();
  const playing = usePlaying(player);
  const speed = useSpeed(player);
  const loop = useLoop(player);
  const here = useShotHere(player, shots);
  const isLast = !here || (here === shots.at(-1) && here.kept.length < 2);
  const toCut = (direction: "before" | "after") => {
    const frame = player && neighbouringCuts(shots, player.getTarget())[direction];
    if (frame !== null) player?.seek(frame);
  };
  const icon = "size-4";
  return (
    <div className="flex items-center gap-1">
      <IconButton label={t.previousCut} shortcut={keysOf("cut-before")} onClick={() => toCut("before")}>
        <SkipBack className={icon} aria-hidden />
      </IconButton>
      <IconButton label={t.oneFrameBack} shortcut={keysOf("back")} onClick={() => player?.step(-1)}>
        <ChevronLeft className={icon} aria-hidden />
      </IconButton>
      <IconButton label={playing ? t.pause : t.play} shortcut={keysOf("play")} onClick={() => player?.toggle()}>
        {playing ? <Pause className={icon} aria-hidden /> : <Play className={icon} aria-hidden />}
      </IconButton>
      <IconButton label={t.oneFrameOn} shortcut={keysOf("on")} onClick={() => player?.step(1)}>
        <ChevronRight className={icon} aria-hidden />
      </IconButton>
      <IconButton label={t.nextCut} shortcut={keysOf("cut-after")} disabled={isLast} onClick={() => toCut("after")}>
        <SkipForward className={icon} aria-hidden />
      </IconButton>
      <ToggleButton
        label={loop ? t.stopLooping : range ? t.loopRange : t.loopTheShot}
        shortcut={keysOf("loop")}
        Icon={Repeat}
        isOn={loop !== null}
        disabled={!here}
        onChange={(isOn) => player?.setLoop(isOn ? (range ?? here ?? null) : null)}
      />
      <SoundControl player={player} />
      <div className="relative">
        <Playhead player={player} clock={clock} frames={frames} inputRef={timecodeRef} />
        <span
          role="status"
          aria-label={t.speed}
          className="pointer-events-none absolute inset-y-0 right-2.5 flex items-center font-mono text-xs text-accent"
        >
          {speed !== 0 && speed !== 1 && `${speed}×`}
        </span>
      </div>
      <span className="font-mono text-xs whitespace-nowrap text-soft max-[1400px]:hidden">
        {t.of(formatTimecode(frames, clock.rate, clock.drop))}
      </span>
    </div>
  );
}

interface PlayheadProps {
  player: Player | null;
  clock: Clock;
  frames: number;
  inputRef: Ref<HTMLInputElement>;
}

/** The playhead's timecode; a typed timecode or frame number seeks there. */
function Playhead({ player, clock, frames, inputRef }: PlayheadProps) {
  const frame = useFrame(player);
  const jump = (wanted: number) => {
    player?.pause();
    player?.seek(wanted);
  };
  return (
    <div className="mx-1">
      <TimecodeField
        label={t.timecodeLabel}
        title={t.timecodeHint(useShortcutText()("timecode"))}
        {...{ frame, clock, inputRef }}
        most={frames - 1}
        className="w-32 px-2 py-1 text-sm"
        onCommit={jump}
      />
    </div>
  );
}
