import { assertNever } from "../basics/assert-never";
import { Refusal } from "../basics/refusal";
import type { SingleCommand } from "./command";
import { applyDifference } from "./difference";
import type { FilmState } from "../version/film-state";
import { markTrackId } from "../subjects/marks/marked-things";
import { refusalsTexts } from "../../texts/refusals";

const t = refusalsTexts.applySubjects;

type SubjectCommand = Extract<SingleCommand, { type: "put-mark" | "set-attention" | "edit-track" | "change-person" }>;

/** @throws Refusal if it names a person who does not exist */
export function applyToSubjects(state: FilmState, command: SubjectCommand): FilmState {
  switch (command.type) {
    case "put-mark": {
      const { thing, frame, box } = command;
      return applyDifference(state, { marks: [{ thing, frame, box }] });
    }
    case "set-attention": {
      const { attention } = command;
      const isKnown = (id: string) =>
        state.people.some((person) => person.id === id) || state.marks.some(({ thing }) => markTrackId(thing) === id);
      if (!attention.mustHave.every(isKnown)) throw new Refusal(t.personGone);
      return applyDifference(state, { attention });
    }
    case "edit-track": {
      const { trackId, edit } = command;
      return applyDifference(state, { trackEdits: [{ trackId, edit }] });
    }
    case "change-person": {
      const { person } = command;
      if (!state.people.some(({ id }) => id === person.id)) throw new Refusal(t.personGone);
      const { attention } = state;
      const { id, mergedInto } = person;
      if (mergedInto === null || !attention.mustHave.includes(id)) return applyDifference(state, { people: [person] });
      // A required person may have been merged into another since.
      const mustHave = [...new Set(attention.mustHave.map((who) => (who === id ? mergedInto : who)))];
      return applyDifference(state, { people: [person], attention: { ...attention, mustHave } });
    }
    default:
      return assertNever(command);
  }
}
