import { ChevronLeft, ChevronRight, Pause, Play, SkipBack, SkipForward } from "lucide-react";
import { type FormEvent, type Ref, useState } from "react";
import { type Clock, formatTimecode, frameAt, timecodeAt } from "~/core/time/timecode";
import { IconButton } from "~/components/common/button";
import type { DeskShot } from "../state/desk-types";
import type { Player } from "./player";
import { useFrame, usePlaying, useShotHere } from "./use-player";

interface TransportProps {
  player: Player | null;
  shots: DeskShot[];
  clock: Clock;
  frames: number;
  timecodeRef: Ref<HTMLInputElement>;
}

/** The cuts before and after a frame: where shots begin, and where the film goes on after what is left out of one. */
export function neighbouringCuts(
  shots: readonly Pick<DeskShot, "start" | "kept">[],
  frame: number,
): { before: number; after: number | null } {
  const cuts = shots.flatMap(({ start, kept }) => [...new Set([start, ...kept.map((part) => part.start)])]);
  return {
    before: cuts.findLast((cut) => cut < frame) ?? 0,
    after: cuts.find((cut) => cut > frame) ?? null,
  };
}

/** Play, step, jump from cut to cut, and a timecode that can be typed. */
export function Transport({ player, shots, clock, frames, timecodeRef }: TransportProps) {
  const playing = usePlaying(player);
  const here = useShotHere(player, shots);
  const isLast = !here || (here === shots.at(-1) && here.kept.length < 2);
  const toCut = (direction: "before" | "after") => {
    const frame = player && neighbouringCuts(shots, player.getFrame())[direction];
    if (frame !== null) player?.seek(frame);
  };
  const icon = "size-4";
  return (
    <div className="flex items-center gap-1">
      <IconButton label="To the cut before" shortcut="PageUp" onClick={() => toCut("before")}>
        <SkipBack className={icon} aria-hidden />
      </IconButton>
      <IconButton label="One frame back" shortcut="←" onClick={() => player?.step(-1)}>
        <ChevronLeft className={icon} aria-hidden />
      </IconButton>
      <IconButton label={playing ? "Pause" : "Play"} shortcut="Space" onClick={() => player?.toggle()}>
        {playing ? <Pause className={icon} aria-hidden /> : <Play className={icon} aria-hidden />}
      </IconButton>
      <IconButton label="One frame on" shortcut="→" onClick={() => player?.step(1)}>
        <ChevronRight className={icon} aria-hidden />
      </IconButton>
      <IconButton label="To the next cut" shortcut="PageDown" disabled={isLast} onClick={() => toCut("after")}>
        <SkipForward className={icon} aria-hidden />
      </IconButton>
      <TimecodeField player={player} clock={clock} frames={frames} inputRef={timecodeRef} />
      <span className="font-mono text-xs text-soft">of {formatTimecode(frames, clock.rate, clock.drop)}</span>
    </div>
  );
}

interface TimecodeFieldProps {
  player: Player | null;
  clock: Clock;
  frames: number;
  inputRef: Ref<HTMLInputElement>;
}

/** Shows where the playhead is; a timecode or a frame number typed in jumps there. */
function TimecodeField({ player, clock, frames, inputRef }: TimecodeFieldProps) {
  const frame = useFrame(player);
  const [typed, setTyped] = useState<string | null>(null);
  const wanted = typed === null ? frame : frameAt(typed, clock);
  const valid = wanted !== null && wanted < frames;
  const jump = (event: FormEvent) => {
    event.preventDefault();
    if (!valid) return;
    player?.pause();
    player?.seek(wanted);
    setTyped(null);
  };
  return (
    <form onSubmit={jump} className="mx-2">
      <input
        ref={inputRef}
        aria-label="Timecode: type one, or a frame number, and press Enter"
        aria-invalid={!valid}
        title="Type a timecode or a frame number, then Enter (T)"
        value={typed ?? timecodeAt(frame, clock)}
        onFocus={(event) => event.target.select()}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={() => setTyped(null)}
        onKeyDown={(event) => event.key === "Escape" && event.currentTarget.blur()}
        className="w-32 rounded-md border border-line bg-raised px-2 py-1 text-center font-mono text-sm aria-invalid:border-warn aria-invalid:text-warn"
      />
    </form>
  );
}
