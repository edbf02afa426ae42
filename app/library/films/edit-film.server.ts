import type { Change } from "~/core/edits/answer";
import { inTransaction } from "~/db/database.server";
import { assertNever } from "~/core/basics/assert-never";
import { edit, type Edited, goTo, returnTo, stepHistory } from "~/db/edits.server";
import { followUntracked } from "./marks.server";
import { wakeQueue } from "~/queue/queue.server";
import { db } from "~/db/workplace.server";

function make(filmId: string, revision: number, change: Change): Edited | null {
  switch (change.do) {
    case "edit":
      return edit(db(), filmId, revision, change.command);
    case "undo":
    case "redo":
      return stepHistory(db(), filmId, revision, change.do);
    case "go-to":
      return goTo(db(), filmId, revision, change.sequence);
    case "return-to":
      return returnTo(db(), filmId, revision, change.checkpointId);
    default:
      return assertNever(change);
  }
}

/**
 * Makes a change to a film, and queues the jobs that follow from it, in one transaction.
 * @returns what was changed; null where there was nothing to undo or redo, or the film is in that state already
 * @throws Refusal if the film has changed since `revision`, or if the change makes no sense
 */
export function editFilm(filmId: string, revision: number, change: Change): Edited | null {
  const { edited, hasJobs } = inTransaction(db(), () => {
    const edited = make(filmId, revision, change);
    return { edited, hasJobs: followUntracked(db(), filmId) };
  });
  if (hasJobs) wakeQueue();
  return edited;
}
