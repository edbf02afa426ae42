import { applyEdit, type Restore } from "~/core/edits/apply";
import type { EditRow, History } from "~/core/edits/answer";
import type { Command } from "~/core/edits/command";
import { describeEdit } from "~/core/edits/describe";
import { type Difference, differenceBetween } from "~/core/edits/difference";
import type { FilmState } from "~/core/version/film-state";
import { stateOf } from "~/core/edits/checkpoint";
import { readStoredEdit } from "~/core/edits/stored-edit";
import { counted } from "~/texts/numbers";
import { Refusal } from "~/core/basics/refusal";
import { hasClips } from "./clips.server";
import { type Db, inTransaction } from "./database.server";
import { loadState, storeDifference } from "./film-state.server";
import { type FilmRow, findFilm, raiseRevision } from "./films.server";
import { findCheckpoint } from "./checkpoints.server";
import { hasReplaced } from "./replaced-sources.server";
import { libraryErrors } from "~/texts/library-errors";

/** A change was made to an outdated state; nothing was changed. */
export class StaleRevision extends Refusal {
  override name = "StaleRevision";

  constructor() {
    super("the film has been changed elsewhere");
  }
}

/** A change that was made. */
export interface Edited {
  /** The film's present revision. */
  revision: number;
  /** What has changed. */
  difference: Difference;
  /** What was done, undone or redone, as a sentence. */
  sentence: string;
  history: History;
}

interface RawEdit {
  sequence: number;
  command: string;
  inverse: string;
  /** Edits made by an older version have none. */
  sentence: string | null;
}

function requireRevision(db: Db, filmId: string, revision: number): FilmRow {
  const film = findFilm(db, filmId);
  if (!film) throw new Refusal(libraryErrors.stored.filmIsGone, 404);
  if (film.revision !== revision) throw new StaleRevision();
  return film;
}

/** The newest edit in effect, or the oldest undone one. */
function nextEdit(db: Db, filmId: string, direction: "undo" | "redo"): RawEdit | undefined {
  return db
    .prepare<[string, number], RawEdit>(
      `SELECT sequence, command, inverse, sentence FROM edits WHERE film_id = ? AND undone = ?
       ORDER BY sequence ${direction === "undo" ? "DESC" : "ASC"} LIMIT 1`,
    )
    .get(filmId, direction === "undo" ? 0 : 1);
}

/** The sentence of a stored edit; for an older one as well as it can be made from the present film. */
function sentenceOf({ sentence, command }: Pick<RawEdit, "sentence" | "command">, state: () => FilmState): string {
  if (sentence !== null) return sentence;
  const read = readStoredEdit(command, state());
  return read.type === "restore" ? "An earlier change" : describeEdit(read, state());
}

/** Sentence for a new export in place of the film's file. It is undone as a whole, and not by an edit. */
const REPLACED = "Replaced the film's file";
/** The same for a film of clips. */
const ARRANGED = "Arranged the clips";

/** Sentence for a replaced file or rearranged clips, if that is the next thing to undo; null otherwise. */
export function replacedNext(db: Db, filmId: string): string | null {
  if (nextEdit(db, filmId, "undo") || !hasReplaced(db, filmId)) return null;
  return hasClips(db, filmId) ? ARRANGED : REPLACED;
}

/** What can be undone or redone in a film. */
export function historyOf(db: Db, film: FilmRow): History {
  const describe = (direction: "undo" | "redo") => {
    const edit = nextEdit(db, film.id, direction);
    return edit ? sentenceOf(edit, () => loadState(db, film)) : null;
  };
  return { undo: describe("undo") ?? replacedNext(db, film.id), redo: describe("redo") };
}

/** Most edits of a film that are listed. */
const MOST_LISTED = 5000;

/** A film's edits, newest first, including undone ones. */
export function listEdits(db: Db, film: FilmRow): EditRow[] {
  const rows = db
    .prepare<[string, number], Omit<RawEdit, "inverse"> & { undone: number; madeAt: number | null }>(
      // A command need not be read where there is a sentence: it may be long.
      `SELECT sequence, IIF(sentence IS NULL, command, '') AS command, sentence, undone, made_at AS madeAt FROM edits
       WHERE film_id = ? ORDER BY sequence DESC LIMIT ?`,
    )
    .all(film.id, MOST_LISTED);
  let state: FilmState | undefined;
  const loaded = () => (state ??= loadState(db, film));
  return rows.map(({ undone, madeAt, ...edit }) => ({
    sequence: edit.sequence,
    sentence: sentenceOf(edit, loaded),
    isUndone: undone === 1,
    madeAt,
  }));
}

