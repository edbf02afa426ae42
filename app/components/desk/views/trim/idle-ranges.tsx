import { Scissors } from "lucide-react";
import { useEffect } from "react";
import { useFetcher } from "react-router";
import { Button, IconButton } from "~/components/common/button";
import type { IdleKind, IdleRange } from "~/core/activity/idle-ranges";
import { framesIn, frameToSeconds, rangeKey } from "~/core/time/rate";
import { clipRanges } from "~/core/time/ranges";
import { timecodeAt } from "~/core/time/timecode";
import { useDesk } from "../../hooks/use-desk";
import { inSeconds, RangeRow } from "./range-row";
import { rangesTexts } from "~/texts/ranges";

const t = rangesTexts.idleRanges;

const KIND_TEXT: Record<IdleKind, string> = {
  blank: t.blankPicture,
  still: t.nothingHappens,
  pause: t.pauseInSpeech,
};

/** Ranges that the version could leave out, one by one or together. */
export function IdleRanges() {
  const { film, kept, state, rangeCommands } = useDesk("film", "kept", "state", "rangeCommands");
  const { data, load } = useFetcher<{ ranges: IdleRange[] | null }>();
  const { analysed } = state.film;
  useEffect(() => void load(`/films/${film.id}/idle`), [load, film.id, analysed]);
  const idle = data?.ranges?.filter((range) => framesIn(clipRanges(kept, range)) > 0);
  const left = idle?.flatMap((range) => clipRanges(kept, range)) ?? [];
  const ranges = idle?.map(({ start, end }) => ({ start, end })) ?? [];
  return (
    <section aria-label={t.idleRanges} className="border-t border-line pt-3">
      <h3 className="text-xs text-soft">{t.idleRanges}</h3>
      {!data && <p className="mt-1 text-xs text-soft">{t.looking}</p>}
      {data?.ranges === null && (
        <p className="mt-1 text-xs text-soft">{analysed ? t.analysedBefore : t.comesWithAnalysis}</p>
      )}
      {idle?.length === 0 && <p className="mt-1 text-xs text-soft">{t.noneFound}</p>}
      {idle && idle.length > 0 && (
        <>
          <ul className="mt-1 flex flex-col">
            {idle.map((range) => (
              <RangeRow key={rangeKey(range)} range={range} what={KIND_TEXT[range.kind]}>
                <IconButton
                  label={t.leaveOut(timecodeAt(range.start, film.clock))}
                  onClick={() => rangeCommands.leaveOut([{ start: range.start, end: range.end }])}
                >
                  <Scissors className="size-4" aria-hidden />
                </IconButton>
              </RangeRow>
            ))}
          </ul>
          {idle.length > 1 && (
            <Button className="mt-2 w-full" onClick={() => rangeCommands.leaveOut(ranges)}>
              {t.leaveOutAll(idle.length, inSeconds(frameToSeconds(framesIn(left), film.rate)))}
            </Button>
          )}
        </>
      )}
    </section>
  );
}
