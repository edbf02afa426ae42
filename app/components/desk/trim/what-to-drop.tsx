import { Scissors } from "lucide-react";
import { useEffect } from "react";
import { useFetcher } from "react-router";
import { Button, IconButton } from "~/components/common/button";
import type { IdleKind, IdleStretch } from "~/core/activity/idle-stretches";
import { framesIn, frameToSeconds, rangeKey } from "~/core/time/rate";
import { clipRanges } from "~/core/time/ranges";
import { timecodeAt } from "~/core/time/timecode";
import { useDesk } from "../state/desk-context";
import { inSeconds, StretchRow } from "./stretch-row";
import { stretchesTexts } from "~/texts/stretches";

const t = stretchesTexts.whatToDrop;

const KIND_TEXT: Record<IdleKind, string> = {
  blank: t.blankPicture,
  still: t.nothingHappens,
  pause: t.pauseInSpeech,
};

/** Stretches that the version could do without, to be dropped one by one or together. */
export function WhatToDrop() {
  const { film, kept, state, trimEdits } = useDesk();
  const { data, load } = useFetcher<{ stretches: IdleStretch[] | null }>();
  const { analysed } = state.film;
  useEffect(() => void load(`/films/${film.id}/idle`), [load, film.id, analysed]);
  const idle = data?.stretches?.filter((stretch) => framesIn(clipRanges(kept, stretch)) > 0);
  const left = idle?.flatMap((stretch) => clipRanges(kept, stretch)) ?? [];
  const ranges = idle?.map(({ start, end }) => ({ start, end })) ?? [];
  return (
    <section aria-label={t.whatToDrop} className="border-t border-line pt-3">
      <h3 className="text-xs text-soft">{t.whatToDrop}</h3>
      {!data && <p className="mt-1 text-xs text-soft">{t.looking}</p>}
      {data?.stretches === null && (
        <p className="mt-1 text-xs text-soft">{analysed ? t.analysedBefore : t.comesWithAnalysis}</p>
      )}
      {idle?.length === 0 && <p className="mt-1 text-xs text-soft">{t.noneFound}</p>}
      {idle && idle.length > 0 && (
        <>
          <ul className="mt-1 flex flex-col">
            {idle.map((stretch) => (
              <StretchRow key={rangeKey(stretch)} stretch={stretch} what={KIND_TEXT[stretch.kind]}>
                <IconButton
                  label={t.drop(timecodeAt(stretch.start, film.clock))}
                  onClick={() => trimEdits.drop([{ start: stretch.start, end: stretch.end }])}
                >
                  <Scissors className="size-4" aria-hidden />
                </IconButton>
              </StretchRow>
            ))}
          </ul>
          {idle.length > 1 && (
            <Button className="mt-2 w-full" onClick={() => trimEdits.drop(ranges)}>
              {t.dropAll(idle.length, inSeconds(frameToSeconds(framesIn(left), film.rate)))}
            </Button>
          )}
        </>
      )}
    </section>
  );
}
