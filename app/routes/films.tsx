import { basename } from "node:path";
import { useMemo, useState } from "react";
import { Link, useRevalidator } from "react-router";
import { z } from "zod";
import { assertNever } from "~/core/basics/assert-never";
import { Id } from "~/core/basics/ids";
import { Refusal } from "~/core/basics/refusal";
import type { FilmAnswer } from "~/components/library/film-actions";
import { AddFilm } from "~/components/library/add-film";
import { LibraryContext } from "~/components/library/library-context";
import type { FilmView } from "~/components/library/library-view";
import { Sections } from "~/components/library/sections";
import { PresetChoice } from "~/components/library/preset-choice";
import { type LinkAnswer, MediaBrowser } from "~/components/library/media-browser";
import { UnfinishedUploads } from "~/components/library/unfinished-uploads";
import { UploadCard } from "~/components/library/upload-card";
import { useUploads } from "~/components/library/use-uploads";
import { Wordmark } from "~/components/common/wordmark";
import { isUnderWay, usePolling } from "~/components/common/use-polling";
import { lackingOf } from "~/core/checks/lacking-pictures";
import { listUndecoded } from "~/db/analysis.server";
import { countClips } from "~/db/clips.server";
import { readFilms } from "~/db/films.server";
import { listPresets } from "~/db/presets.server";
import { countVersions } from "~/db/versions.server";
import { findJob, listJobs, secondsLeft } from "~/db/jobs.server";
import { removeFilm } from "~/library/films/films.server";
import { duplicateFilm } from "~/library/projects/copy-film.server";
import { takeIn } from "~/library/projects/take-in.server";
import {
  bringBack,
  clearCopy,
  clearExports,
  deleteFilmForNow,
  putAway,
  renameFilm,
} from "~/library/films/keep-films.server";
import { openedFolders, requireOpen } from "~/library/folders/media-folders.server";
import { changeJob } from "~/queue/queue.server";
import {
  beginReplacement,
  giveUpReplacement,
  putEarlierBack,
  replaceSource,
} from "~/library/replace/replace-source.server";
import { hasReplaced } from "~/db/replaced-sources.server";
import { db, isOwnCopy, isMissing } from "~/db/workplace.server";
import { filmNameOf, listUploads } from "~/library/uploads/uploads.server";
import { countShots } from "~/db/shots.server";
import type { Route } from "./+types/films";
import { orDiskFull, readIntent, refusal, requireEvenDeleted, whyNot } from "./requests.server";
import { libraryTexts } from "~/texts/library";

const t = libraryTexts.filmsRoute;

export const meta = () => [{ title: t.filmsGladPan }];

export async function loader() {
  const known = readFilms(db());
  const films = known.films.map(({ id, name, file, info, fingerprint, putAway, deletedAt, addedAt }) => {
    const jobs = listJobs(db(), id)
      .filter((job) => job.kind !== "render")
      .map((job) => ({ ...job, secondsLeft: secondsLeft(job) }));
    const { picture, rate, frames } = info;
    const lacking = lackingOf(info, listUndecoded(db(), id));
    const counts = {
      shots: countShots(db(), id),
      versions: countVersions(db(), id),
      clips: countClips(db(), id),
    };
    const place = {
      isLinked: !isOwnCopy(file),
      isMissing: isMissing({ file }),
      fingerprint,
      hasEarlier: hasReplaced(db(), id),
    };
    return {
      id,
      name,
      info: { picture, rate, frames },
      lacking,
      jobs,
      ...counts,
      ...place,
      putAway,
      deletedAt,
      addedAt,
    } satisfies FilmView;
  });
  return {
    films,
    broken: known.broken,
    unfinished: listUploads(),
    hasFolders: (await openedFolders()).length > 0,
    presets: listPresets(db()),
  };
}

const Intent = z.discriminatedUnion("intent", [
  z.object({ intent: z.literal("rename"), filmId: Id, name: z.string().trim().min(1).max(200) }),
  z.object({
    intent: z.enum([
      ...(["duplicate", "put-away", "take-out", "delete", "bring-back", "clear-copy", "clear-renders"] as const),
      ...(["replace", "give-up-replacement", "put-earlier-back"] as const),
    ]),
    filmId: Id,
  }),
  z.object({ intent: z.literal("delete-for-good"), filmId: Id }),
  z.object({ intent: z.enum(["cancel", "retry"]), jobId: Id }),
  z.object({
    intent: z.literal("link"),
    path: z.string().min(1).max(4096),
    presetId: Id.optional(),
    replaces: Id.optional(),
  }),
]);
type Intent = z.infer<typeof Intent>;

