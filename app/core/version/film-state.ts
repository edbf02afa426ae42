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

/** A target frame shape of a film. */
export const Version = z.object({
  id: Id,
  name: z.string().trim().min(1).max(80),
  width: EvenSide,
  height: EvenSide,
  trim: Trim.default(UNTRIMMED),
  /** How long it may last where it is going to be shown; null for as long as it is. */
  limitSeconds: LengthLimit.nullable().default(null),
  /** What holds for every shot of which neither the version nor the film says otherwise. */
  usual: UsualInVersion.default({}),
  /** What lies above the picture, from back to front. */
  layers: Layers.default([]),
  /** Where nothing covers it; what is usual if null. */
  safeArea: SafeArea.nullable().default(null),
  /** How it shows the film's captions. */
  captions: CaptionSettings.default(USUAL_CAPTIONS),
  /** How much of a trouble is passed over in it. */
  checkLimits: CheckLimits.default(USUAL_LIMITS),
  /** Flags that have been seen, by their prints. */
  reviewedFlags: ReviewedFlags.default([]),
  /** How it is exported. */
  output: OutputSettings.default(USUAL_OUTPUT),
});
export type Version = z.infer<typeof Version>;

/** A version of which only its shape is settled. */
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

/** A version with all that the editor has set in it. */
export interface VersionState extends Version {
  /** By shot id; a shot that is not in it is as usual. */
  shots: ReadonlyMap<string, ShotInVersion>;
  /** In order of their frames. */
  handKeys: readonly HandKey[];
}

/** What the editor says of somebody who was recognised. */
export const PersonEdit = z.object({
  id: Id,
  name: z.string().trim().min(1).max(60).nullable(),
  /** The one whom they are, if the editor has said that two are one. */
  mergedInto: Id.nullable(),
});
export type PersonEdit = z.infer<typeof PersonEdit>;

/** Somebody who was recognised. */
export interface PersonState extends PersonEdit {
  /** Place in the order in which people came up, from 0; their letter follows from it. */
  readonly number: number;
}

/** What an edit has to fit and does not change. */
export interface FilmFacts {
  id: string;
  /** Length of the film on its own grid. */
  frames: number;
  picture: Size;
  clock: Clock;
  /** Everything that may be a transition, as the analysis has weighed it. */
  candidates: readonly TransitionCandidate[];
  /** Whether all of the film has been analysed. */
  analysed: boolean;
}

/** All that can be edited of a film, as one value that is never changed: an edit makes another one. */
export interface FilmState {
  film: FilmFacts;
  /** How ready to see transitions, 0 to 100. */
  sensitivity: number;
  /** How attention passes on within its shots, where neither a version nor a shot says otherwise. */
  attention: AttentionSettings;
  /** In order. They end with the film, or before it while the analysis has not got there. */
  shots: readonly Shot[];
  /** What the film is made of, in order; none where it is one file. */
  clips: readonly Clip[];
  /** In the order in which they are shown. */
  versions: readonly VersionState[];
  /** By thing, and of one thing in order of their frames. */
  marks: readonly ThingMark[];
  /** In the order in which they came up. */
  people: readonly PersonState[];
  /** By track id. */
  trackEdits: ReadonlyMap<string, TrackEdit>;
  /** What is said, in order. */
  captions: readonly Caption[];
}
