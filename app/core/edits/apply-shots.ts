import { assertNever } from "../basics/assert-never";
import { requireWithin } from "../formats/cut-list";
import { Refusal } from "../basics/refusal";
import { decideTransitions } from "../shots/detect-transitions";
import { joinShots, moveCut, recut, requireShot, shotId, splitShot } from "../shots/reshape";
import type { Shot } from "../shots/shot";
import type { Transition } from "../shots/transition";
import type { SingleCommand } from "./command";
import type { FilmState, VersionState } from "../version/film-state";
import { refusalsTexts } from "../../texts/refusals";

const t = refusalsTexts.applyShots;

type ShotCommand = Extract<
  SingleCommand,
  { type: "split-shot" | "join-shots" | "move-cut" | "change-shots" | "set-sensitivity" | "set-transitions" }
>;

/** The state with other shots; versions' settings of removed shots are removed as well. */
function withShots(state: FilmState, shots: readonly Shot[]): FilmState {
  const ids = new Set(shots.map(({ id }) => id));
  const kept = (version: VersionState): VersionState =>
    [...version.shots.keys()].every((id) => ids.has(id))
      ? version
      : { ...version, shots: new Map([...version.shots].filter(([id]) => ids.has(id))) };
  return { ...state, shots, versions: state.versions.map(kept) };
}

/** Parts of a split shot are framed as the whole was. */
function copyFramings(state: FilmState, from: string, to: string): FilmState {
  const versions = state.versions.map((version) => {
    const says = version.shots.get(from);
    return says ? { ...version, shots: new Map(version.shots).set(to, says) } : version;
  });
  return { ...state, versions };
}

/** The whole film is cut anew, once all of it has been analysed. */
function cutAnew(state: FilmState, transitions: readonly Transition[]): FilmState {
  const { film, shots } = state;
  if (!film.analysed) {
    throw new Refusal(t.stillAnalysing);
  }
  return withShots(state, recut(shots, transitions, film.frames, film.id));
}

/** @throws Refusal if the shots cannot be changed in this way */
export function applyToShots(state: FilmState, command: ShotCommand): FilmState {
  const { film, shots } = state;
  switch (command.type) {
    case "split-shot": {
      const { frame, kind } = command;
      const id = shotId(film.id, frame, new Set(shots.map((shot) => shot.id)));
      const whole = shots.find((shot) => frame > shot.start && frame < shot.end);
      const split = withShots(state, splitShot(shots, frame, kind, id));
      return copyFramings(split, whole!.id, id);
    }
    case "join-shots":
      return withShots(state, joinShots(shots, command.shotIds));
    case "move-cut":
      return withShots(state, moveCut(shots, command.shotId, command.frame));
    case "change-shots": {
      const { shotIds, change } = command;
      for (const id of shotIds) requireShot(shots, id);
      const changed = new Set(shotIds);
      return withShots(
        state,
        shots.map((shot) => (changed.has(shot.id) ? { ...shot, ...change } : shot)),
      );
    }
    case "set-sensitivity": {
      const { sensitivity } = command;
      return { ...cutAnew(state, decideTransitions(film.candidates, sensitivity)), sensitivity };
    }
    case "set-transitions":
      requireWithin(command.transitions, film.frames);
      return cutAnew(state, command.transitions);
    default:
      return assertNever(command);
  }
}
