/** Turns a rule into what is followed when in a shot, with the reason in words and how sure it is. */
import { assertNever } from "../../assert-never";
import { type Box, boxArea, boxCentre, boxUnion, intersectionArea, type Size } from "../../geometry/box";
import { type FrameRange, framesPerSecond, type Rate } from "../../time/rate";
import type { FollowRule } from "./follow-rule";
import { type ChosenSubject, chooseSubject, type RankedTrack, rankTracks } from "./rank";
import { LEAST_TURN_SECONDS, turnsOf } from "../speaking/speaking";
import { type Subject, subjectOf } from "./subject";
import { boxAt, type Track } from "../tracking/track";
import { reasonsTexts } from "../../../texts/reasons";

const t = reasonsTexts.follow;

/** A part of a shot with one subject; at the next one the window jumps. */
export interface FollowSpan extends FrameRange {
  subject: Subject | null;
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
}

/** Share of the frames with both in which two must fit into the window to be kept together. */
const FITTING_SHARE = 0.85;
/** A thing that is nearly as good a choice as another, and seen for most of the shot, is as likely. */
const ALIKE = 0.75;
const ALIKE_PRESENCE = 0.6;
/** Room left beside two that are kept together, in windows. */
const ROOM = 0.08;
/** What everything together counts as, in windows, where it does not fit. */
const BALANCE_SIZE = 0.15;

const whole = (shot: FrameRange, subject: Subject | null): FollowSpan[] => [{ ...shot, subject }];

function planFor(problem: FollowProblem, chosen: RankedTrack & { certainty?: number }, reason: string): FollowPlan {
  const { shot, tracks } = problem;
  return {
    spans: whole(shot, subjectOf(chosen.track, tracks)),
    trackId: chosen.track.id,
    who: chosen.track.who ?? null,
    reason,
    certainty: chosen.certainty ?? 1,
  };
}

function choose({ tracks, shot, picture, before }: FollowProblem): ChosenSubject | null {
  return chooseSubject(tracks, shot, picture, before);
}

/** The best choice, with a word on why it came to that. */
function fallBack(problem: FollowProblem, why?: string): FollowPlan {
  const chosen = choose(problem);
  const prefix = why ? `${why}; ` : "";
  if (chosen) return planFor(problem, chosen, `${prefix}${chosen.reason}`);
  const reason = t.noClearSubject(prefix);
  return { spans: whole(problem.shot, null), trackId: null, who: null, reason, certainty: 0.3 };
}

/** Tracks in order of merit, a person with a face once. */
function candidates({ tracks, shot, picture, before }: FollowProblem): RankedTrack[] {
  const withFace = new Set(tracks.map(({ personId }) => personId));
  return rankTracks(
    tracks.filter(({ id }) => !withFace.has(id)),
    shot,
    picture,
    before,
  ).filter(({ presence }) => presence >= 0.1);
}

/** The box around boxes; null around none. */
function around(boxes: readonly (Box | null)[]): Box | null {
  const there = boxes.filter((box) => box !== null);
  return there.length > 0 ? boxUnion(there) : null;
}

/** A track of the film's shot that is made of others. */
function madeTrack(id: string, shot: FrameRange, at: (frame: number) => Box | null): Track {
  const boxes = Array.from({ length: shot.end - shot.start }, (_, i) => at(shot.start + i));
  return { id, kind: "object", start: shot.start, boxes, confidence: 1 };
}

/** Several as one subject, and in what share of the frames with all of them the window holds them; NaN in no frame. */
function together(parts: readonly Track[], { shot, tracks, window }: FollowProblem) {
  let all = 0;
  let fitting = 0;
  const track = madeTrack("together", shot, (frame) => {
    const boxes = parts.map((part) => boxAt(part, frame));
    const box = around(boxes);
    if (box && boxes.every((one) => one)) {
      all++;
      if (box.width <= (1 - ROOM) * window.width && box.height <= (1 - ROOM) * window.height) fitting++;
    }
    return box;
  });
  const bodies = parts.map((part) => subjectOf(part, tracks).body);
  const body = madeTrack("together-bodies", shot, (frame) => around(bodies.map((one) => one && boxAt(one, frame))));
  return { subject: { track, body }, fitting: fitting / all };
}

