import { assertNever } from "~/core/basics/assert-never";
import type { JobKind } from "~/core/film/film-status";
import type { Db } from "~/db/database.server";
import { findFilm } from "~/db/films.server";
import type { JobRow } from "~/db/jobs.server";
import { sourceFile } from "~/db/workplace.server";
import { requireSource } from "~/library/films/require-source.server";
import { followThing } from "~/library/films/marks.server";
import type { JobOptions } from "./job-options";
import { analyse } from "./kinds/analyse.server";
import { conformClips } from "../library/clips/conform-clips.server";
import { match } from "./kinds/match.server";
import { makeLightCopy } from "./kinds/proxy.server";
import { renderVersion } from "./kinds/render.server";
import { libraryErrors } from "~/texts/library-errors";

/** A comparison can do with the proxy, and joined clips do not exist yet. */
const WITHOUT_SOURCE: readonly JobKind[] = ["match", "join"];

/** Carries out a job and returns its result. */
export async function runJob(db: Db, job: JobRow, options: JobOptions): Promise<unknown> {
  const row = findFilm(db, job.filmId);
  if (!row) throw new Error(libraryErrors.films.noLongerThere);
  const { work } = job;
  if (!work) throw new Error(libraryErrors.exports.unreadableJob);
  if (!WITHOUT_SOURCE.includes(work.kind)) requireSource(row);
  const { name, info } = row;
  const ground = { db, job, row, film: { file: sourceFile(row), name, info } };
  const { onProgress, signal } = options;
  const step = (text: string) => ({ signal, onProgress: (share: number) => onProgress(text, share) });
  switch (work.kind) {
    case "join":
      return conformClips(db, row, step("Preparing the clips"));
    case "proxy":
      return makeLightCopy(ground, options);
    case "analyse":
      return analyse(ground, options);
    case "follow":
      return followThing(db, ground.film, row.id, work.asked.basis, step("Following the mark"));
    case "match":
      return match(ground, work, options);
    case "render":
      return renderVersion(ground, work.asked, options);
    default:
      return assertNever(work);
  }
}