/** Adds a film in an opened folder, or compares it with the film that it is to replace. */
async function link({ path, presetId, replaces }: Extract<Intent, { path: string }>): Promise<LinkAnswer> {
  try {
    const file = await requireOpen(path);
    const name = filmNameOf(basename(file));
    if (replaces === undefined) return { linked: await takeIn(file, name, "link", presetId ?? null) };
    await beginReplacement(requireEvenDeleted(replaces), file, name, "link");
    return { linked: replaces };
  } catch (error) {
    if (error instanceof Refusal) return { error: error.sentence };
    throw error;
  }
}

export async function action({ request }: Route.ActionArgs) {
  const intent = await readIntent(request, Intent);
  return orDiskFull(async () => {
    if (intent.intent === "link") return link(intent);
    if ("jobId" in intent) {
      const job = findJob(db(), intent.jobId);
      if (!job) throw refusal(404, t.thereIsNoSuchJob);
      await changeJob(job.id, intent.intent);
    } else return changeFilm(intent);
    return null;
  });
}

/** Carries out a command on a film; returns why if that fails. */
async function changeFilm(intent: Extract<Intent, { filmId: string }>): Promise<FilmAnswer> {
  return { error: await whyNot(() => carryOut(intent)) };
}

async function carryOut(intent: Extract<Intent, { filmId: string }>): Promise<void> {
  if (intent.intent === "delete-for-good") {
    // Includes unreadable films.
    if (!(await removeFilm(intent.filmId))) throw refusal(404, t.thereIsNoSuchFilm);
    return;
  }
  const film = requireEvenDeleted(intent.filmId);
  switch (intent.intent) {
    case "rename":
      return renameFilm(film, intent.name);
    case "duplicate":
      return void (await duplicateFilm(film));
    case "replace":
      return replaceSource(film);
    case "give-up-replacement":
      return giveUpReplacement(film);
    case "put-earlier-back":
      return putEarlierBack(film);
    case "put-away":
    case "take-out":
      return putAway(film, intent.intent === "put-away");
    case "delete":
      return deleteFilmForNow(film);
    case "bring-back":
      return bringBack(film);
    case "clear-copy":
      return clearCopy(film);
    case "clear-renders":
      return clearExports(film);
    default:
      return assertNever(intent);
  }
}

export default function Films({ loaderData }: Route.ComponentProps) {
  const { films, broken, unfinished, hasFolders, presets } = loaderData;
  const revalidator = useRevalidator();
  const reload = () => void revalidator.revalidate();
  const [presetId, setPresetId] = useState<string | null>(null);
  const { uploads, add, dismiss, goOn } = useUploads(unfinished, presetId, reload);
  const library = useMemo(() => ({ hasFolders }), [hasFolders]);
  const sent = new Set(uploads.map(({ serverId }) => serverId));
  const busy = films.some((film) => film.jobs.some(isUnderWay));
  usePolling(busy, 1000);
  return (
    <div className="min-h-full">
      <header className="flex items-center gap-4 border-b border-line bg-panel px-8 py-4">
        <Wordmark />
        <div className="grow" />
        <Link to="/exports" className="text-sm text-soft hover:text-ink">
          {t.exports}
        </Link>
        <PresetChoice presets={presets} value={presetId} onChange={setPresetId} />
        {hasFolders && <MediaBrowser presets={presets} presetId={presetId} onPreset={setPresetId} />}
        <AddFilm onFiles={add} />
      </header>
      <main className="mx-auto max-w-6xl px-8 py-8">
        <LibraryContext value={library}>
          <Sections films={films} broken={broken}>
            <UnfinishedUploads uploads={unfinished.filter(({ id }) => !sent.has(id))} onDiscarded={reload} />
          </Sections>
        </LibraryContext>
      </main>
      {uploads.length > 0 && (
        <ul
          aria-label={t.uploads}
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
