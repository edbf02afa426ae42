import { assertNever } from "../basics/assert-never";
import { Refusal } from "../basics/refusal";
import { applyToCaptions } from "./apply-captions";
import { applyToKeys } from "./apply-keys";
import { applyToLayers } from "./apply-layers";
import { applyToShots } from "./apply-shots";
import { applyToSubjects } from "./apply-subjects";
import { applyToTrims } from "./apply-trims";
import { applyToVersions } from "./apply-versions";
import type { Command, SingleCommand } from "./command";
import { applyDifference, type Difference, differenceBetween } from "./difference";
import type { FilmState } from "../version/film-state";
import { brokenInvariant } from "./invariants";

/** Undoes an edit: puts back what the edit has changed. Cannot be sent by anybody. */
export interface Restore {
  type: "restore";
  difference: Difference;
}

export interface Applied {
  state: FilmState;
  /** Computed when it is first needed: previews need none. */
  readonly inverse: Restore;
}

function applySingle(state: FilmState, command: SingleCommand): FilmState {
  switch (command.type) {
    case "set-key":
    case "remove-key":
    case "move-key":
    case "replace-keys":
      return applyToKeys(state, command);
    case "set-framing":
    case "add-version":
    case "duplicate-version":
    case "change-version":
    case "remove-version":
      return applyToVersions(state, command);
    case "put-layer":
    case "remove-layer":
    case "move-layer":
      return applyToLayers(state, command);
    case "trim-version":
    case "leave-out":
    case "bring-back":
    case "trim-clip":
      return applyToTrims(state, command);
    case "split-shot":
    case "join-shots":
    case "move-cut":
    case "change-shots":
    case "set-sensitivity":
    case "set-transitions":
      return applyToShots(state, command);
    case "change-captions":
      return applyToCaptions(state, command);
    case "put-mark":
    case "set-attention":
    case "edit-track":
    case "change-person":
      return applyToSubjects(state, command);
    default:
      return assertNever(command);
  }
}

function next(state: FilmState, command: Command | Restore): FilmState {
  if (command.type === "restore") return applyDifference(state, command.difference);
  return command.type === "batch" ? command.commands.reduce(applySingle, state) : applySingle(state, command);
}

/**
 * Carries out a command: its one meaning for desk, server and command line. The given state stays as it is, and parts that
 * the command does not change are identical in the new one.
 * @throws Refusal if the command names what does not exist, or would make the film's state invalid
 */
export function applyEdit(state: FilmState, command: Command | Restore): Applied {
  const after = next(state, command);
  const broken = brokenInvariant(after, state.shots.at(-1)?.end ?? 0);
  if (broken) throw new Refusal(broken);
  return {
    state: after,
    get inverse(): Restore {
      return { type: "restore", difference: differenceBetween(after, state) };
    },
  };
}
