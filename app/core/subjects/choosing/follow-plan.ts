/** What is followed when in a shot, and how that is described. */
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

/** A range of a shot with one subject. */
export interface FollowSpan extends FrameRange {
  subject: Subject | null;
  /** The tracks that it is made of; none where nothing is followed, or everything. */
  trackIds: readonly string[];
  /** How the window gets to it from the one before. */
  comesBy: "cut" | "pan";
  /** Why it begins; null where that is unknown. */
  cause: SwitchCause | null;
}

export interface FollowPlan {
  /** They cover the shot, in order. */
  spans: FollowSpan[];
  /** The track that is followed most; null where nothing is. */
  trackId: string | null;
  /** The person that it is. */
  who: string | null;
  /** The reason, in words. */
  reason: string;
  /** 0 to 1. */
  certainty: number;
  /** Another subject that would do as well, or belongs in the frame too, and is left out. */
  other?: LeftOut;
}

/**
 * What is not followed: a thing equal to the one that is, or somebody who does not fit the window together with the
 * subject.
 */
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
  /** Whether attention may switch, or be on several; not where other panes show the others. */
  passesOn?: boolean;
}

/** One subject through a whole shot. */
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

/** The best choice, with a remark on why it was used. */
export function fallBack(problem: FollowProblem, why?: string): FollowPlan {
  const { tracks, shot, picture, before } = problem;
  const chosen = chooseSubject(tracks, shot, picture, before);
  const prefix = why ? `${why}; ` : "";
  if (chosen) return planFor(problem, chosen, `${prefix}${chosen.reason}`);
  const reason = t.noClearSubject(prefix);
  return { spans: whole(problem.shot, null), trackId: null, who: null, reason, certainty: 0.3 };
}
