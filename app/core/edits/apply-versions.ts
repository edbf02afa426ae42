import { assertNever } from "../basics/assert-never";
import { Refusal } from "../basics/refusal";
import { wholeOf } from "../geometry/box";
import { FILL, paneBox } from "../composition/layout";
import { copyKey } from "../path/copy-key";
import type { HandKey } from "../path/hand-key";
import { requireShot } from "../shots/reshape";
import { activeArea } from "../shots/shot";
import type { SingleCommand, VersionChange } from "./command";
import type { FilmState, VersionState } from "../version/film-state";
import { requireVersion, withVersion } from "../version/find";
import { byRange } from "../version/shot-settings";
import { settle, type ShotInVersion, type ShotSetting } from "../version/settle";
import { refusalsTexts } from "../../texts/refusals";

const t = refusalsTexts.applyVersions;

type VersionCommand = Extract<
  SingleCommand,
  { type: "set-framing" | "add-version" | "duplicate-version" | "change-version" | "remove-version" }
>;

/** A version's settings of a shot after a change; null for none. */
function says(before: ShotInVersion, change: ShotInVersion, reset: readonly ShotSetting[] = []): ShotInVersion | null {
  const after = { ...before, ...change };
  for (const setting of reset) delete after[setting];
  return Object.keys(after).length > 0 ? after : null;
}

/** @throws Refusal if a version with this id exists */
function requireNew({ versions }: FilmState, id: string): void {
  if (versions.some((version) => version.id === id)) throw new Refusal(t.versionExists);
}

/** A changed version; its hand keys are fitted to its new aspect ratio. */
function changed(version: VersionState, change: VersionChange, { film, shots }: FilmState): VersionState {
  const next = { ...version, ...change };
  if (next.width * version.height === next.height * version.width) return next;
  const whole = wholeOf(film.picture);
  const places = byRange(version.handKeys, shots).flatMap((keys, i) => {
    const shot = shots[i]!;
    const { layout } = settle(shot, version.shots.get(shot.id), version.usual).settings;
    return keys.map(() => ({ area: activeArea(shot, film.picture), layout }));
  });
  const copied = (key: HandKey, { area, layout } = { area: whole, layout: FILL }) =>
    copyKey(key, paneBox(layout, area, version, key.pane), paneBox(layout, area, next, key.pane), area, null);
  return { ...next, handKeys: version.handKeys.map((key, i) => copied(key, places[i])) };
}

/** @throws Refusal if it names a version or shot that does not exist, or a new version that does */
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
      requireNew(state, version.id);
      return { ...state, versions: [...state.versions, { ...version, shots: new Map(), handKeys: [] }] };
    }
    case "duplicate-version": {
      const { id, name } = command;
      requireNew(state, id);
      const like = requireVersion(state, command.versionId);
      return { ...state, versions: [...state.versions, { ...like, id, name }] };
    }
    case "change-version":
      return withVersion(state, changed(requireVersion(state, command.versionId), command.change, state));
    case "remove-version": {
      const gone = requireVersion(state, command.versionId);
      return { ...state, versions: state.versions.filter((version) => version !== gone) };
    }
    default:
      return assertNever(command);
  }
}
