import { type Command, describeCommand, StoredCommand } from "~/core/edits/command";
import { brokenInvariant } from "~/core/edits/invariants";
import { type Db, inTransaction } from "./database.server";
import { filmState } from "./film-state.server";
import { findFilm, raiseRevision } from "./films.server";
import { listShots } from "./shots.server";
import { applyToShots } from "./shot-edits.server";
import { applyToSubjects } from "./subject-edits.server";
import {
  deleteHandKey,
  deleteVersion,
  findVersion,
  insertVersion,
  listHandKeys,
  setHandKey,
  versionExists,
} from "./versions.server";

/** A change was made to an older state than the stored one; nothing was changed. */
export class StaleRevisionError extends Error {
  override name = "StaleRevisionError";
}

/** The change makes no sense: what it speaks of is not there (any more). */
export class EditError extends Error {
  override name = "EditError";
}

interface RawEdit {
  sequence: number;
  command: string;
  inverse: string;
}

/** The hand keys of a version among these frames, and the command that puts exactly them back. */
function keepKeys(db: Db, versionId: string, frames: number[]): StoredCommand {
  const keys = listHandKeys(db, versionId).filter((key) => frames.includes(key.frame));
  return { type: "restore-keys", versionId, frames, keys };
}

function requireVersion(db: Db, filmId: string, id: string) {
  const version = findVersion(db, filmId, id);
  if (!version) throw new EditError("this version is not there any more");
  return version;
}

/** Carries out a command and returns the one that undoes it. */
function apply(db: Db, filmId: string, command: StoredCommand): StoredCommand {
  switch (command.type) {
    case "set-key": {
      const { versionId, key } = command;
      requireVersion(db, filmId, versionId);
      const inverse = keepKeys(db, versionId, [key.frame]);
      setHandKey(db, versionId, key);
      return inverse;
    }
    case "remove-key": {
      const { versionId, frame } = command;
      requireVersion(db, filmId, versionId);
      const inverse = keepKeys(db, versionId, [frame]);
      deleteHandKey(db, versionId, frame);
      return inverse;
    }
    case "move-key": {
      const { versionId, fromFrame, key } = command;
      requireVersion(db, filmId, versionId);
      const inverse = keepKeys(db, versionId, [fromFrame, key.frame]);
      deleteHandKey(db, versionId, fromFrame);
      setHandKey(db, versionId, key);
      return inverse;
    }
    case "restore-keys": {
      const { versionId, frames, keys } = command;
      requireVersion(db, filmId, versionId);
      const inverse = keepKeys(db, versionId, frames);
      for (const frame of frames) deleteHandKey(db, versionId, frame);
      for (const key of keys) setHandKey(db, versionId, key);
      return inverse;
    }
    case "set-framing":
      requireVersion(db, filmId, command.versionId);
      return applyToShots(db, filmId, command);
    case "split-shot":
    case "join-shots":
    case "move-cut":
    case "change-shots":
    case "set-sensitivity":
    case "set-transitions":
    case "restore-shots":
      return applyToShots(db, filmId, command);
    case "put-mark":
    case "edit-track":
    case "change-person":
      return applyToSubjects(db, filmId, command);
    case "add-version":
      if (versionExists(db, command.version.id)) throw new EditError("there is a version with this id already");
      insertVersion(db, filmId, command.version);
      return { type: "remove-version", versionId: command.version.id };
    case "remove-version": {
      const version = requireVersion(db, filmId, command.versionId);
      if (listHandKeys(db, version.id).length > 0) {
        throw new EditError(`"${version.name}" has hand keys; release them before removing it`);
      }
      deleteVersion(db, version.id);
      return { type: "add-version", version };
    }
  }
}

function requireRevision(db: Db, filmId: string, revision: number): void {
  const film = findFilm(db, filmId);
  if (!film) throw new EditError("this film is not there any more");
  if (film.revision !== revision) throw new StaleRevisionError("the film was changed elsewhere in the meantime");
}

/** Carries out a command, and makes sure that the film is sound after it. */
function applySoundly(db: Db, filmId: string, command: StoredCommand): StoredCommand {
  const shotsEnd = listShots(db, filmId).at(-1)?.end ?? 0;
  const inverse = apply(db, filmId, command);
  const broken = brokenInvariant(filmState(db, filmId), shotsEnd);
  if (broken) throw new EditError(broken);
  return inverse;
}

/**
 * Carries out a command on a film in one transaction and remembers how to undo it.
 *
 * @throws StaleRevisionError if the film has changed since `revision`; EditError and its like if the command makes no
 *   sense; nothing is changed then
 */
export function edit(db: Db, filmId: string, revision: number, command: Command): void {
  inTransaction(db, () => {
    requireRevision(db, filmId, revision);
    const inverse = applySoundly(db, filmId, command);
    db.prepare("DELETE FROM edits WHERE film_id = ? AND undone = 1").run(filmId);
    db.prepare(
      `INSERT INTO edits (film_id, sequence, command, inverse, created_at)
       VALUES (?, (SELECT COALESCE(MAX(sequence), 0) + 1 FROM edits WHERE film_id = ?), ?, ?, ?)`,
    ).run(filmId, filmId, JSON.stringify(command), JSON.stringify(inverse), Date.now());
    raiseRevision(db, filmId);
  });
}

/** The newest edit that stands, or the oldest that was taken back. */
function nextEdit(db: Db, filmId: string, direction: "undo" | "redo"): RawEdit | undefined {
  return db
    .prepare<[string, number], RawEdit>(
      `SELECT sequence, command, inverse FROM edits WHERE film_id = ? AND undone = ?
       ORDER BY sequence ${direction === "undo" ? "DESC" : "ASC"} LIMIT 1`,
    )
    .get(filmId, direction === "undo" ? 0 : 1);
}

/** Takes back the newest change, or does the last one again that was taken back; says what it was, or null. */
export function stepHistory(db: Db, filmId: string, revision: number, direction: "undo" | "redo"): string | null {
  return inTransaction(db, () => {
    requireRevision(db, filmId, revision);
    const step = nextEdit(db, filmId, direction);
    if (!step) return null;
    applySoundly(db, filmId, StoredCommand.parse(JSON.parse(direction === "undo" ? step.inverse : step.command)));
    db.prepare("UPDATE edits SET undone = ? WHERE film_id = ? AND sequence = ?").run(
      direction === "undo" ? 1 : 0,
      filmId,
      step.sequence,
    );
    raiseRevision(db, filmId);
    return describeCommand(StoredCommand.parse(JSON.parse(step.command)));
  });
}

/** What could be taken back or done again, in words. */
export function historyOf(db: Db, filmId: string): { undo: string | null; redo: string | null } {
  const describe = (step: RawEdit | undefined) =>
    step ? describeCommand(StoredCommand.parse(JSON.parse(step.command))) : null;
  return { undo: describe(nextEdit(db, filmId, "undo")), redo: describe(nextEdit(db, filmId, "redo")) };
}
