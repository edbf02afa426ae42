/** What an analysis finds, and how it is stored while the analysis is under way. */
import type { Activity } from "~/core/activity/activity";
import type { Box } from "~/core/geometry/box";
import type { TransitionsSoFar } from "~/core/shots/find-transitions";
import type { Transition } from "~/core/shots/transition";
import type { Person } from "~/core/subjects/choosing/people";
import type { Track } from "~/core/subjects/tracking/track";
import type { FrameRange } from "~/core/time/rate";
import type { SeenChunk } from "./watch-film.server";

export interface AnalysedShot {
  range: FrameRange;
  /** Its transition; the first begins with a cut. */
  begins: Transition;
  tracks: Track[];
  /** The part of the picture inside the letterbox; null if there is none. */
  active: Box | null;
}

/** What is known of a range and its surroundings when its analysis begins or resumes. */
export interface KeptAnalysis {
  transitions: TransitionsSoFar;
  people: Person[];
  /** End of the last finished shot. */
  finishedTo: number;
  /** Chunks since then, or shortly before. */
  chunks: SeenChunk[];
}

/** Stores chunks and findings, so that an interrupted analysis can be resumed. */
export interface AnalysisStore {
  load(range: FrameRange): KeptAnalysis | null;
  /** Stores a chunk, and the transitions known by then; features before `featuresFrom` are no longer needed. */
  saveChunk(chunk: SeenChunk, transitions: TransitionsSoFar, featuresFrom: number): void;
  saveTransitions(transitions: TransitionsSoFar): void;
  /** Stores the activity in the frames of a chunk, before the chunk itself. */
  saveActivity(range: FrameRange, activity: Activity): void;
  /** Stores finished shots, and their people; chunks that end before `neededFrom` are no longer needed. */
  saveShots(shots: AnalysedShot[], people: readonly Person[], neededFrom: number): void;
}

/** A store that keeps nothing. */
export const forgetfulStore = (): AnalysisStore => ({
  load: () => null,
  saveChunk: () => {},
  saveTransitions: () => {},
  saveActivity: () => {},
  saveShots: () => {},
});
