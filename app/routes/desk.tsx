import { useCallback, useEffect, useMemo } from "react";
import { type ShouldRevalidateFunctionArgs, useRevalidator, useSearchParams } from "react-router";
import { z } from "zod";
import { useShared } from "~/components/common/use-shared";
import { Desk } from "~/components/desk/desk";
import { useEdits } from "~/components/desk/hooks/use-edits";
import { useStatus } from "~/components/desk/hooks/use-status";
import { lackingOf } from "~/core/checks/lacking-pictures";
import { NO_FAULTS, type PictureFaults, pictureFaults } from "~/core/checks/picture-faults";
import type { Version } from "~/core/version/film-state";
import { NamePattern } from "~/core/formats/file-names";
import { offeredFormats } from "~/media/encoders.server";
import { clockOfFilm } from "~/core/film/film-info";
import { Id } from "~/core/basics/ids";
import { Refusal } from "~/core/basics/refusal";
import { readActivity } from "~/db/activity.server";
import { listAnalysed, listUndecoded } from "~/db/analysis.server";
import { historyOf } from "~/db/edits.server";
import { loadState } from "~/db/film-state.server";
import type { FilmRow } from "~/db/films.server";
import { findJob } from "~/db/jobs.server";
import { listMarkTracks } from "~/db/marks.server";
import { findVersion } from "~/db/versions.server";
import { deleteExport, requestExports } from "~/library/exports/exports.server";
import { filmStatus } from "~/library/films/film-status.server";
import { changeSound, useFields } from "~/library/films/films.server";
import { besideFolder, outFolders } from "~/library/folders/out-folders.server";
import { changeJob, JOB_CHANGES } from "~/queue/queue.server";
import { db } from "~/db/workplace.server";
import type { Route } from "./+types/desk";
import { orDiskFull, orRefuse, readIntent, refusal, requireFilm } from "./requests.server";
import { deskTexts } from "~/texts/desk";

const t = deskTexts.deskRoute;

export const meta = ({ loaderData }: Route.MetaArgs) => [{ title: t.gladPan(loaderData?.film.name) }];

/** Everything about a film except its tracks and pictures, which are loaded as needed. */
export async function loader({ params }: Route.LoaderArgs) {
  const film = requireFilm(params.filmId);
  return {
    film: { id: film.id, name: film.name, fingerprint: film.fingerprint, ...film.info, clock: clockOfFilm(film.info) },
    loaded: orRefuse(() => ({
      revision: film.revision,
      state: loadState(db(), film),
      history: historyOf(db(), film),
    })),
    findings: { analysed: listAnalysed(db(), film.id), marks: listMarkTracks(db(), film.id) },
    undecoded: listUndecoded(db(), film.id),
    faults: faultsOf(film),
    status: filmStatus(film),
    out: { folders: outFolders(), beside: besideFolder(film) !== null, formats: await offeredFormats() },
  };
}

/** The desk has all versions: showing another one needs no new data. */
export function shouldRevalidate({ currentUrl, nextUrl, defaultShouldRevalidate }: ShouldRevalidateFunctionArgs) {
  return currentUrl.search === nextUrl.search && defaultShouldRevalidate;
}

/** Ranges of the film that flash, stay black or are frozen, as far as it has been analysed. */
function faultsOf({ id, info: { frames, rate } }: FilmRow): PictureFaults {
  const activity = readActivity(db(), id, frames);
  return activity ? pictureFaults(activity, rate) : NO_FAULTS;
}

const Intent = z.discriminatedUnion("intent", [
  z.object({
    intent: z.literal("export"),
    versionIds: z
      .string()
      .transform((ids) => ids.split(","))
      .pipe(z.array(Id).min(1).max(50)),
    pattern: NamePattern.optional(),
    replaces: z.stringbool().default(false),
  }),
  z.object({ intent: z.enum([...JOB_CHANGES, "delete"]), jobId: Id }),
  z.object({ intent: z.literal("sound"), index: z.coerce.number().int().min(0).max(1000) }),
  z.object({ intent: z.literal("fields") }),
]);

/** Changes how the film is read. */
async function changeReading(film: FilmRow, change: () => Promise<void>): Promise<null> {
  await change().catch((error: unknown) => {
    if (error instanceof Refusal) throw refusal(error.status, `${film.name}: ${error.message}.`);
    throw error;
  });
  return null;
}

export async function action({ params, request }: Route.ActionArgs) {
  const film = requireFilm(params.filmId);
  const intent = await readIntent(request, Intent);
  return orDiskFull(async () => {
    if (intent.intent === "export") {
      const versions = intent.versionIds.map((id) => findVersion(db(), film.id, id));
      if (versions.some((version) => !version)) throw refusal(404, t.thereIsNoSuchVersion);
      orRefuse(() => requestExports(film, versions as Version[], intent));
      return null;
    }
    if (intent.intent === "sound") return changeReading(film, () => changeSound(film, intent.index));
    if (intent.intent === "fields") return changeReading(film, () => useFields(film));
    const job = findJob(db(), intent.jobId);
    if (job?.filmId !== film.id) throw refusal(404, t.thereIsNoSuchJob);
    if (intent.intent !== "delete") await changeJob(job.id, intent.intent);
    else if (job.kind === "render") await deleteExport(job);
    return null;
  });
}

export default function DeskRoute({ loaderData }: Route.ComponentProps) {
  // Another film gets a new desk, with no state left over.
  return <FilmDesk key={loaderData.film.id} loaderData={loaderData} />;
}

function FilmDesk({ loaderData }: Pick<Route.ComponentProps, "loaderData">) {
  const { film, loaded, undecoded, faults, findings: found, out, status: loadedStatus } = useShared(loaderData);
  const { revalidate } = useRevalidator();
  const reload = useCallback(() => revalidate(), [revalidate]);
  const [status, refreshStatus] = useStatus(film.id, loadedStatus);
  const { takeLoaded, ...content } = useEdits(film.id, loaded, refreshStatus, reload);
  useEffect(() => void takeLoaded(loaded), [takeLoaded, loaded]);

  const { isBusy } = content;
  // The rest of the page's data is loaded again only when something in it is new.
  const isAnalysing = status.jobs.some(({ kind }) => kind === "analyse");
  const isBehind =
    status.findings !== loadedStatus.findings ||
    status.revision > content.revision ||
    isAnalysing === loaded.state.film.analysed;
  useEffect(() => {
    // A pending change brings its own result.
    if (isBehind && !isBusy()) void reload();
  }, [isBehind, isBusy, status, reload]);

  const [search] = useSearchParams();
  const { versions } = content.state;
  const version = versions.find(({ id }) => id === search.get("version")) ?? versions[0]!;
  const facts = useMemo(() => ({ ...film, lacking: lackingOf(film, undecoded) }), [film, undecoded]);
  const { longHolds } = film.grid;
  const findings = useMemo(() => ({ ...found, longHolds, undecoded, faults }), [found, longHolds, undecoded, faults]);
  return (
    <Desk {...content} film={film} facts={facts} version={version} findings={findings} status={status} out={out} />
  );
}
