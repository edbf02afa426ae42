import { Info } from "lucide-react";
import { Dialog } from "radix-ui";
import { useFetcher } from "react-router";
import { Button } from "~/components/common/button";
import { DialogPanel } from "~/components/common/dialog-panel";
import { SelectMenu } from "~/components/common/select-menu";
import { describeLacking } from "~/core/checks/lacking-pictures";
import { formatBytes } from "~/core/numbers/bytes";
import { formatRate } from "~/core/time/rate";
import { timecodeAt } from "~/core/time/timecode";
import type { DeskFilm } from "../../model/desk-types";
import { dialogsTexts } from "~/texts/dialogs";

import type { FilmFacts } from "../../model/desk-inputs";
const t = dialogsTexts.filmDialog;

type SoundView = FilmFacts["sounds"][number];

const CHANNELS: Record<number, string> = { 1: "mono", 2: "stereo", 6: "5.1", 8: "7.1" };

/** ISO 639 code for an undetermined language. */
const UNDETERMINED = "und";

const describeSound = ({ codec, channels, language, title }: SoundView): string =>
  [title, language === UNDETERMINED ? null : language, CHANNELS[channels] ?? t.channels(channels), codec]
    .filter(Boolean)
    .join(" · ");

/** The film's name; behind it, facts about its file and the streams in use. */
export function FilmDialog({ film, facts }: { film: DeskFilm; facts: FilmFacts }) {
  return (
    <Dialog.Root>
      <Dialog.Trigger asChild>
        <button
          type="button"
          className="flex max-w-56 items-center gap-1.5 rounded-md px-1 text-sm text-soft hover:text-ink"
          aria-label={t.about(film.name)}
        >
          <h1 className="truncate">{film.name}</h1>
          <Info className="size-3.5 shrink-0" aria-hidden />
        </button>
      </Dialog.Trigger>
      <DialogPanel title={film.name} width="w-[30rem]" layout="flex flex-col gap-4">
        <Facts film={film} facts={facts} />
        {facts.sounds.length > 1 && <SoundChoice filmId={film.id} facts={facts} />}
        {facts.interlaced && <FieldsChoice filmId={film.id} facts={facts} rate={film.rate} />}
      </DialogPanel>
    </Dialog.Root>
  );
}

function Facts({ film, facts }: { film: DeskFilm; facts: FilmFacts }) {
  const { picture, rate, frames, clock, bitDepth } = film;
  const [only] = facts.sounds;
  const rows: [string, string][] = [
    [t.picture, t.pictureFacts(picture.width, picture.height, facts.videoCodec, bitDepth)],
    [t.frameRate, t.fpsFrames(formatRate(rate), frames)],
    [t.timecode, t.to(timecodeAt(0, clock), timecodeAt(frames, clock))],
    [t.file, formatBytes(facts.bytes)],
    ...(only && facts.sounds.length === 1 ? [[t.audioTrack, describeSound(only)] as [string, string]] : []),
    ...(facts.audio ? [] : [[t.audioTrack, "none"] as [string, string]]),
  ];
  return (
    <div>
      <dl className="grid grid-cols-[7rem_1fr] gap-y-1 text-sm">
        {rows.map(([name, value]) => (
          <div key={name} className="contents">
            <dt className="text-soft">{name}</dt>
            <dd>{value}</dd>
          </div>
        ))}
      </dl>
      {describeLacking(facts.lacking, frames, rate).map((sentence) => (
        <p key={sentence} className="mt-2 text-xs text-warn">
          {sentence}.
        </p>
      ))}
    </div>
  );
}

function SoundChoice({ filmId, facts }: { filmId: string; facts: FilmFacts }) {
  const { submit, state } = useFetcher();
  const select = (index: string) =>
    void submit({ intent: "sound", index }, { method: "post", action: `/films/${filmId}` });
  return (
    <section aria-label={t.audioTrack} className="border-t border-line pt-4">
      <div className="flex items-center justify-between gap-2">
        <h2 className="text-sm font-semibold">{t.audioTrack}</h2>
        <SelectMenu
          label={t.audioTrack}
          placeholder={state === "idle" ? t.none : t.changing}
          value={String(facts.audio?.index ?? "")}
          items={facts.sounds.map((sound) => ({
            value: String(sound.index),
            text: `${sound.index + 1} · ${describeSound(sound)}`,
          }))}
          onChange={select}
        />
      </div>
      <p className="mt-1 text-xs text-soft">{t.audioHint}</p>
    </section>
  );
}

function FieldsChoice({ filmId, facts, rate }: { filmId: string; facts: FilmFacts; rate: DeskFilm["rate"] }) {
  const { submit, state } = useFetcher();
  const doubled = formatRate({ num: 2 * rate.num, den: rate.den });
  return (
    <section aria-label={t.interlaced} className="border-t border-line pt-4">
      <h2 className="text-sm font-semibold">{t.interlaced}</h2>
      {facts.fields ? (
        <p className="mt-1 text-xs text-soft">{t.everyFieldIsAFrame}</p>
      ) : (
        <>
          <p className="mt-1 mb-2 text-xs text-soft">{t.fieldsHint}</p>
          <Button
            disabled={state !== "idle"}
            onClick={() => void submit({ intent: "fields" }, { method: "post", action: `/films/${filmId}` })}
          >
            {t.switchToFpsAndStart(doubled)}
          </Button>
        </>
      )}
    </section>
  );
}
