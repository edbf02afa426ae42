import { useEffect, useMemo, useState } from "react";
import { useFetcher } from "react-router";
import { z } from "zod";
import { Id } from "~/core/ids";
import { Desk } from "~/components/desk/desk";
import type { DeskShot } from "~/components/desk/state/desk-types";
import { withPendingKeys } from "~/components/desk/state/pending-keys";
import { PerShot } from "~/components/desk/state/per-shot";
import { useEdits } from "~/components/desk/state/use-edits";
import { type FramingInput, usePaths } from "~/components/desk/state/use-paths";
import { useLightCopy } from "~/components/desk/picture/use-piece-stream";
import { isUnderWay, usePolling } from "~/components/common/use-polling";
import { lackingLooks, lackingOf } from "~/core/checks/lacking-pictures";
import { secondLooks } from "~/core/checks/second-looks";
import { followedTrack } from "~/core/path/solve-version";
import { castOf } from "~/core/subjects/choosing/cast";
import { followRule } from "~/core/subjects/choosing/follow-rule";
import type { Track } from "~/core/subjects/tracking/track";
import { ChoiceError } from "~/media/film-choices";
import { clockOfFilm } from "~/media/film-file";
import { inRange } from "~/core/time/rate";
import { findCandidates, listUndecoded } from "~/db/analysis.server";
import { historyOf } from "~/db/edits.server";
import { listMarks } from "~/db/marks.server";
import { listPeople } from "~/db/people.server";
import { findJob, isAnalysed, listJobs, secondsLeft } from "~/db/jobs.server";
import type { FilmRow } from "~/db/films.server";
import { findVersion, listVersions } from "~/db/versions.server";
import { listExports, requestExport } from "~/jobs/exports.server";
import { foundVersion } from "~/jobs/found-tracks.server";
import { loadSettings } from "~/jobs/framings.server";
import { changeSound, useFields } from "~/jobs/films.server";
import { changeJob } from "~/jobs/queue.server";
import { db } from "~/jobs/workplace.server";
import type { loader as tracksLoader } from "./tracks";
import type { Route } from "./+types/desk";
import { orDiskFull, readIntent, refusal, requireFilm } from "./requests.server";

export const meta = ({ loaderData }: Route.MetaArgs) => [{ title: `${loaderData?.film.name ?? "Film"} · Glad Pan` }];

export function loader({ params, request }: Route.LoaderArgs) {
  const film = requireFilm(params.filmId);
  const versions = listVersions(db(), film.id);
  const wanted = new URL(request.url).searchParams.get("version");
  const version = versions.find((v) => v.id === wanted) ?? versions[0]!;
  const settings = loadSettings(db(), film.id, version.id);
  return {
    film: { id: film.id, name: film.name, ...film.info, clock: clockOfFilm(film.info) },
    revision: film.revision,
    sensitivity: film.sensitivity,
    /** How much spoke for each place that may be a cut, by frame. */
    strengths: Object.fromEntries(
      findCandidates(db(), film.id).map(({ transition, strength }) => [transition.frame, strength]),
    ) as Record<number, number>,
    versions,
    version,
    ...settings,
    /** Changes with the tracks, which are much data and loaded apart. */
    found: foundVersion(db(), film.id, settings.shots),
    people: listPeople(db(), film.id).map(({ id, number, name, mergedInto }) => ({ id, number, name, mergedInto })),
    marks: listMarks(db(), film.id),
    undecoded: listUndecoded(db(), film.id),
    jobs: listJobs(db(), film.id)
      .filter(({ kind, state }) => kind !== "render" && (kind !== "follow" || state !== "done"))
      .map((job) => ({ ...job, secondsLeft: secondsLeft(job) })),
    exports: listExports(film.id),
    history: historyOf(db(), film.id),
  };
}

const Intent = z.discriminatedUnion("intent", [
  z.object({ intent: z.literal("export"), versionId: Id }),
  z.object({ intent: z.enum(["cancel", "retry"]), jobId: Id }),
  z.object({ intent: z.literal("sound"), index: z.coerce.number().int().min(0).max(1000) }),
  z.object({ intent: z.literal("fields") }),
]);

/** Changes how the film is taken. */
async function choose(film: FilmRow, change: () => Promise<void>): Promise<null> {
  await change().catch((error: unknown) => {
    if (error instanceof ChoiceError) throw refusal(422, `${film.name}: ${error.message}.`);
    throw error;
  });
  return null;
}

export async function action({ params, request }: Route.ActionArgs) {
  const film = requireFilm(params.filmId);
  const intent = await readIntent(request, Intent);
  return orDiskFull(async () => {
    if (intent.intent === "export") {
      const version = findVersion(db(), film.id, intent.versionId);
      if (!version) throw refusal(404, "There is no such version of this film.");
      if (!isAnalysed(db(), film.id)) throw refusal(409, "The film is still being analysed.");
      requestExport(film, version);
      return null;
    }
    if (intent.intent === "sound") return choose(film, () => changeSound(film, intent.index));
    if (intent.intent === "fields") return choose(film, () => useFields(film));
    const job = findJob(db(), intent.jobId);
    if (job?.filmId !== film.id) throw refusal(404, "There is no such job.");
    await changeJob(job.id, intent.intent);
    return null;
  });
}

