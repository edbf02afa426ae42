import { assertNever } from "../assert-never";
import { Refusal } from "../refusal";
import { requireShot } from "../shots/reshape";
import type { SingleCommand } from "./command";
import type { FilmState } from "./film-state";
import { requireVersion, withVersion } from "./find";
import type { ShotInVersion, ShotSetting } from "./shot-in-version";

type VersionCommand = Extract<SingleCommand, { type: "set-framing" | "add-version" | "remove-version" }>;

/** What a version says of a shot after a change; null for nothing. */
function says(before: ShotInVersion, change: ShotInVersion, reset: readonly ShotSetting[] = []): ShotInVersion | null {
  const after = { ...before, ...change };
  for (const setting of reset) delete after[setting];
  return Object.keys(after).length > 0 ? after : null;
}

/** @throws Refusal if it speaks of a version or a shot that is not there, or of a new version that is */
export function applyToVersions(state: FilmState, command: VersionCommand): FilmState {
  switch (command.type) {
    case "set-framing": {
      const version = requireVersion(state, command.versionId);
      const shots = new Map(version.shots);
      for (const id of command.shotIds) {
        requireShot(state.shots, id);
        const after = says(shots.get(id) ?? {}, command.change, command.reset);
        if (after) shots.set(id, after);
        else shots.delete(id);
      }
      return withVersion(state, { ...version, shots });
    }
    case "add-version": {
      const { version } = command;
      if (state.versions.some(({ id }) => id === version.id)) {
        throw new Refusal("there is a version with this id already");
      }
      return { ...state, versions: [...state.versions, { ...version, shots: new Map(), handKeys: [] }] };
    }
    case "remove-version": {
      const gone = requireVersion(state, command.versionId);
      return { ...state, versions: state.versions.filter((version) => version !== gone) };
    }
    default:
      return assertNever(command);
  }
}
