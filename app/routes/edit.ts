import { data } from "react-router";
import { z } from "zod";
import { Command } from "~/core/edits/command";
import { FormatError } from "~/core/formats/cut-list";
import { ReshapeError } from "~/core/shots/reshape";
import { edit, EditError, StaleRevisionError, stepHistory } from "~/db/edits.server";
import { findFilm } from "~/db/films.server";
import { SubjectError } from "~/db/subject-edits.server";
import { isDiskFull } from "~/disk/disk-space.server";
import { followUntracked } from "~/jobs/marks.server";
import { dataFolder, db, diskIsFull } from "~/jobs/workplace.server";
import type { Route } from "./+types/edit";
import { readJson, requireFilm } from "./requests.server";

const Change = z.discriminatedUnion("do", [
  z.object({ do: z.literal("edit"), revision: z.int(), command: Command }),
  z.object({ do: z.enum(["undo", "redo"]), revision: z.int() }),
]);
export type Change = z.infer<typeof Change>;

export interface ChangeOutcome {
  /** The film's revision now. */
  revision: number;
  /** What an undo or redo concerned; null when there was nothing. */
  concerned?: string | null;
  error?: string;
  /** Whether the change was made to an older state than there is. */
  stale?: boolean;
}

/** Whether the change makes no sense, and nothing is broken. */
const isRefusal = (error: unknown): error is Error =>
  error instanceof EditError ||
  error instanceof ReshapeError ||
  error instanceof SubjectError ||
  error instanceof FormatError;

/** Carries out one change to a film. */
export async function action({ params, request }: Route.ActionArgs) {
  const { id } = requireFilm(params.filmId);
  const change = await readJson(request, Change);
  const refused = (status: number, outcome: Omit<ChangeOutcome, "revision">) =>
    data<ChangeOutcome>({ revision: findFilm(db(), id)?.revision ?? 0, ...outcome }, { status });
  try {
    const concerned = change.do === "edit" ? undefined : stepHistory(db(), id, change.revision, change.do);
    if (change.do === "edit") edit(db(), id, change.revision, change.command);
    followUntracked(db(), id);
    return data<ChangeOutcome>({ revision: findFilm(db(), id)!.revision, concerned });
  } catch (error) {
    if (error instanceof StaleRevisionError) return refused(409, { error: error.message, stale: true });
    if (isRefusal(error)) return refused(409, { error: error.message });
    if (isDiskFull(error, dataFolder())) return refused(507, { error: diskIsFull() });
    throw error;
  }
}
