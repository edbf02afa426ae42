/** A checkpoint: a named state of a film, to return to or to compare with. */
import { z } from "zod";
import { Id } from "../basics/ids";
import { USUAL_ATTENTION } from "../subjects/attention/attention-settings";
import { applyDifference, type Difference, differenceBetween } from "./difference";
import type { FilmState } from "../version/film-state";

export const CheckpointName = z.string().trim().min(1, "a checkpoint needs a name").max(60);

export const Checkpoint = z.object({
  id: Id,
  name: CheckpointName,
  /** Milliseconds since 1970. */
  madeAt: z.int(),
});
export type Checkpoint = z.infer<typeof Checkpoint>;

/** The film without any of its editor's settings, from which all of its states differ. */
const untouched = (state: FilmState): FilmState => ({
  ...state,
  sensitivity: -1,
  // No editor can set a shortest stay of zero.
  attention: { ...USUAL_ATTENTION, shortestStay: 0 },
  shots: [],
  clips: state.clips.map((clip) => ({ ...clip, in: null, out: null })),
  versions: [],
  marks: [],
  people: state.people.map((person) => ({ ...person, name: null, mergedInto: null })),
  trackEdits: new Map(),
  captions: [],
});

/** Everything set in a film, as a checkpoint stores it. */
export const everythingSetIn = (state: FilmState): Difference => differenceBetween(untouched(state), state);

/** The film at a checkpoint; people recognised since, and what a new file brought, stay. */
export const stateOf = (difference: Difference, now: FilmState): FilmState =>
  applyDifference(untouched(now), difference);