export default function DeskRoute({ loaderData }: Route.ComponentProps) {
  const { film, versions, version, jobs, exports, history, revision } = loaderData;
  const jobsUnderWay = jobs.filter(isUnderWay);
  // A mark is followed in a moment, and somebody waits for it.
  const interval = jobsUnderWay.some(({ kind }) => kind === "follow") ? 200 : 800;
  usePolling(jobsUnderWay.length > 0 || exports.some(isUnderWay), interval);
  const edits = useEdits(film.id, revision);
  const source = useLightCopy(film);
  const shots = useShots(loaderData, edits.pending);

  const analysed = jobs.some((job) => job.kind === "analyse" && job.state === "done");
  return (
    <Desk
      key={film.id}
      film={film}
      facts={{ ...film, lacking: lackingOf(film, loaderData.undecoded) }}
      source={source}
      versions={versions}
      version={version}
      shots={shots}
      jobs={jobs}
      people={loaderData.people}
      sensitivity={analysed ? loaderData.sensitivity : null}
      exports={exports}
      history={history}
      edits={edits}
      blocked={analysed ? null : "The analysis is still running; a version can be rendered when it is done."}
    />
  );
}

/** What the version of the tracks is before there are any shots. */
const NOTHING_FOUND = JSON.stringify([[], [], [], []]);

/** One and the same for all shots in which nothing was found yet. */
const NO_TRACKS: Track[] = [];

type SettledShot = Omit<DeskShot, "framed" | "looks">;

const inputOf = ({
  id,
  start,
  end,
  settings,
  subject,
  carry,
  protect,
  active,
  handKeys,
  tracks,
}: SettledShot): FramingInput => ({
  shotId: id,
  framing: { range: { start, end }, settings, rule: followRule(subject), carry, protect, active, handKeys, tracks },
});

type LoaderData = Route.ComponentProps["loaderData"];

/** The shots with what was found in them, the changes that are on their way, and the paths that follow. */
function useShots(
  { film, version, shots, handKeys, strengths, people, marks, undecoded, found }: LoaderData,
  pending: ReturnType<typeof useEdits>["pending"],
): DeskShot[] {
  const tracks = useFetcher<typeof tracksLoader>();
  const { load } = tracks;
  // What was loaded may be older than what the page knows of: a load can be overtaken by a poll.
  const missing = found !== NOTHING_FOUND && tracks.state === "idle" && tracks.data?.found !== found;
  useEffect(() => {
    if (missing) void load(`/films/${film.id}/tracks`);
  }, [missing, found, film.id, load]);
  const byShot = tracks.data?.byShot;
  const { num, den } = film.rate;
  const { width, height } = film.picture;
  // What is known of the film's file does not change while it is on the desk.
  const [longHolds] = useState(film.grid.longHolds);
  const picture = useMemo(() => ({ width, height }), [width, height]);
  const rate = useMemo(() => ({ num, den }), [num, den]);
  const target = useMemo(() => ({ width: version.width, height: version.height }), [version.width, version.height]);

  // While a window is dragged this runs with every move of the pointer: what is known of the other shots stays.
  const [known] = useState(() => ({
    settled: new PerShot<SettledShot>(),
    inputs: new PerShot<FramingInput>(),
    shots: new PerShot<DeskShot>(),
  }));
  const settled = useMemo(() => {
    const keys = withPendingKeys(handKeys, pending, version.id);
    return shots.map((shot, i) => {
      const isIn = ({ frame }: { frame: number }) => inRange(frame, shot);
      const [its, itsMarks] = [keys.filter(isIn), marks.filter(isIn)];
      const found = byShot?.[shot.id] ?? NO_TRACKS;
      const from = [shot, i, found, people, picture, its.length, ...its, ...itsMarks];
      return known.settled.get(shot.id, from, () => ({
        ...shot,
        number: i + 1,
        handKeys: its,
        tracks: found,
        cast: castOf(found, { start: shot.start, end: shot.end }, picture, people),
        marks: itsMarks,
      }));
    });
  }, [known, shots, handKeys, pending, version.id, byShot, picture, people, marks]);

  const inputs = useMemo(
    () => (byShot ? settled.map((shot) => known.inputs.get(shot.id, [shot], () => inputOf(shot))) : []),
    [known, settled, byShot],
  );
  const paths = usePaths(inputs, picture, target, rate);
  return useMemo(
    () =>
      settled.map((shot) => {
        const framed = paths.get(shot.id) ?? null;
        const strength = strengths[shot.start];
        const brokenTo = undecoded.findLast(({ start }) => start < shot.end)?.end;
        return known.shots.get(shot.id, [shot, framed, strength, target, picture, brokenTo], () => {
          const subject = framed && followedTrack(framed, shot.tracks);
          const windows = framed?.windows ?? [];
          const looks = secondLooks(
            shot,
            strength,
            subject,
            windows,
            target,
            shot.active ?? picture,
            framed?.certainty,
          );
          looks.push(...lackingLooks({ longHolds, undecoded }, shot, rate));
          return { ...shot, framed, looks };
        });
      }),
    [known, settled, paths, target, picture, strengths, longHolds, undecoded, rate],
  );
}
