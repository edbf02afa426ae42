/** A place that deserves the editor's eye. */
import { clamped } from "../numbers/clamped";
import type { FrameRange } from "../time/rate";

/** How bad each kind is at its worst, 0 to 100. */
const WORST = {
  "subject-cut": 100,
  "empty-frame": 90,
  flashing: 90,
  "face-covered": 80,
  "protected-cut": 80,
  absent: 85,
  "subject-lost": 75,
  "text-cut": 70,
  "undecoded-picture": 60,
  "unsure-subject": 55,
  "two-apart": 55,
  jolt: 50,
  "unsure-cut": 50,
  "text-covered": 50,
  "moving-at-cut": 45,
  "at-edge": 45,
  "two-alike": 45,
  enlarged: 40,
  "caption-pace": 40,
  "looks-out": 35,
  "repeated-picture": 35,
  black: 30,
  "short-shot": 30,
  frozen: 25,
} as const;

export type FlagKind = keyof typeof WORST;
export const FLAG_KINDS = Object.keys(WORST) as FlagKind[];

/** Kinds that are about what the window shows in each frame of their range; the others are about a shot or the film. */
export const LASTING: ReadonlySet<FlagKind> = new Set([
  ...([
    "absent",
    "subject-cut",
    "empty-frame",
    "face-covered",
    "protected-cut",
    "text-cut",
    "text-covered",
    "jolt",
  ] as const),
  ...(["moving-at-cut", "at-edge", "enlarged", "looks-out"] as const),
]);

/** Kinds that are about a shot as a whole. */
const OF_SHOT: ReadonlySet<FlagKind> = new Set([
  "unsure-subject",
  "two-apart",
  "two-alike",
  "unsure-cut",
  "short-shot",
]);

/** The frames beside which a look is marked: all that it lasts, or the one to look at where it is about the shot. */
export const markedRange = ({ kind, range, frame }: Flag): FrameRange =>
  OF_SHOT.has(kind) ? { start: frame, end: frame } : range;

export interface Flag {
  kind: FlagKind;
  /** The frames that it is about. */
  range: FrameRange;
  /** Where it is worst: the frame to look at. */
  frame: number;
  /** The reason in words, with the number. */
  text: string;
  /** How bad it is, 0 to 100. */
  severity: number;
  /** Which of the shot's panes it is about, from 0; left out where it is about the shot. */
  pane?: number;
  /** The track of what is left out. */
  otherId?: string;
  /** Who it is about, by the id of one of the film's people. */
  who?: string;
}

/** Seconds after which trouble has come half of the way from its least to its worst. */
const HALF_SECONDS = 2;
/** How bad it is from its first frame, as a share of its worst. */
const FROM_FIRST = 0.4;

/**
 * How bad something is that lasts: the worst of its kind by how much is wrong, and by how long it is.
 *
 * @param depth how much is wrong, 0 to 1
 */
export const severityOf = (kind: FlagKind, depth: number, seconds = Infinity): number =>
  Math.round(
    WORST[kind] * clamped(depth, 0, 1) * (FROM_FIRST + (1 - FROM_FIRST) * (1 - 2 ** (-seconds / HALF_SECONDS))),
  );
