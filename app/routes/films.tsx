import { useRevalidator } from "react-router";
import { z } from "zod";
import { Id } from "~/core/ids";
import { BrokenFilmCard, FilmCard } from "~/components/library/film-card";
import { AddFilm } from "~/components/library/add-film";
import { type LinkAnswer, MediaBrowser } from "~/components/library/media-browser";
import { UnfinishedUploads } from "~/components/library/unfinished-uploads";
import { UploadCard } from "~/components/library/upload-card";
import { useUploads } from "~/components/library/use-uploads";
import { Wordmark } from "~/components/common/wordmark";
import { isUnderWay, usePolling } from "~/components/common/use-polling";
import { lackingOf } from "~/core/checks/lacking-pictures";
import { listUndecoded } from "~/db/analysis.server";
import { readFilms } from "~/db/films.server";
import { findJob, listJobs, secondsLeft } from "~/db/jobs.server";
import { linkFilm, removeFilm } from "~/jobs/films.server";
import { NotOpenError, openedFolders, requireOpen } from "~/jobs/media-folders.server";
import { FilmError } from "~/media/film-tool.server";
import { changeJob } from "~/jobs/queue.server";
import { db } from "~/jobs/workplace.server";
import { listUploads } from "~/jobs/uploads.server";
import { countShots } from "~/db/shots.server";
import type { Route } from "./+types/films";
import { orDiskFull, readIntent, refusal } from "./requests.server";

export const meta = () => [{ title: "Films · Glad Pan" }];

export async function loader() {
  const known = readFilms(db());
  const films = known.films.map(({ id, name, info }) => {
    const jobs = listJobs(db(), id)
      .filter((job) => job.kind !== "render")
      .map((job) => ({ ...job, secondsLeft: secondsLeft(job) }));
    const { picture, rate, frames } = info;
    const lacking = lackingOf(info, listUndecoded(db(), id));
    return { id, name, info: { picture, rate, frames }, lacking, jobs, shots: countShots(db(), id) };
  });
  return { films, broken: known.broken, unfinished: listUploads(), hasFolders: (await openedFolders()).length > 0 };
}

const Intent = z.discriminatedUnion("intent", [
  z.object({ intent: z.literal("delete"), filmId: Id }),
  z.object({ intent: z.enum(["cancel", "retry"]), jobId: Id }),
  z.object({ intent: z.literal("link"), path: z.string().min(1).max(4096) }),
]);

/** Adds a film that lies in a folder that the operator has opened. */
async function link(path: string): Promise<LinkAnswer> {
  try {
    return { linked: await linkFilm(await requireOpen(path)) };
  } catch (error) {
    if (error instanceof FilmError || error instanceof NotOpenError) return { error: error.message };
    throw error;
  }
}

export async function action({ request }: Route.ActionArgs) {
  const intent = await readIntent(request, Intent);
  return orDiskFull(async () => {
    if (intent.intent === "link") return link(intent.path);
    if (intent.intent === "delete") {
      if (!(await removeFilm(intent.filmId))) throw refusal(404, "There is no such film in your library.");
      return null;
    }
    const job = findJob(db(), intent.jobId);
    if (!job) throw refusal(404, "There is no such job.");
    await changeJob(job.id, intent.intent);
    return null;
  });
}

export default function Films({ loaderData: { films, broken, unfinished, hasFolders } }: Route.ComponentProps) {
  const revalidator = useRevalidator();
  const reload = () => void revalidator.revalidate();
  const { uploads, add, dismiss, goOn } = useUploads(unfinished, reload);
  const sent = new Set(uploads.map(({ serverId }) => serverId));
  const busy = films.some((film) => film.jobs.some(isUnderWay));
  usePolling(busy, 1000);
  return (
    <div className="min-h-full">
      <header className="flex items-center gap-4 border-b border-line bg-panel px-8 py-4">
        <Wordmark />
        <div className="grow" />
        {hasFolders && <MediaBrowser />}
        <AddFilm onFiles={add} />
      </header>
      <main className="mx-auto max-w-6xl px-8 py-8">
        <h1 className="font-display text-3xl font-semibold tracking-tight">Films</h1>
        <UnfinishedUploads uploads={unfinished.filter(({ id }) => !sent.has(id))} onDiscarded={reload} />
        {films.length + broken.length === 0 ? (
          <p className="mt-4 max-w-md text-soft">
            Nothing here yet. Add a finished film; Glad Pan finds its shots and follows whoever matters in each, and you
            get it back upright, square, or in any other shape. Your original is never touched.
          </p>
        ) : (
          <ul className="mt-6 grid grid-cols-[repeat(auto-fill,minmax(17rem,1fr))] gap-6">
            {films.map((film) => (
              <FilmCard key={film.id} film={film} />
            ))}
            {broken.map((film) => (
              <BrokenFilmCard key={film.id} film={film} />
            ))}
          </ul>
        )}
      </main>
      {uploads.length > 0 && (
        <ul
          aria-label="Uploads"
          className="fixed right-6 bottom-6 z-30 flex max-h-[90vh] w-80 flex-col gap-2 overflow-y-auto"
        >
          {uploads.map((upload) => (
            <UploadCard
              key={upload.id}
              upload={upload}
              onGoOn={() => goOn(upload)}
              onDismiss={() => dismiss(upload.id)}
            />
          ))}
        </ul>
      )}
    </div>
  );
}
