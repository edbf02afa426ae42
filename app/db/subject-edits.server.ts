import type { Command } from "~/core/edits/command";
import type { Db } from "./database.server";
import { listMarks, listTrackEdits, putMark, putTrackEdit } from "./marks.server";
import { changePerson, listPeople } from "./people.server";
import { listShots, saveShot } from "./shots.server";

export type SubjectCommand = Extract<Command, { type: "put-mark" | "edit-track" | "change-person" }>;

/** The change speaks of somebody or something that is not there (any more). */
export class SubjectError extends Error {
  override name = "SubjectError";
}

/**
 * Carries out a command on what is followed in a film and returns the one that takes it back.
 *
 * @throws SubjectError if it speaks of a shot or a person that is not there
 */
export function applyToSubjects(db: Db, filmId: string, command: SubjectCommand): Command {
  switch (command.type) {
    case "put-mark": {
      const { thing, frame, box, follow } = command;
      const before = listMarks(db, filmId).find((mark) => mark.thing === thing && mark.frame === frame);
      const shot = follow && listShots(db, filmId).find(({ id }) => id === follow.shotId);
      if (follow && !shot) throw new SubjectError("this shot is not there any more");
      putMark(db, filmId, thing, frame, box);
      if (shot) saveShot(db, filmId, { ...shot, subject: follow.subject });
      return {
        ...command,
        box: before?.box ?? null,
        follow: shot ? { shotId: shot.id, subject: shot.subject } : null,
      };
    }
    case "edit-track": {
      const before = listTrackEdits(db, filmId).get(command.trackId) ?? null;
      putTrackEdit(db, filmId, command.trackId, command.edit);
      return { ...command, edit: before };
    }
    case "change-person": {
      const person = listPeople(db, filmId).find(({ id }) => id === command.person.id);
      if (!person) throw new SubjectError("this person is not there any more");
      changePerson(db, filmId, command.person);
      return { ...command, person: { id: person.id, name: person.name, mergedInto: person.mergedInto } };
    }
  }
}
