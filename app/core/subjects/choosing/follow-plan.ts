/** What is followed when in a shot, and how that is said. */
import type { Size } from "../../geometry/box";
import type { FrameRange, Rate } from "../../time/rate";
import type { AttentionSettings } from "../attention/attention-settings";
import type { SwitchCause } from "../attention/switches";
import type { Track } from "../tracking/track";
import type { FollowRule } from "./follow-rule";
import { chooseSubject, type RankedTrack } from "./rank";
import { type Subject, subjectOf } from "./subject";
import { reasonsTexts } from "../../../texts/reasons";

const t = reasonsTexts.follow;

/** A part of a shot with one subject. */
export interface FollowSpan extends FrameRange {
  subject: Subject | null;
  /** The tracks that it is made of; none where nothing is followed, or all of it. */
  trackIds: readonly string[];
  /** How the window gets to it from the one before. */
  comesBy: "cut" | "pan";
  /** Why it begins; null where nothing is known of that. */
  cause: SwitchCause | null;
}

export interface FollowPlan {
  /** Cover the shot, in order. */
  spans: FollowSpan[];
  /** The track that is followed most; null where nothing is. */
  trackId: string | null;
  /** Who that is. */
  who: string | null;
  /** Why, in words. */
  reason: string;
  /** 0 to 1. */
  certainty: number;
  /** Something that it might as well be, or as well, and is not. */
  other?: LeftOut;
}

/** What is not followed: a thing like the one that is, or somebody who does not fit into the window with whom is. */
export interface LeftOut {
  trackId: string;
  why: "alike" | "apart";
}

export interface FollowProblem {
  rule: FollowRule;
  shot: FrameRange;
  tracks: readonly Track[];
  picture: Size;
  /** Size of the crop window, in source pixels. */
  window: Size;
  rate: Rate;
  /** Who was followed in the shot before. */
  before: string | null;
  attention: AttentionSettings;
  /** Whether attention may pass on, or be with several; it is not where other panes show the others. */
  passesOn?: boolean;
}

/** One subject through all of a shot. */
export const whole = (shot: FrameRange, subject: Subject | null, trackIds: readonly string[] = []): FollowSpan[] => [
  { ...shot, subject, trackIds, comesBy: "cut", cause: null },
];

/** A plan for one track. */
export function planFor(
  problem: FollowProblem,
  chosen: RankedTrack & { certainty?: number },
  reason: string,
): FollowPlan {
  const { shot, tracks } = problem;
  return {
    spans: whole(shot, subjectOf(chosen.track, tracks), [chosen.track.id]),
    trackId: chosen.track.id,
    who: chosen.track.who ?? null,
    reason,
    certainty: chosen.certainty ?? 1,
  };
}

/** The best choice, with a word on why it came to that. */
export function fallBack(problem: FollowProblem, why?: string): FollowPlan {
  const { tracks, shot, picture, before } = problem;
  const chosen = chooseSubject(tracks, shot, picture, before);
  const prefix = why ? `${why}; ` : "";
  if (chosen) return planFor(problem, chosen, `${prefix}${chosen.reason}`);
  const reason = t.noClearSubject(prefix);
  return { spans: whole(problem.shot, null), trackId: null, who: null, reason, certainty: 0.3 };
}
