import { Info, Trash2, TriangleAlert } from "lucide-react";
import type { ReactNode } from "react";
import { AlertDialog } from "radix-ui";
import { Link } from "react-router";
import { describeLacking } from "~/core/checks/lacking-pictures";
import { asSentence } from "~/core/basics/sentence";
import { formatRate } from "~/core/time/rate";
import { formatTimecode } from "~/core/time/timecode";
import { Button, IconButton } from "~/components/common/button";
import { DAYS_KEPT } from "~/core/film/days-kept";
import { useFilmActions } from "./film-actions";
import { FilmMenu } from "./film-menu";
import { JobStatus } from "./job-status";
import { type BrokenFilmView, type FilmView, hasPoster, type SpaceView } from "./library-view";
import { Poster } from "./poster";
import { libraryTexts } from "~/texts/library";

const t = libraryTexts.filmCard;

/** A film of the library: picture, facts, and progress of its analysis. */
export function FilmCard({ film, space }: { film: FilmView; space: SpaceView | undefined }) {
  const { picture, rate, frames } = film.info;
  const analysed = film.jobs.some((job) => job.kind === "analyse" && job.state === "done");
  return (
    <li className="group relative overflow-hidden rounded-lg border border-line bg-panel focus-within:border-soft hover:border-soft">
      <CardLink film={film}>
        <Poster film={film} ready={hasPoster(film)} />
        <div className="px-4 pt-3">
          <h2 className="truncate font-display text-base font-semibold">{film.name}</h2>
          <p className="mt-0.5 text-xs text-soft">
            <span className="font-mono">{formatTimecode(frames, rate)}</span>{" "}
            {t.fps(picture.width, picture.height, formatRate(rate))}
          </p>
        </div>
      </CardLink>
      <div className="min-h-10 px-4 pt-2 pb-4">
        {describeLacking(film.lacking, frames, rate).map((sentence) => (
          <p key={sentence} className="mb-1 flex gap-1.5 text-xs text-soft">
            <Info className="mt-px size-3.5 shrink-0" aria-hidden />
            {sentence}
          </p>
        ))}
        {film.isMissing && film.deletedAt === null && (
          <p role="alert" className="mb-1 flex gap-1.5 text-xs text-warn">
            <TriangleAlert className="mt-px size-3.5 shrink-0" aria-hidden />
            {t.itsFileIsMissingAdd}
          </p>
        )}
        {film.deletedAt === null ? (
          <>
            {analysed ? (
              <p className="text-xs text-soft">
                {t.found(film.shots)}
                {film.clips > 0 && t.in(film.clips)}
              </p>
            ) : null}
            <JobStatus jobs={film.jobs} />
          </>
        ) : (
          <p className="text-xs text-soft">{t.deletedCanBeBroughtBack(daysLeft(film.deletedAt))}</p>
        )}
      </div>
      <FilmMenu film={film} space={space} className="absolute top-2 right-2 bg-panel/85" />
    </li>
  );
}

const DAY_MS = 24 * 60 * 60 * 1000;

const daysLeft = (deletedAt: number): number => Math.max(1, Math.ceil(DAYS_KEPT - (Date.now() - deletedAt) / DAY_MS));

/** The part of a card that opens the film, unless it is deleted. */
function CardLink({ film, children }: { film: FilmView; children: ReactNode }) {
  if (film.deletedAt !== null) return <div className="opacity-60">{children}</div>;
  return (
    <Link to={`/films/${film.id}`} className="block outline-offset-[-2px]">
      <span className="sr-only">{t.open} </span>
      {children}
    </Link>
  );
}

/** A film whose stored data cannot be read: what to do, and nothing else. */
export function BrokenFilmCard({ film }: { film: BrokenFilmView }) {
  return (
    <li className="group relative overflow-hidden rounded-lg border border-line bg-panel p-4 focus-within:border-soft hover:border-soft">
      <h2 className="truncate pr-8 font-display text-base font-semibold">{film.name}</h2>
      <p role="alert" className="mt-2 flex gap-1.5 text-xs text-warn">
        <TriangleAlert className="mt-px size-3.5 shrink-0" aria-hidden />
        {asSentence(film.problem)}
      </p>
      <RemoveBroken film={film} />
    </li>
  );
}

/** Removes an unreadable film, which cannot be restored either. */
function RemoveBroken({ film }: { film: Pick<FilmView, "id" | "name"> }) {
  const { act } = useFilmActions(film);
  return (
    <AlertDialog.Root>
      <AlertDialog.Trigger asChild>
        <IconButton
          label={t.removeFilm(film.name)}
          className="absolute top-2 right-2 bg-panel/85 opacity-0 group-focus-within:opacity-100 group-hover:opacity-100"
        >
          <Trash2 className="size-4" aria-hidden />
        </IconButton>
      </AlertDialog.Trigger>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="fixed inset-0 bg-black/50" />
        <AlertDialog.Content className="fixed top-1/2 left-1/2 w-96 -translate-1/2 rounded-lg border border-line bg-panel p-6 shadow-xl">
          <AlertDialog.Title className="font-display text-lg font-semibold">{t.removeThisFilm}</AlertDialog.Title>
          <AlertDialog.Description className="mt-2 text-sm text-soft">
            {t.removeHint(film.name)}
          </AlertDialog.Description>
          <div className="mt-5 flex justify-end gap-2">
            <AlertDialog.Cancel asChild>
              <Button>{t.keepIt}</Button>
            </AlertDialog.Cancel>
            <AlertDialog.Action asChild>
              <Button variant="accent" onClick={() => act({ intent: "delete-for-good" })}>
                {t.remove}
              </Button>
            </AlertDialog.Action>
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}
