import { Button } from "~/components/common/button";
import { commonSettings } from "~/core/path/framing-settings";
import { mostZoom } from "~/core/path/zoom-goals";
import { sameRule } from "~/core/subjects/choosing/follow-rule";
import { framesIn } from "~/core/time/rate";
import { formatTimecode } from "~/core/time/timecode";
import { useDesk } from "../../hooks/use-desk";
import type { DeskShot } from "../../model/desk-types";
import { FramingControls } from "./framing-controls";
import { LayoutControls } from "./layout-controls";
import { RuleSelect } from "../fields/subject-choice";
import { inspectorTexts } from "~/texts/inspector";

const t = inspectorTexts.bulkSettings;

/** Settings of several shots at once. */
export function BulkSettings({ shots }: { shots: DeskShot[] }) {
  const { film, version, selection, shotCommands } = useDesk("film", "version", "selection", "shotCommands");
  const [first] = shots;
  const rule = shots.every((shot) => sameRule(shot.follow, first!.follow)) ? first!.follow : null;
  const inRow = shots.every((shot, i) => i === 0 || shot.start === shots[i - 1]!.end);
  const common = commonSettings(shots.map(({ settings }) => settings));
  const excluded = shots.every((shot) => shot.excluded);
  const bears = (largestScale: number) =>
    Math.min(...shots.map(({ active }) => mostZoom(active ?? film.picture, version, largestScale)));
  return (
    <section aria-label={t.shots(shots.length)} className="flex flex-col gap-3">
      <div className="flex items-baseline justify-between">
        <h2 className="font-display font-semibold">{t.shots(shots.length)}</h2>
        <span className="font-mono text-xs text-soft">{formatTimecode(framesIn(shots), film.rate)}</span>
      </div>
      <LayoutControls
        settings={common}
        area={first!.active ?? film.picture}
        frame={version}
        onChange={(change) => shotCommands.setFraming(shots, change)}
      />
      <FramingControls settings={common} bears={bears} onChange={(change) => shotCommands.setFraming(shots, change)} />
      <div className="flex items-center justify-between gap-2">
        <span className="text-xs text-soft">{t.follow}</span>
        <RuleSelect rule={rule} onChange={(selected) => shotCommands.follow(shots, selected)} />
      </div>
      <div className="flex flex-wrap gap-2">
        <Button onClick={() => shotCommands.change(shots, { excluded: !excluded })}>
          {excluded ? t.bringBack : t.leaveOut}
        </Button>
        <Button onClick={() => shotCommands.join(shots)} disabled={!inRow}>
          {t.joinIntoOne}
        </Button>
        <Button variant="quiet" onClick={selection.clear}>
          {t.selectNone}
        </Button>
      </div>
      {!inRow && <p className="text-xs text-soft">{t.adjacentOnly}</p>}
    </section>
  );
}
