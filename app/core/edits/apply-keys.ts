import { assertNever } from "../basics/assert-never";
import type { HandKey } from "../path/hand-key";
import { Refusal } from "../basics/refusal";
import { inRange } from "../time/rate";
import type { SingleCommand } from "./command";
import { byFrame } from "./difference";
import type { FilmState } from "../version/film-state";
import { requireVersion, withVersion } from "../version/find";
import { refusalsTexts } from "../../texts/refusals";

const t = refusalsTexts.applyKeys;

type KeyCommand = Extract<SingleCommand, { type: "set-key" | "remove-key" | "move-key" | "replace-keys" }>;

/** Keys without those of a pane at some frames, and with another one. */
const replaced = (keys: readonly HandKey[], pane: number, frames: readonly number[], put: readonly HandKey[]) =>
  [...keys.filter((key) => key.pane !== pane || !frames.includes(key.frame)), ...put].sort(byFrame);

function changedKeys(keys: readonly HandKey[], command: KeyCommand): HandKey[] {
  switch (command.type) {
    case "set-key":
      return replaced(keys, command.key.pane, [command.key.frame], [command.key]);
    case "remove-key":
      return replaced(keys, command.pane, [command.frame], []);
    case "move-key":
      return replaced(keys, command.key.pane, [command.fromFrame, command.key.frame], [command.key]);
    case "replace-keys": {
      const { pane, range, keys: put } = command;
      if (put.some((key) => key.pane !== pane || !inRange(key.frame, range))) {
        throw new Refusal(t.keyframeBeyondRange);
      }
      const gone = keys.filter(({ frame }) => inRange(frame, range)).map(({ frame }) => frame);
      return replaced(keys, pane, gone, put);
    }
    default:
      return assertNever(command);
  }
}

/** @throws Refusal if the version does not exist, or a key is out of its bounds */
export function applyToKeys(state: FilmState, command: KeyCommand): FilmState {
  const version = requireVersion(state, command.versionId);
  return withVersion(state, { ...version, handKeys: changedKeys(version.handKeys, command) });
}
