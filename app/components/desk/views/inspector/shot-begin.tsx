import { TickBox } from "~/components/common/tick-box";
import type { Size } from "~/core/geometry/box";
import type { TransitionKind } from "~/core/shots/transition";
import type { Clock } from "~/core/time/timecode";
import { CutTrim } from "./cut-trim";
import type { DeskShot } from "../../model/desk-types";
import type { LightCopy } from "../../model/piece-stream";
import { inspectorTexts } from "~/texts/inspector";

const t = inspectorTexts.shotBegin;

const BEGINS_TEXT: Record<TransitionKind, string> = {
  cut: t.withACut,
  jump: t.withAJumpCutSame,
  dissolve: t.withADissolve,
  wipe: t.withAWipe,
  fade: t.withAFade,
  switch: t.switchSameTake,
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

/** Transition and first frame of a shot. */
export function ShotBegin({ shot, before, source, picture, clock, onMove, onCarry }: ShotBeginProps) {
  const mixed = shot.mixed.end - shot.mixed.start;
  return (
    <section aria-label={t.howItBegins}>
      <h2 className="font-display font-semibold">{t.begins}</h2>
      <p className="text-xs text-soft">
        {BEGINS_TEXT[shot.begins]}
        {mixed > 0 && t.ofFrames(mixed)}
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
        {t.carryOn}
      </label>
    </section>
  );
}
