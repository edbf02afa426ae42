import { z } from "zod";
import type { Caption } from "../captions/caption";
import { CaptionSettings, USUAL_CAPTIONS } from "../captions/caption-settings";
import { CheckLimits, ReviewedFlags, USUAL_LIMITS } from "../checks/check-settings";
import { Layers } from "../composition/layers/layer";
import { SafeArea } from "../composition/layers/safe-area";
import type { Clip } from "../clips/clip";
import { USUAL_FORMAT } from "../formats/output-formats";
import { OutputSettings, USUAL_OUTPUT } from "../formats/output-settings";
import type { Size } from "../geometry/box";
import { Id } from "../basics/ids";
import type { HandKey } from "../path/hand-key";
import type { TransitionCandidate } from "../shots/detect-transitions";
import type { Shot } from "../shots/shot";
import type { AttentionSettings } from "../subjects/attention/attention-settings";
import type { ThingMark } from "../subjects/marks/marked-things";
import type { TrackEdit } from "../subjects/tracking/edit-tracks";
import type { Clock } from "../time/timecode";
import { type ShotInVersion, UsualInVersion } from "./settle";
import { LengthLimit, Trim, UNTRIMMED } from "./trim";

const { side } = USUAL_FORMAT;
const EvenSide = z
  .int()
  .min(side.least, `at least ${side.least} pixels`)
  .max(side.most, `at most ${side.most} pixels`)
  .refine((pixels) => pixels % 2 === 0, "an even number of pixels");

/** A target frame of a film. */
export const Version = z.object({
  id: Id,
  name: z.string().trim().min(1).max(80),
  width: EvenSide,
  height: EvenSide,
  trim: Trim.default(UNTRIMMED),
  /** Longest duration where it will be shown; null for no limit. */
  limitSeconds: LengthLimit.nullable().default(null),
  /** Settings for every shot that neither the version nor the film overrides. */
  usual: UsualInVersion.default({}),
  /** Layers above the picture, from back to front. */
  layers: Layers.default([]),
  /** The safe area; the usual one if null. */
  safeArea: SafeArea.nullable().default(null),
  /** How it shows the film's captions. */
  captions: CaptionSettings.default(USUAL_CAPTIONS),
  /** Limits of its checks. */
  checkLimits: CheckLimits.default(USUAL_LIMITS),
  /** Prints of reviewed flags. */
  reviewedFlags: ReviewedFlags.default([]),
  /** Its export settings. */
  output: OutputSettings.default(USUAL_OUTPUT),
});
export type Version = z.infer<typeof Version>;

/** A version with only its size set. */
export const newVersion = (shape: Pick<Version, "id" | "name"> & Size): Version => ({
  ...shape,
  trim: UNTRIMMED,
  limitSeconds: null,
  usual: {},
  layers: [],
  safeArea: null,
  captions: USUAL_CAPTIONS,
  checkLimits: USUAL_LIMITS,
  reviewedFlags: [],
  output: USUAL_OUTPUT,
});

/** A version with everything that the editor has set in it. */
export interface VersionState extends Version {
  /** By shot id; a missing shot has the usual settings. */
  shots: ReadonlyMap<string, ShotInVersion>;
  /** In order of their frames. */
  handKeys: readonly HandKey[];
}

/** The editor's changes of a recognised person. */
export const PersonEdit = z.object({
  id: Id,
  name: z.string().trim().min(1).max(60).nullable(),
  /** The person into whom the editor has merged them, if any. */
  mergedInto: Id.nullable(),
});
export type PersonEdit = z.infer<typeof PersonEdit>;

/** A recognised person. */
export interface PersonState extends PersonEdit {
  /** Order in which people appeared, from 0; their letter follows from it. */
  readonly number: number;
}

/** Facts that an edit has to fit and does not change. */
export interface FilmFacts {
  id: string;
  /** Length of the film on its own grid. */
  frames: number;
  picture: Size;
  clock: Clock;
  /** All possible transitions, with their evidence from the analysis. */
  candidates: readonly TransitionCandidate[];
  /** Whether the whole film has been analysed. */
  analysed: boolean;
}

/** Everything that can be edited of a film, as one immutable value: an edit makes another one. */
export interface FilmState {
  film: FilmFacts;
  /** Sensitivity to transitions, 0 to 100. */
  sensitivity: number;
  /** How attention switches in its shots, where neither a version nor a shot overrides it. */
  attention: AttentionSettings;
  /** In order. They end with the film, or earlier while the analysis is under way. */
  shots: readonly Shot[];
  /** The clips of the film, in order; none where it is one file. */
  clips: readonly Clip[];
  /** In display order. */
  versions: readonly VersionState[];
  /** By thing, and for one thing in order of frames. */
  marks: readonly ThingMark[];
  /** In order of appearance. */
  people: readonly PersonState[];
  /** By track id. */
  trackEdits: ReadonlyMap<string, TrackEdit>;
  /** In order. */
  captions: readonly Caption[];
}
