import { TickBox } from "~/components/common/tick-box";
import type { Size } from "~/core/geometry/box";
import type { TransitionKind } from "~/core/shots/transition";
import type { Clock } from "~/core/time/timecode";
import { CutTrim } from "./cut-trim";
import type { DeskShot } from "../state/desk-types";
import type { LightCopy } from "../picture/piece-stream";

const BEGINS_TEXT: Record<TransitionKind, string> = {
  cut: "with a cut",
  jump: "with a jump cut: same place, later",
  dissolve: "with a dissolve",
  wipe: "with a wipe",
  fade: "with a fade",
  turn: "with a turn: same take, another subject",
};

interface ShotBeginProps {
  shot: DeskShot;
  before: DeskShot;
  source: LightCopy;
  picture: Size;
  clock: Clock;
  onMove: (frame: number) => void;
  onCarry: (carry: boolean) => void;
}

/** How a shot begins, and where. */
export function ShotBegin({ shot, before, source, picture, clock, onMove, onCarry }: ShotBeginProps) {
  const mixed = shot.mixed.end - shot.mixed.start;
  return (
    <section aria-label="How it begins">
      <h2 className="font-display font-semibold">Begins</h2>
      <p className="text-xs text-soft">
        {BEGINS_TEXT[shot.begins]}
        {mixed > 0 && ` of ${mixed} frames`}
      </p>
      <CutTrim
        source={source}
        picture={picture}
        clock={clock}
        frame={shot.start}
        reach={{ from: before.start + 1, to: shot.end - 1 }}
        onMove={onMove}
      />
      <label className="mt-1 flex items-center gap-2 text-sm">
        <TickBox checked={shot.carry} onChange={onCarry} />
        Continue from the previous shot's window
      </label>
    </section>
  );
}
