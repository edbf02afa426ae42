import { Film, Info, Trash2, TriangleAlert } from "lucide-react";
import { useState } from "react";
import { AlertDialog } from "radix-ui";
import { Link, useFetcher } from "react-router";
import { describeLacking, type Lacking } from "~/core/checks/lacking-pictures";
import { counted } from "~/core/counted";
import { asSentence } from "~/core/sentence";
import { formatRate, type Rate } from "~/core/time/rate";
import { formatTimecode } from "~/core/time/timecode";
import { Button, IconButton } from "~/components/common/button";
import type { JobView } from "~/core/film-status";
import { JobStatus } from "./job-status";

export interface FilmView {
  id: string;
  name: string;
  info: { picture: { width: number; height: number }; rate: Rate; frames: number };
  lacking: Lacking;
  shots: number;
  jobs: JobView[];
}

/** One film of the library: what it looks like, what it is, how far its analysis is. */
export function FilmCard({ film }: { film: FilmView }) {
  const { picture, rate, frames } = film.info;
  const analysed = film.jobs.some((job) => job.kind === "analyse" && job.state === "done");
  const hasPoster = film.jobs.some((job) => job.kind === "proxy" && (job.state === "done" || job.progress > 0));
  return (
    <li className="group relative overflow-hidden rounded-lg border border-line bg-panel focus-within:border-soft hover:border-soft">
      <Link to={`/films/${film.id}`} className="block outline-offset-[-2px]" aria-label={`Open ${film.name}`}>
        <Poster filmId={film.id} ready={hasPoster} />
        <div className="px-4 pt-3">
          <h2 className="truncate font-display text-base font-semibold">{film.name}</h2>
          <p className="mt-0.5 text-xs text-soft">
            <span className="font-mono">{formatTimecode(frames, rate)}</span> · {picture.width} × {picture.height} ·{" "}
            {formatRate(rate)} fps
          </p>
        </div>
      </Link>
      <div className="min-h-10 px-4 pt-2 pb-4">
        {describeLacking(film.lacking, frames, rate).map((sentence) => (
          <p key={sentence} className="mb-1 flex gap-1.5 text-xs text-soft">
            <Info className="mt-px size-3.5 shrink-0" aria-hidden />
            {sentence}
          </p>
        ))}
        {analysed ? <p className="text-xs text-soft">{counted(film.shots, "shot")} found</p> : null}
        <JobStatus jobs={film.jobs} />
      </div>
      <DeleteFilm film={film} />
    </li>
  );
}

/** A film of which cannot be read what is stored of it: what to do, and nothing else. */
export function BrokenFilmCard({ film }: { film: { id: string; name: string; problem: string } }) {
  return (
    <li className="group relative overflow-hidden rounded-lg border border-line bg-panel p-4 focus-within:border-soft hover:border-soft">
      <h2 className="truncate pr-8 font-display text-base font-semibold">{film.name}</h2>
      <p role="alert" className="mt-2 flex gap-1.5 text-xs text-warn">
        <TriangleAlert className="mt-px size-3.5 shrink-0" aria-hidden />
        {asSentence(film.problem)}
      </p>
      <DeleteFilm film={film} />
    </li>
  );
}

function Poster({ filmId, ready }: { filmId: string; ready: boolean }) {
  const [failed, setFailed] = useState(false);
  return (
    <div className="flex aspect-video items-center justify-center bg-well">
      {ready && !failed ? (
        <img
          src={`/media/${filmId}/poster.jpg`}
          alt=""
          className="size-full object-contain"
          onError={() => setFailed(true)}
        />
      ) : (
        <Film className="size-8 text-soft/60" aria-hidden />
      )}
    </div>
  );
}

function DeleteFilm({ film }: { film: Pick<FilmView, "id" | "name"> }) {
  const fetcher = useFetcher();
  return (
    <AlertDialog.Root>
      <AlertDialog.Trigger asChild>
        <IconButton
          label={`Remove ${film.name}`}
          className="absolute top-2 right-2 bg-panel/85 opacity-0 group-focus-within:opacity-100 group-hover:opacity-100"
        >
          <Trash2 className="size-4" aria-hidden />
        </IconButton>
      </AlertDialog.Trigger>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="fixed inset-0 bg-black/50" />
        <AlertDialog.Content className="fixed top-1/2 left-1/2 w-96 -translate-1/2 rounded-lg border border-line bg-panel p-6 shadow-xl">
          <AlertDialog.Title className="font-display text-lg font-semibold">Remove this film?</AlertDialog.Title>
          <AlertDialog.Description className="mt-2 text-sm text-soft">
            {film.name}, its versions, your keys and its exports leave Glad Pan. The file that you added it from stays
            where it is. This cannot be undone.
          </AlertDialog.Description>
          <div className="mt-5 flex justify-end gap-2">
            <AlertDialog.Cancel asChild>
              <Button>Keep it</Button>
            </AlertDialog.Cancel>
            <AlertDialog.Action asChild>
              <Button
                variant="accent"
                onClick={() =>
                  void fetcher.submit({ intent: "delete", filmId: film.id }, { method: "post", action: "/?index" })
                }
              >
                Remove
              </Button>
            </AlertDialog.Action>
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}
