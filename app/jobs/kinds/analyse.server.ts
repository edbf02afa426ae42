import { clipBorders } from "~/core/clips/clip";
import { dropChunks } from "~/db/analysis.server";
import { listClips } from "~/db/clips.server";
import { countShots } from "~/db/shots.server";
import { analyseInPasses } from "~/pipelines/analyse-in-passes.server";
import type { JobGround, JobOptions } from "../job-options";
import { databaseStore } from "./analysis-store.server";

/** Analyses a film, as far as that has not been done. */
export async function analyse({ db, film, row }: JobGround, { onProgress, signal }: JobOptions) {
  await analyseInPasses(film, {
    store: databaseStore(db, row.id),
    borders: clipBorders(listClips(db, row.id)),
    signal,
    onProgress: (share) => onProgress("Looking for shots and people", share),
  });
  dropChunks(db, row.id, film.info.frames);
  return { shots: countShots(db, row.id) };
}