/** Two things of which each might be what the shot is about; null where one is, or where it is about people. */
function twoAlike(problem: FollowProblem): [RankedTrack, RankedTrack] | null {
  const [first, second] = candidates(problem);
  if (!first || !second || second.score < ALIKE * first.score) return null;
  const areThings = [first, second].every(
    ({ track, presence }) => (track.kind === "object" || track.kind === "salient") && presence >= ALIKE_PRESENCE,
  );
  const overlaps = first.track.boxes.some((box, i) => {
    const other = boxAt(second.track, first.track.start + i);
    return box && other && intersectionArea(box, other) > 0;
  });
  return areThings && !overlaps ? [first, second] : null;
}

/** A plan for one who speaks, with the other who does and does not fit into the window with them. */
function withOtherSpeaker(plan: FollowPlan, problem: FollowProblem): FollowPlan {
  const { tracks, rate } = problem;
  const followed = tracks.find(({ id }) => id === plan.trackId);
  const speaks = (track: Track) => (track.speaking ?? []).reduce((sum, { start, end }) => sum + end - start, 0);
  const [other] = tracks
    .filter((track) => track !== followed && speaks(track) >= LEAST_TURN_SECONDS * framesPerSecond(rate))
    .sort((a, b) => speaks(b) - speaks(a));
  if (!other || !followed || speaks(followed) === 0) return plan;
  const { fitting } = together([followed, other], problem);
  return fitting < FITTING_SHARE ? { ...plan, other: { trackId: other.id, why: "apart" } } : plan;
}

/** What is followed if nobody says otherwise: of two things alike both, where they fit, and else always the same one. */
function automatic(problem: FollowProblem): FollowPlan {
  const alike = twoAlike(problem);
  if (!alike) return withOtherSpeaker(fallBack(problem), problem);
  const [first, second] = alike;
  const { subject, fitting } = together([first.track, second.track], problem);
  if (!(fitting >= FITTING_SHARE)) return { ...fallBack(problem), other: { trackId: second.track.id, why: "alike" } };
  const reason = t.twoAlikeOfTheTime(fitting);
  return { spans: whole(problem.shot, subject), trackId: first.track.id, who: null, reason, certainty: fitting };
}

function both(problem: FollowProblem): FollowPlan {
  const [first, second] = candidates(problem);
  if (!first || !second) return fallBack(problem, t.thereAreNoTwoTo);
  const { subject, fitting } = together([first.track, second.track], problem);
  if (Number.isNaN(fitting)) return fallBack(problem, t.theTwoAreNeverSeen);
  if (fitting < FITTING_SHARE) {
    const plan = fallBack(problem, t.theTwoDoNotFit);
    const left = plan.trackId === first.track.id ? second : first;
    return { ...plan, other: { trackId: left.track.id, why: "apart" } };
  }
  return {
    spans: whole(problem.shot, subject),
    trackId: first.track.id,
    who: first.track.who ?? null,
    reason: t.twoTogetherOfTheTime(fitting),
    certainty: fitting,
  };
}

function everything(problem: FollowProblem): FollowPlan {
  const { shot, window } = problem;
  const ranked = candidates(problem);
  if (ranked.length === 0) return fallBack(problem);
  const size = BALANCE_SIZE * window.width;
  const balance = madeTrack("everything", shot, (frame) => {
    const seen = ranked.flatMap(({ track, score }) => {
      const box = boxAt(track, frame);
      return box ? [{ box, weight: score * Math.sqrt(boxArea(box)) }] : [];
    });
    const box = around(seen.map((entry) => entry.box));
    if (!box || box.width <= window.width) return box;
    const weights = seen.reduce((sum, { weight }) => sum + weight, 0);
    const mean = (axis: "x" | "y") =>
      seen.reduce((sum, entry) => sum + (entry.weight * boxCentre(entry.box)[axis]) / weights, 0);
    return { x: mean("x") - size / 2, y: mean("y") - size / 2, width: size, height: size };
  });
  const reason = t.balanceOf(ranked.length);
  return { spans: whole(shot, { track: balance, body: null }), trackId: null, who: null, reason, certainty: 1 };
}

