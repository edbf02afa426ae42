import { data } from "react-router";
import { z } from "zod";
import { Command } from "~/core/edits/command";
import { FormatError } from "~/core/formats/cut-list";
import { ReshapeError } from "~/core/shots/reshape";
import { edit, EditError, StaleRevisionError, stepHistory } from "~/db/edits.server";
import { findFilm } from "~/db/films.server";
import { SubjectError } from "~/db/subject-edits.server";
import { followUntracked } from "~/jobs/marks.server";
import { db } from "~/jobs/workplace.server";
import type { Route } from "./+types/edit";

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
  const { filmId } = params;
  const revision = () => findFilm(db(), filmId)?.revision ?? 0;
  const parsed = Change.safeParse(await request.json());
  if (!parsed.success) {
    const error = z.prettifyError(parsed.error);
    return data<ChangeOutcome>({ revision: revision(), error }, { status: 400 });
  }
  const change = parsed.data;
  try {
    const concerned = change.do === "edit" ? undefined : stepHistory(db(), filmId, change.revision, change.do);
    if (change.do === "edit") edit(db(), filmId, change.revision, change.command);
    followUntracked(db(), filmId);
    return data<ChangeOutcome>({ revision: revision(), concerned });
  } catch (error) {
    const stale = error instanceof StaleRevisionError;
    if (!stale && !isRefusal(error)) throw error;
    return data<ChangeOutcome>({ revision: revision(), error: (error as Error).message, stale }, { status: 409 });
  }
}
