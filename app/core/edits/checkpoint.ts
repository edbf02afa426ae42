/** A film as it was, under a name that the editor has given, to come back to it or to compare with it. */
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

/** The film without anything that its editor has set: any two states of it differ from the same one. */
const untouched = (state: FilmState): FilmState => ({
  ...state,
  sensitivity: -1,
  // Nobody can set a hold of no length.
  attention: { ...USUAL_ATTENTION, shortestStay: 0 },
  shots: [],
  clips: state.clips.map((clip) => ({ ...clip, in: null, out: null })),
  versions: [],
  marks: [],
  people: state.people.map((person) => ({ ...person, name: null, mergedInto: null })),
  trackEdits: new Map(),
  captions: [],
});

/** All that is set in a film, as a checkpoint keeps it. */
export const everythingSetIn = (state: FilmState): Difference => differenceBetween(untouched(state), state);

/** The film as it was at a checkpoint; who has been recognised since, and what a new file brought, stays. */
export const stateOf = (difference: Difference, now: FilmState): FilmState =>
  applyDifference(untouched(now), difference);