function speaker(problem: FollowProblem, moves: boolean): FollowPlan {
  const { shot, tracks, rate } = problem;
  const turns = turnsOf(tracks, shot, rate);
  if (turns.length === 0) return fallBack(problem, t.nobodySeenSpeaking);
  const track = (id: string) => tracks.find((other) => other.id === id)!;
  const frames = new Map<string, number>();
  for (const { trackId, start, end } of turns) frames.set(trackId, (frames.get(trackId) ?? 0) + end - start);
  const jumping = (): FollowSpan[] =>
    turns.map(({ start, end, trackId }) => ({ start, end, subject: subjectOf(track(trackId), tracks) }));
  const [most] = [...frames].sort((a, b) => b[1] - a[1]);
  const main = track(most![0]);
  const plan: Omit<FollowPlan, "spans" | "reason"> = { trackId: main.id, who: main.who ?? null, certainty: 0.9 };
  if (frames.size === 1) return { ...plan, spans: jumping(), reason: t.theSpeaker };
  const all = together([...frames.keys()].map(track), problem);
  if (all.fitting >= FITTING_SHARE) {
    const reason = t.speakersAllInTheWindow(frames.size);
    return { ...plan, spans: whole(shot, all.subject), reason };
  }
  const reason = t.speakersTurns(frames.size, turns.length);
  const next = [...frames].sort((a, b) => b[1] - a[1])[1]!;
  plan.other = { trackId: next[0], why: "apart" };
  if (!moves) return { ...plan, spans: jumping(), reason };
  const speaking = (frame: number) => track(turns.find(({ end }) => frame < end)!.trackId);
  const joint = madeTrack("speaker", shot, (frame) => boxAt(speaking(frame), frame));
  joint.kind = "face";
  const body = madeTrack("speaker-body", shot, (frame) => {
    const other = subjectOf(speaking(frame), tracks).body;
    return other && boxAt(other, frame);
  });
  return { ...plan, spans: whole(shot, { track: joint, body }), reason };
}

/** What is followed in a shot under a rule. */
export function planFollowing(problem: FollowProblem): FollowPlan {
  const { rule, shot, tracks } = problem;
  switch (rule.kind) {
    case "auto":
      return automatic(problem);
    case "none":
      return {
        spans: whole(shot, null),
        trackId: null,
        who: null,
        reason: t.nothingIsFollowedAsYou,
        certainty: 1,
      };
    case "second": {
      const second = candidates(problem)[1];
      return second ? planFor(problem, second, t.second(second.reason)) : fallBack(problem, t.thereIsNoSecond);
    }
    case "both":
      return both(problem);
    case "everything":
      return everything(problem);
    case "speaker":
    case "speaker-move":
      return speaker(problem, rule.kind === "speaker-move");
    case "person": {
      const theirs = candidates(problem).find(({ track }) => track.who === rule.who);
      return theirs ? planFor(problem, theirs, t.yourChoice(theirs.reason)) : fallBack(problem, t.notInThisShot);
    }
    case "track": {
      const asked = tracks.find(({ id }) => id === rule.trackId);
      if (!asked) return fallBack(problem, t.whatYouChoseIsNot);
      const ranked = rankTracks([asked], shot, problem.picture)[0]!;
      return planFor(problem, ranked, asked.kind === "mark" ? t.markedByYou : t.chosenByYou);
    }
    default:
      return assertNever(rule);
  }
}
