import { z } from "zod";
import { usePolling } from "~/components/common/use-polling";
import { ExportsPage } from "~/components/exports/exports-page";
import { Id } from "~/core/basics/ids";
import { readFilms } from "~/db/films.server";
import { findJob, listRenders, orderRenders } from "~/db/jobs.server";
import { readableOrNull } from "~/db/readable";
import { findVersion, listVersions } from "~/db/versions.server";
import { deleteExport, listAllExports, requestExports } from "~/library/exports/exports.server";
import { changeJob, JOB_CHANGES } from "~/queue/queue.server";
import { db } from "~/db/workplace.server";
import type { Route } from "./+types/exports";
import { orDiskFull, orRefuse, readIntent, refusal, requireFilm } from "./requests.server";
import { exportsTexts } from "~/texts/exports";

const t = exportsTexts.exportsRoute;

export const meta = () => [{ title: t.title }];

export function loader() {
  const films = readFilms(db()).films.filter(({ deletedAt, putAway }) => deletedAt === null && !putAway);
  return {
    ...listAllExports(),
    films: films.map(({ id, name }) => ({
      id,
      name,
      // A film with unreadable versions says so when it is opened; it does not affect the others.
      versions: (readableOrNull(() => listVersions(db(), id)) ?? []).map(
        ({ id: of, name: called, width, height, output }) => ({ id: of, name: called, width, height, output }),
      ),
    })),
  };
}

/** Ids separated by commas. */
const Ids = z
  .string()
  .transform((ids) => ids.split(","))
  .pipe(z.array(Id).max(1000));

const Intent = z.discriminatedUnion("intent", [
  z.object({
    intent: z.literal("export"),
    /** Versions by film, as JSON. */
    selected: z
      .string()
      .transform((text, context): unknown => {
        try {
          return JSON.parse(text);
        } catch {
          context.addIssue("this is not JSON");
          return z.NEVER;
        }
      })
      .pipe(z.record(Id, z.array(Id).min(1).max(50))),
  }),
  z.object({ intent: z.enum([...JOB_CHANGES, "delete"]), jobId: Id }),
  z.object({ intent: z.literal("order"), jobIds: Ids }),
  z.object({ intent: z.enum(["pause-all", "resume-all"]) }),
]);

export async function action({ request }: Route.ActionArgs) {
  const intent = await readIntent(request, Intent);
  return orDiskFull(async () => {
    switch (intent.intent) {
      case "export":
        for (const [filmId, ids] of Object.entries(intent.selected)) {
          const film = requireFilm(filmId);
          const versions = ids.map((id) => {
            const version = findVersion(db(), filmId, id);
            if (!version) throw refusal(404, t.thereIsNoSuchVersion);
            return version;
          });
          orRefuse(() => requestExports(film, versions));
        }
        return null;
      case "order":
        orderRenders(db(), intent.jobIds);
        return null;
      case "pause-all":
      case "resume-all": {
        const open = listRenders(db()).filter(({ state }) => state === "queued" || state === "running");
        // Waiting ones first: none of them takes the place of one that is stopped.
        const waiting = open.toSorted((a, b) => Number(a.state === "running") - Number(b.state === "running"));
        for (const { id } of waiting) await changeJob(id, intent.intent === "pause-all" ? "pause" : "resume");
        return null;
      }
      default: {
        const job = findJob(db(), intent.jobId);
        if (job?.kind !== "render") throw refusal(404, t.thereIsNoSuchExport);
        if (intent.intent === "delete") await deleteExport(job);
        else await changeJob(job.id, intent.intent);
        return null;
      }
    }
  });
}

export default function ExportsRoute({ loaderData }: Route.ComponentProps) {
  const { queue, files, films } = loaderData;
  usePolling(
    queue.some(({ isPaused }) => !isPaused),
    1000,
  );
  return <ExportsPage queue={queue} files={files} films={films} />;
}
