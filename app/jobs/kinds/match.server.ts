import type { WorkOf } from "~/db/job-work";
import { listShots } from "~/db/shots.server";
import { proxyFolder, sourceFile } from "~/db/workplace.server";
import { matchFilms } from "~/pipelines/match-films.server";
import type { JobGround, JobOptions } from "../job-options";

/** Finds a film's shots in a new export of it. */
export async function match({ db, film, row }: JobGround, { asked }: WorkOf<"match">, options: JobOptions) {
  const { file, name, info } = asked;
  const other = { file: sourceFile({ file }), name, info };
  const proxy = proxyFolder(row.id);
  return { matches: await matchFilms(film, other, listShots(db, row.id), { ...options, proxy }) };
}
