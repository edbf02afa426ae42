import { nanoid } from "nanoid";
import { useMemo } from "react";
import type { Box } from "~/core/geometry/box";
import type { TrackEdit } from "~/core/subjects/tracking/edit-tracks";
import { markTrackId } from "~/core/subjects/marks/marked-things";
import { type DeskPerson, type DeskShot, shotAt } from "./desk-types";
import type { Edits } from "./use-edits";
import type { ShotEdits } from "./use-shot-edits";

/** What can be done to what is followed. */
export interface SubjectEdits {
  /** Draws a box around a thing; in a shot that follows a mark already, it is of the same thing. */
  mark: (frame: number, box: Box) => void;
  /** Takes the mark at a frame away; the last mark of a thing takes the thing with it. */
  unmark: (shot: DeskShot, frame: number) => void;
  editTrack: (trackId: string, edit: TrackEdit | null) => void;
  changePerson: (person: DeskPerson) => void;
  /** Follows somebody in every shot that they are in. */
  followEverywhere: (person: DeskPerson) => void;
}

const MARK_PREFIX = `track:${markTrackId("")}`;

/** The marked thing that a shot follows. */
const thingOf = ({ subject }: DeskShot): string | null =>
  subject.startsWith(MARK_PREFIX) ? subject.slice(MARK_PREFIX.length) : null;

export function useSubjectEdits({ send }: Edits, shots: readonly DeskShot[], { change }: ShotEdits): SubjectEdits {
  return useMemo(
    () => ({
      mark: (frame, box) => {
        const shot = shotAt(shots, frame);
        if (!shot) return;
        const thing = thingOf(shot) ?? nanoid(8);
        const follow = { shotId: shot.id, subject: `track:${markTrackId(thing)}` };
        send({ type: "put-mark", thing, frame, box, follow });
      },
      unmark: (shot, frame) => {
        const mark = shot.marks.find((other) => other.frame === frame);
        if (!mark) return;
        const last = shot.marks.every((other) => other === mark || other.thing !== mark.thing);
        const follow = last && thingOf(shot) === mark.thing ? { shotId: shot.id, subject: "auto" } : null;
        send({ type: "put-mark", thing: mark.thing, frame, box: null, follow });
      },
      editTrack: (trackId, edit) => send({ type: "edit-track", trackId, edit }),
      changePerson: ({ id, name, mergedInto }) => send({ type: "change-person", person: { id, name, mergedInto } }),
      followEverywhere: ({ id }) => {
        const theirs = shots.filter(({ tracks }) => tracks.some(({ who }) => who === id));
        if (theirs.length > 0) change(theirs, { subject: `person:${id}` });
      },
    }),
    [send, shots, change],
  );
}
