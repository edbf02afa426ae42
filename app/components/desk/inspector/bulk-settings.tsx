import { Button } from "~/components/common/button";
import { commonSettings, type FramingChange } from "~/core/path/framing-settings";
import { framesIn, type Rate } from "~/core/time/rate";
import { formatTimecode } from "~/core/time/timecode";
import type { DeskShot } from "../state/desk-types";
import { FramingControls } from "./framing-controls";
import { RuleSelect } from "./subject-choice";

interface BulkSettingsProps {
  shots: DeskShot[];
  rate: Rate;
  /** How far a zoom may go in before the picture is enlarged more than so many times. */
  bears: (enlargement: number) => number;
  onSubject: (subject: string) => void;
  onFraming: (change: FramingChange) => void;
  onExclude: (excluded: boolean) => void;
  onJoin: () => void;
  onClear: () => void;
}

/** What can be set for several shots at once. */
export function BulkSettings({
  shots,
  rate,
  bears,
  onSubject,
  onFraming,
  onExclude,
  onJoin,
  onClear,
}: BulkSettingsProps) {
  const frames = framesIn(shots);
  const [first] = shots;
  const rule = shots.every((shot) => shot.subject === first!.subject) ? first!.subject : "";
  const inRow = shots.every((shot, i) => i === 0 || shot.start === shots[i - 1]!.end);
  const excluded = shots.every((shot) => shot.excluded);
  return (
    <section aria-label={`${shots.length} shots`} className="flex flex-col gap-3">
      <div className="flex items-baseline justify-between">
        <h2 className="font-display font-semibold">{shots.length} shots</h2>
        <span className="font-mono text-xs text-soft">{formatTimecode(frames, rate)}</span>
      </div>
      <FramingControls
        settings={commonSettings(shots.map(({ settings }) => settings))}
        bears={bears}
        onChange={onFraming}
      />
      <div className="flex items-center justify-between gap-2">
        <span className="text-xs text-soft">Follow</span>
        <RuleSelect value={rule} onChange={onSubject} />
      </div>
      <div className="flex flex-wrap gap-2">
        <Button onClick={() => onExclude(!excluded)}>{excluded ? "Take in again" : "Leave out"}</Button>
        <Button onClick={onJoin} disabled={!inRow}>
          Join into one
        </Button>
        <Button look="quiet" onClick={onClear}>
          Select none
        </Button>
      </div>
      {!inRow && <p className="text-xs text-soft">Only shots that follow one another can be joined.</p>}
    </section>
  );
}