/** Stores a change, and describes it. */
function carryOut(db: Db, filmId: string, before: FilmState, after: FilmState, sentence: string): Edited {
  const difference = differenceBetween(before, after);
  storeDifference(db, filmId, difference);
  raiseRevision(db, filmId);
  const film = findFilm(db, filmId)!;
  return { revision: film.revision, difference, sentence, history: historyOf(db, film) };
}

/** Applies a new edit, which replaces all undone ones, and stores its inverse. */
function make(db: Db, filmId: string, before: FilmState, edit: Command | Restore, sentence: string): Edited {
  const { state, inverse } = applyEdit(before, edit);
  db.prepare("DELETE FROM edits WHERE film_id = ? AND undone = 1").run(filmId);
  db.prepare(
    `INSERT INTO edits (film_id, sequence, command, inverse, sentence, made_at)
     VALUES (@filmId, (SELECT COALESCE(MAX(sequence), 0) + 1 FROM edits WHERE film_id = @filmId), @command, @inverse,
       @sentence, @madeAt)`,
  ).run({
    filmId,
    command: JSON.stringify(edit),
    inverse: JSON.stringify(inverse),
    sentence,
    madeAt: Date.now(),
  });
  return carryOut(db, filmId, before, state, sentence);
}

/**
 * Carries out a command on a film in one transaction and stores its inverse.
 * @throws Refusal if the film has changed since `revision`, or if the command makes no sense; nothing is changed then
 */
export function edit(db: Db, filmId: string, revision: number, command: Command): Edited {
  return inTransaction(db, () => {
    const before = loadState(db, requireRevision(db, filmId, revision));
    return make(db, filmId, before, command, describeEdit(command, before));
  });
}

/**
 * Returns a film to a checkpoint, as an edit like any other.
 * @throws Refusal as in `edit`, and if there is no such checkpoint
 */
export function returnTo(db: Db, filmId: string, revision: number, checkpointId: string): Edited {
  return inTransaction(db, () => {
    const before = loadState(db, requireRevision(db, filmId, revision));
    const named = findCheckpoint(db, filmId, checkpointId);
    if (!named) throw new Refusal(libraryErrors.stored.checkpointIsGone, 404);
    const difference = differenceBetween(before, stateOf(named.difference, before));
    return make(db, filmId, before, { type: "restore", difference }, `Returned to “${named.name}”`);
  });
}

/** The state after one step through the history, which moves the stored edit to the other side. */
function stepOver(db: Db, filmId: string, before: FilmState, next: RawEdit, direction: "undo" | "redo"): FilmState {
  const undoes = direction === "undo";
  const { state, inverse } = applyEdit(before, readStoredEdit(undoes ? next.inverse : next.command, before));
  db.prepare("UPDATE edits SET undone = ?, inverse = ? WHERE film_id = ? AND sequence = ?").run(
    undoes ? 1 : 0,
    // A redone command may have another inverse than at first: the analysis may have made progress.
    undoes ? next.inverse : JSON.stringify(inverse),
    filmId,
    next.sequence,
  );
  return state;
}

/**
 * Undoes the newest edit, or redoes the one that was undone last; null where there is none.
 * @throws Refusal as in `edit`
 */
export function stepHistory(db: Db, filmId: string, revision: number, direction: "undo" | "redo"): Edited | null {
  return inTransaction(db, () => {
    const before = loadState(db, requireRevision(db, filmId, revision));
    const next = nextEdit(db, filmId, direction);
    if (!next) return null;
    const sentence = sentenceOf(next, () => before);
    return carryOut(db, filmId, before, stepOver(db, filmId, before, next, direction), sentence);
  });
}

/**
 * Undoes or redoes edits until the one with this sequence number is the newest in effect; 0 for none.
 * @returns null where it is already
 * @throws Refusal as in `edit`
 */
export function goTo(db: Db, filmId: string, revision: number, sequence: number): Edited | null {
  return inTransaction(db, () => {
    const before = loadState(db, requireRevision(db, filmId, revision));
    let state = before;
    let steps = 0;
    for (;;) {
      const [newest, undone] = [nextEdit(db, filmId, "undo"), nextEdit(db, filmId, "redo")];
      const direction = newest && newest.sequence > sequence ? "undo" : "redo";
      const next = direction === "undo" ? newest! : undone;
      if (!next || (direction === "redo" && next.sequence > sequence)) break;
      state = stepOver(db, filmId, state, next, direction);
      steps++;
    }
    if (steps === 0) return null;
    return carryOut(db, filmId, before, state, `Went ${counted(steps, "step")} through the history`);
  });
}
