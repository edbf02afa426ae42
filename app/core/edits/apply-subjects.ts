import { assertNever } from "../assert-never";
import { Refusal } from "../refusal";
import type { SingleCommand } from "./command";
import { applyDifference } from "./difference";
import type { FilmState } from "./film-state";
import { refusalsTexts } from "../../texts/refusals";

const t = refusalsTexts.applySubjects;

type SubjectCommand = Extract<SingleCommand, { type: "put-mark" | "set-attention" | "edit-track" | "change-person" }>;

/** @throws Refusal if it speaks of a person who is not there */
export function applyToSubjects(state: FilmState, command: SubjectCommand): FilmState {
  switch (command.type) {
    case "put-mark": {
      const { thing, frame, box } = command;
      return applyDifference(state, { marks: [{ thing, frame, box }] });
    }
    case "set-attention": {
      const { attention } = command;
      const isSomebody = (who: string) => state.people.some(({ id }) => id === who);
      if (!attention.mustHave.every(isSomebody)) throw new Refusal(t.thisPersonIsNotThere);
      return applyDifference(state, { attention });
    }
    case "edit-track": {
      const { trackId, edit } = command;
      return applyDifference(state, { trackEdits: [{ trackId, edit }] });
    }
    case "change-person": {
      const { person } = command;
      if (!state.people.some(({ id }) => id === person.id)) throw new Refusal(t.thisPersonIsNotThere);
      return applyDifference(state, { people: [person] });
    }
    default:
      return assertNever(command);
  }
}
