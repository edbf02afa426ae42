import { Trash2 } from "lucide-react";
import { IconButton } from "~/components/common/button";
import { type SelectItem, SelectMenu } from "~/components/common/select-menu";
import { clamped } from "~/core/numbers/clamped";
import { addSwitch, asSwitches, giveSwitch, removeSwitch } from "~/core/subjects/attention/edit-switches";
import { timecodeAt } from "~/core/time/timecode";
import { inspectorTexts } from "~/texts/inspector";
import { reasonsTexts } from "~/texts/reasons";
import { useDesk } from "../../hooks/use-desk";
import type { DeskShot } from "../../model/desk-types";
import { AttentionFields } from "../fields/attention-fields";

const t = inspectorTexts.switchControls;

/** Tracks as a menu value, and back. */
const valueOf = (trackIds: readonly string[]): string => trackIds.join(" ") || "nothing";
const tracksOf = (value: string): string[] => (value === "nothing" ? [] : value.split(" "));

/** Targets of a switch: each of the cast, all, nobody, and the present one. */
function choicesFor({ cast }: DeskShot, now: readonly string[]): SelectItem[] {
  const member = (id: string) => cast.find(({ track }) => track.id === id);
  const called = (ids: readonly string[]) =>
    [...new Set(ids.map((id) => member(id)?.name ?? member(id)?.letter ?? t.somebody))].join(t.and);
  const each = cast.map(({ track }) => [track.id]);
  const all = cast.map(({ track }) => track.id);
  const choices = [...each, ...(cast.length > 1 ? [all] : []), now].map((ids) => ({
    value: valueOf(ids),
    text: ids.length === 0 ? t.nothing : called(ids),
  }));
  const unique = new Map(choices.map((choice) => [choice.value, choice]));
  return [...unique.set("nothing", { value: "nothing", text: t.nothing }).values()];
}

/** Where within a shot the window switches to another subject, why, and how. */
export function SwitchControls({ shot }: { shot: DeskShot }) {
  const { film, player, shotCommands } = useDesk("film", "player", "shotCommands");
  const { framed, cast, settings } = shot;
  if (!framed || shot.pane > 0 || shot.panes.length > 1 || cast.length < 2) return null;
  const switches = asSwitches(framed.spans);
  const set = shotCommands.follow;
  const seek = (frame: number) => {
    player?.pause();
    player?.seek(frame);
  };
  return (
    <section aria-label={t.switches} className="flex flex-col gap-2">
      <div className="flex items-center justify-between gap-2">
        <span className="text-xs text-soft">{t.switches}</span>
        <SelectMenu
          small
          label={t.switchHereTo}
          placeholder={t.switchHereTo}
          items={choicesFor(shot, [])}
          onChange={(value) => {
            const frame = clamped(player?.getTarget() ?? shot.start, shot.start, shot.end - 1);
            set([shot], addSwitch(switches, frame, tracksOf(value)));
          }}
        />
      </div>
      {switches.length > 1 && (
        <ol aria-label={t.switches} className="flex max-h-52 flex-col gap-1 overflow-y-auto">
          {framed.spans.map(({ start, trackIds, cause }, i) => (
            <li key={start} className="flex items-center gap-2 text-xs">
              <button
                type="button"
                aria-label={t.goTo(timecodeAt(start, film.clock))}
                onClick={() => seek(start)}
                className="rounded-sm font-mono text-soft hover:text-ink"
              >
                {timecodeAt(start, film.clock)}
              </button>
              <span className="min-w-0 grow truncate text-soft">
                {cause ? reasonsTexts.causes[cause] : t.fromTheStart}
              </span>
              <SelectMenu
                small
                label={t.whoFrom(timecodeAt(start, film.clock))}
                placeholder={t.somebody}
                items={choicesFor(shot, trackIds)}
                value={valueOf(trackIds)}
                onChange={(value) => set([shot], giveSwitch(switches, i, tracksOf(value)))}
              />
              <IconButton
                label={t.deleteSwitch(timecodeAt(start, film.clock))}
                onClick={() => set([shot], removeSwitch(switches, i))}
              >
                <Trash2 className="size-3.5" aria-hidden />
              </IconButton>
            </li>
          ))}
        </ol>
      )}
      <AttentionFields settings={settings} onChange={(change) => shotCommands.setFraming([shot], change)} />
    </section>
  );
}
