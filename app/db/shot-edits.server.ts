import type { StoredCommand } from "~/core/edits/command";
import { decideTransitions } from "~/core/shots/detect-transitions";
import { joinShots, moveCut, recut, requireShot, ReshapeError, shotId, splitShot } from "~/core/shots/reshape";
import type { Shot } from "~/core/shots/shot";
import { requireWithin } from "~/core/formats/cut-list";
import { findCandidates } from "./analysis.server";
import type { Db } from "./database.server";
import { findFilm, setSensitivity } from "./films.server";
import { isAnalysed } from "./jobs.server";
import { deleteShot, listShots, saveShot } from "./shots.server";
import { listFramings, listVersions, setFraming } from "./versions.server";

type RestoreShots = Extract<StoredCommand, { type: "restore-shots" }>;
export type ShotCommand = Extract<
  StoredCommand,
  {
    type:
      | "split-shot"
      | "join-shots"
      | "move-cut"
      | "change-shots"
      | "set-framing"
      | "set-sensitivity"
      | "set-transitions"
      | "restore-shots";
  }
>;

/** What is set for some shots in all versions of a film. */
function framingsOf(db: Db, filmId: string, ids: ReadonlySet<string>): RestoreShots["framings"] {
  return listVersions(db, filmId).flatMap(({ id: versionId }) =>
    [...listFramings(db, versionId)]
      .filter(([id]) => ids.has(id))
      .map(([id, settings]) => ({ versionId, shotId: id, settings })),
  );
}

/** The command that puts back what there is now: these shots as they are set, and none of those to be added. */
function snapshot(db: Db, filmId: string, shots: readonly Shot[], added: readonly string[]): RestoreShots {
  const ids = new Set(shots.map(({ id }) => id));
  return { type: "restore-shots", remove: [...added], shots: [...shots], framings: framingsOf(db, filmId, ids) };
}

const same = (a: Shot, b: Shot): boolean => JSON.stringify(a) === JSON.stringify(b);

/** Stores what differs between the film's shots and others, and returns the command that takes it back. */
function storeShots(db: Db, filmId: string, next: readonly Shot[]): RestoreShots {
  const before = listShots(db, filmId);
  const old = new Map(before.map((shot) => [shot.id, shot]));
  const kept = new Set(next.map(({ id }) => id));
  const changed = next.filter((shot) => !old.has(shot.id) || !same(old.get(shot.id)!, shot));
  const gone = before.filter(({ id }) => !kept.has(id));
  const touched = [...gone, ...changed.flatMap(({ id }) => old.get(id) ?? [])];
  const added = changed.map(({ id }) => id).filter((id) => !old.has(id));
  const inverse = snapshot(db, filmId, touched, added);
  for (const { id } of gone) deleteShot(db, id);
  for (const shot of changed) saveShot(db, filmId, shot);
  return inverse;
}

function restore(db: Db, filmId: string, command: RestoreShots): StoredCommand {
  const before = new Map(listShots(db, filmId).map((shot) => [shot.id, shot]));
  const overwritten = [...command.remove, ...command.shots.map(({ id }) => id)].flatMap((id) => before.get(id) ?? []);
  const inverse = snapshot(
    db,
    filmId,
    overwritten,
    command.shots.map(({ id }) => id).filter((id) => !before.has(id)),
  );
  if (command.sensitivity !== undefined) {
    inverse.sensitivity = findFilm(db, filmId)!.sensitivity;
    setSensitivity(db, filmId, command.sensitivity);
  }
  for (const { id } of overwritten) deleteShot(db, id);
  for (const shot of command.shots) saveShot(db, filmId, shot);
  for (const { versionId, shotId: id, settings } of command.framings) setFraming(db, versionId, id, settings);
  return inverse;
}

/** New parts of split shots are framed as the whole was. */
function copyFramings(db: Db, filmId: string, from: string, to: string): void {
  for (const { versionId, settings } of framingsOf(db, filmId, new Set([from]))) {
    setFraming(db, versionId, to, settings);
  }
}

/** A film is cut anew as a whole, once all of it has been looked through. */
function requireAnalysed(db: Db, filmId: string): void {
  if (!isAnalysed(db, filmId)) {
    throw new ReshapeError("the film is still being analysed; its cuts can be decided anew when that is done");
  }
}

/**
 * Carries out a command on a film's shots and returns the one that undoes it.
 *
 * @throws ReshapeError, or FormatError for transitions that do not fit the film
 */
export function applyToShots(db: Db, filmId: string, command: ShotCommand): StoredCommand {
  const shots = listShots(db, filmId);
  const { info, sensitivity } = findFilm(db, filmId)!;
  switch (command.type) {
    case "split-shot": {
      const { frame, kind } = command;
      const id = shotId(filmId, frame, new Set(shots.map((shot) => shot.id)));
      const whole = shots.find((shot) => frame > shot.start && frame < shot.end);
      const inverse = storeShots(db, filmId, splitShot(shots, frame, kind, id));
      copyFramings(db, filmId, whole!.id, id);
      return inverse;
    }
    case "join-shots":
      return storeShots(db, filmId, joinShots(shots, command.shotIds));
    case "move-cut":
      return storeShots(db, filmId, moveCut(shots, command.shotId, command.frame));
    case "change-shots": {
      const { shotIds, change } = command;
      for (const id of shotIds) requireShot(shots, id);
      const changed = new Set(shotIds);
      return storeShots(
        db,
        filmId,
        shots.map((shot) => (changed.has(shot.id) ? { ...shot, ...change } : shot)),
      );
    }
    case "set-framing": {
      const { versionId, shotIds, change } = command;
      for (const id of shotIds) requireShot(shots, id);
      const touched = new Set(shotIds);
      const inverse = snapshot(
        db,
        filmId,
        shots.filter(({ id }) => touched.has(id)),
        [],
      );
      const framings = listFramings(db, versionId);
      for (const id of shotIds) setFraming(db, versionId, id, { ...framings.get(id), ...change });
      return inverse;
    }
    case "set-sensitivity": {
      requireAnalysed(db, filmId);
      const decided = decideTransitions(findCandidates(db, filmId), command.sensitivity);
      const inverse = storeShots(db, filmId, recut(shots, decided, info.frames, filmId));
      setSensitivity(db, filmId, command.sensitivity);
      return { ...inverse, sensitivity };
    }
    case "set-transitions":
      requireAnalysed(db, filmId);
      requireWithin(command.transitions, info.frames);
      return storeShots(db, filmId, recut(shots, command.transitions, info.frames, filmId));
    case "restore-shots":
      return restore(db, filmId, command);
  }
}
