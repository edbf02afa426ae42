/** A place that deserves the editor's attention. */
import { clamped } from "../numbers/clamped";
import type { FrameRange } from "../time/rate";

/** Worst severity of each kind, 0 to 100. */
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

/** Kinds about what the window shows at each frame of their range; the others are about a shot or the film. */
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

/** The range that is marked for a flag: its whole range, or one frame for a flag about the shot. */
export const markedRange = ({ kind, range, frame }: Flag): FrameRange =>
  OF_SHOT.has(kind) ? { start: frame, end: frame } : range;

export interface Flag {
  kind: FlagKind;
  /** The frames it is about. */
  range: FrameRange;
  /** Its worst frame, where the editor should look. */
  frame: number;
  /** The reason in words, with its figure. */
  text: string;
  /** Severity, 0 to 100. */
  severity: number;
  /** Which of the shot's panes it is about, from 0; left out where it is about the shot. */
  pane?: number;
  /** Track that is left out of the frame. */
  otherId?: string;
  /** Id of the person it is about. */
  who?: string;
}

/** Seconds after which severity is halfway from its least to its worst. */
const HALF_SECONDS = 2;
/** Severity at the first frame, as a share of the worst. */
const FROM_FIRST = 0.4;

/**
 * Severity of a lasting problem, by how much is wrong and for how long.
 * @param depth how much is wrong, 0 to 1
 */
export const severityOf = (kind: FlagKind, depth: number, seconds = Infinity): number =>
  Math.round(
    WORST[kind] * clamped(depth, 0, 1) * (FROM_FIRST + (1 - FROM_FIRST) * (1 - 2 ** (-seconds / HALF_SECONDS))),
  );
