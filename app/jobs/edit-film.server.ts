import type { Change } from "~/core/edits/answer";
import { inTransaction } from "~/db/database.server";
import { edit, type Edited, stepHistory } from "~/db/edits.server";
import { followUntracked } from "./marks.server";
import { wakeQueue } from "./queue.server";
import { db } from "./workplace.server";

/**
 * Makes a change to a film, and queues what has to be looked for because of it: all of that or nothing.
 *
 * @returns what was changed; null where there was nothing to undo or redo
 * @throws Refusal if the film has changed since `revision`, or if the change makes no sense
 */
export function editFilm(filmId: string, revision: number, change: Change): Edited | null {
  const { edited, hasJobs } = inTransaction(db(), () => {
    const edited =
      change.do === "edit"
        ? edit(db(), filmId, revision, change.command)
        : stepHistory(db(), filmId, revision, change.do);
    return { edited, hasJobs: followUntracked(db(), filmId) };
  });
  if (hasJobs) wakeQueue();
  return edited;
}
