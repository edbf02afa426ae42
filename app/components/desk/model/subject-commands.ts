import { nanoid } from "nanoid";
import { asOne } from "~/core/edits/as-one";
import type { SingleCommand } from "~/core/edits/command";
import type { Box } from "~/core/geometry/box";
import { AUTO } from "~/core/subjects/choosing/follow-rule";
import { markTrackId, thingOfTrack } from "~/core/subjects/marks/marked-things";
import type { TrackEdit } from "~/core/subjects/tracking/edit-tracks";
import type { DeskPort } from "./desk-model";
import { type DeskPerson, type DeskShot, shotAt } from "./desk-types";

/** Commands on subjects. */
export interface SubjectCommands {
  /** Draws a mark around a thing; in a shot that already follows a mark, another one of the same thing. */
  mark: (frame: number, box: Box) => void;
  /** Removes the mark at a frame; with its last mark, the thing is removed. */
  unmark: (shot: DeskShot, frame: number) => void;
  editTrack: (trackId: string, edit: TrackEdit | null) => void;
  changePerson: (person: DeskPerson) => void;
  /** Follows a person in every shot they are in. */
  followEverywhere: (person: DeskPerson) => void;
}

/** The marked thing that a shot follows. */
const thingOf = ({ follow }: DeskShot): string | null =>
  follow.kind === "track" ? thingOfTrack(follow.trackId) : null;

export function subjectCommands({ get }: DeskPort): SubjectCommands {
  /** Sends a mark and the rule that follows from it, as one step. */
  const sendMark = (mark: SingleCommand, entailed: SingleCommand[]) => get().edits.send(asOne([mark, ...entailed]));
  return {
    mark: (frame, box) => {
      const { shots, shotCommands } = get();
      const shot = shotAt(shots, frame);
      if (!shot) return;
      const known = thingOf(shot);
      const thing = known ?? nanoid(8);
      const entailed = known ? [] : shotCommands.following([shot], { kind: "track", trackId: markTrackId(thing) });
      sendMark({ type: "put-mark", thing, frame, box }, entailed);
    },
    unmark: (shot, frame) => {
      const mark = shot.marks.find((other) => other.frame === frame);
      if (!mark) return;
      const last = shot.marks.every((other) => other === mark || other.thing !== mark.thing);
      const entailed = last && thingOf(shot) === mark.thing ? get().shotCommands.following([shot], AUTO) : [];
      sendMark({ type: "put-mark", thing: mark.thing, frame, box: null }, entailed);
    },
    editTrack: (trackId, edit) => get().edits.send({ type: "edit-track", trackId, edit }),
    changePerson: ({ id, name, mergedInto }) =>
      get().edits.send({ type: "change-person", person: { id, name, mergedInto } }),
    followEverywhere: ({ id }) => {
      const { shots, shotCommands } = get();
      const theirs = shots.filter(({ tracks }) => tracks.some(({ who }) => who === id));
      if (theirs.length > 0) shotCommands.follow(theirs, { kind: "person", who: id });
    },
  };
}
