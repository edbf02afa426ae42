import { assertNever } from "../basics/assert-never";
import { Refusal } from "../basics/refusal";
import type { SingleCommand } from "./command";
import { applyDifference } from "./difference";
import type { FilmState } from "../version/film-state";
import { requireVersion, withVersion } from "../version/find";
import { inToOut, type Trim, withLeftOut, withBroughtBack } from "../version/trim";
import { refusalsTexts } from "../../texts/refusals";

const t = refusalsTexts.applyTrims;

type VersionCommand = Extract<SingleCommand, { type: "trim-version" | "leave-out" | "bring-back" }>;
type TrimCommand = VersionCommand | Extract<SingleCommand, { type: "trim-clip" }>;

/** A trim with another in or out point; one that would leave nothing removes the other point. */
function moved(trim: Trim, change: { in?: number | null; out?: number | null }, frames: number): Trim {
  const next = { ...trim, ...change };
  const { start, end } = inToOut(next, frames);
  if (start < end) return next;
  return change.out === undefined ? { ...next, out: null } : { ...next, in: null };
}

function changedTrim(trim: Trim, command: VersionCommand, frames: number): Trim {
  switch (command.type) {
    case "trim-version": {
      const { in: first, out } = command;
      return moved(
        trim,
        { ...(first === undefined ? {} : { in: first }), ...(out === undefined ? {} : { out }) },
        frames,
      );
    }
    case "leave-out":
      return withLeftOut(trim, command.ranges);
    case "bring-back":
      return withBroughtBack(trim, command.ranges);
    default:
      return assertNever(command);
  }
}

/** @throws Refusal if the version or the clip does not exist */
export function applyToTrims(state: FilmState, command: TrimCommand): FilmState {
  if (command.type === "trim-clip") {
    const { clipId, in: first, out } = command;
    if (!state.clips.some(({ id }) => id === clipId)) throw new Refusal(t.clipGone);
    return applyDifference(state, { clips: [{ id: clipId, in: first, out }] });
  }
  const version = requireVersion(state, command.versionId);
  return withVersion(state, { ...version, trim: changedTrim(version.trim, command, state.film.frames) });
}
