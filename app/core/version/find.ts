import { Refusal } from "../basics/refusal";
import type { FilmState, VersionState } from "./film-state";
import { refusalsTexts } from "../../texts/refusals";

const t = refusalsTexts.find;

/** @throws Refusal if the film has no such version */
export function requireVersion({ versions }: FilmState, id: string): VersionState {
  const version = versions.find((other) => other.id === id);
  if (!version) throw new Refusal(t.versionGone);
  return version;
}

/** The state with a version replaced, by its id. */
export const withVersion = (state: FilmState, version: VersionState): FilmState => ({
  ...state,
  versions: state.versions.map((other) => (other.id === version.id ? version : other)),
});
