/** Turns a rule into what is followed when in a shot, with the reason in words and how sure it is. */
import { assertNever } from "../../assert-never";
import { boxArea, boxCentre, intersectionArea, type Size } from "../../geometry/box";
import { type FrameRange, framesPerSecond, type Rate } from "../../time/rate";
import type { FollowRule, SetTurn } from "./follow-rule";
import { type ChosenSubject, chooseSubject, type RankedTrack, rankTracks } from "./rank";
import type { AttentionSettings, TurnStyle } from "../attention/attention-settings";
import { attentionIn, type Hold, type TurnCause } from "../attention/turns";
import { asCandidates, type Candidate, candidatesOf } from "../attention/worth";
import { LEAST_TURN_SECONDS } from "../speaking/speaking";
import { around, madeTrack, together } from "./made-subject";
import { type Subject, subjectOf } from "./subject";
import { boxAt, nearestBox, type Track } from "../tracking/track";
import { reasonsTexts } from "../../../texts/reasons";

const t = reasonsTexts.follow;

/** A part of a shot with one subject. */
export interface FollowSpan extends FrameRange {
  subject: Subject | null;
  /** The tracks that it is made of; none where nothing is followed, or all of it. */
  trackIds: readonly string[];
  /** How the window gets to it from the one before. */
  comesBy: "jump" | "move";
  /** Why it begins; null where nothing is known of that. */
  cause: TurnCause | null;
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

/** Share of the frames with both in which two must fit into the window to be kept together. */
const FITTING_SHARE = 0.85;
/** A thing that is nearly as good a choice as another, and seen for most of the shot, is as likely. */
const ALIKE = 0.75;
const ALIKE_PRESENCE = 0.6;
/** To a speaker this far away, in windows, the window jumps unless it is to move. */
const JUMP_FROM = 1;
/** How sure it is where attention goes when nobody speaks. */
const PASSING_CERTAINTY = 0.65;
/** What everything together counts as, in windows, where it does not fit. */
const BALANCE_SIZE = 0.15;

const whole = (shot: FrameRange, subject: Subject | null, trackIds: readonly string[] = []): FollowSpan[] => [
  { ...shot, subject, trackIds, comesBy: "jump", cause: null },
];

function planFor(problem: FollowProblem, chosen: RankedTrack & { certainty?: number }, reason: string): FollowPlan {
  const { shot, tracks } = problem;
  return {
    spans: whole(shot, subjectOf(chosen.track, tracks), [chosen.track.id]),
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

/** That nobody of those who have to be in the picture is there, if so. */
function lackOf({ tracks, attention: { mustHave } }: FollowProblem): string | undefined {
  const isThere = tracks.some(({ who }) => who !== undefined && mustHave.includes(who));
  return mustHave.length > 0 && !isThere ? t.whoMustBeInItIsNot : undefined;
}

/** What is followed if nobody says otherwise: of two things alike both, where they fit, and else always the same one. */
function automatic(problem: FollowProblem): FollowPlan {
  const alike = twoAlike(problem);
  if (!alike) return shared(problem) ?? withOtherSpeaker(fallBack(problem, lackOf(problem)), problem);
  const [first, second] = alike;
  const { subject, fitting } = together([first.track, second.track], problem);
  if (!(fitting >= FITTING_SHARE)) return { ...fallBack(problem), other: { trackId: second.track.id, why: "alike" } };
  const reason = t.twoAlikeOfTheTime(fitting);
  const spans = whole(problem.shot, subject, [first.track.id, second.track.id]);
  return { spans, trackId: first.track.id, who: null, reason, certainty: fitting };
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
    spans: whole(problem.shot, subject, [first.track.id, second.track.id]),
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

/** A plan that goes from one to the next, or holds several. */
function planHolds(holds: readonly Hold[], problem: FollowProblem, style: TurnStyle, reason: string): FollowPlan {
  const { tracks } = problem;
  const spans = holds.map(({ start, end, on, cause }, i): FollowSpan => {
    const subject =
      on.length === 0
        ? null
        : on.length === 1
          ? on[0]!.subject
          : together(partsOf(on), { ...problem, shot: { start, end } }).subject;
    const trackIds = on.map(({ track }) => track.id);
    return {
      start,
      end,
      subject,
      trackIds,
      cause,
      comesBy: i === 0 ? "jump" : comesBy(holds[i - 1]!, holds[i]!, style, problem),
    };
  });
  const frames = new Map<string, number>();
  for (const { start, end, on } of holds)
    for (const { track } of on) frames.set(track.id, (frames.get(track.id) ?? 0) + end - start);
  const [most] = [...frames].sort((a, b) => b[1] - a[1]);
  const main = tracks.find(({ id }) => id === most?.[0]);
  return { spans, trackId: main?.id ?? null, who: main?.who ?? null, reason, certainty: 0.9 };
}

const partsOf = (on: readonly Candidate[]): Track[] => on.map(({ track }) => track);

/** Whether the window moves or jumps from one hold to the next: far away to a speaker it jumps. */
function comesBy(from: Hold, to: Hold, style: TurnStyle, { window }: FollowProblem): "jump" | "move" {
  if (style !== "auto") return style;
  const placeOf = ({ on }: Hold) => around(partsOf(on).map((track) => nearestBox(track, to.start)));
  const [a, b] = [placeOf(from), placeOf(to)];
  const isFar = a && b && Math.abs(boxCentre(a).x - boxCentre(b).x) > JUMP_FROM * window.width;
  return to.cause === "speaks" && isFar ? "jump" : "move";
}

function holdsOf(problem: FollowProblem, candidates: readonly Candidate[]): Hold[] {
  const { shot, picture, window, rate, attention } = problem;
  return attentionIn({ shot, candidates, picture, window, fps: framesPerSecond(rate), hold: attention.hold });
}

const candidatesIn = ({ shot, tracks, picture, rate, attention }: FollowProblem): Candidate[] =>
  candidatesOf({ shot, tracks, picture, fps: framesPerSecond(rate), mustHave: attention.mustHave });

/** Everybody who is followed in some of several holds. */
const followedIn = (holds: readonly Hold[]): Set<Candidate> => new Set(holds.flatMap(({ on }) => on));

/** Where attention passes on, or several are held together; null where it is with one through the shot. */
function shared(problem: FollowProblem): FollowPlan | null {
  if (problem.passesOn === false) return null;
  const holds = holdsOf(problem, candidatesIn(problem));
  const [first] = holds;
  if (!first) return null;
  const turns = holds.length - 1;
  if (turns === 0 && first.on.length === 1) {
    const [only] = first.on;
    return only!.isMust ? planHolds(holds, problem, "auto", t.mustBeInIt) : null;
  }
  if (turns === 0) {
    const { fitting } = together(partsOf(first.on), problem);
    const reason = t.severalTogetherOfTheTime(first.on.length, fitting);
    return { ...planHolds(holds, problem, "auto", reason), certainty: fitting || 1 };
  }
  const speakers = [...followedIn(holds)].filter(({ speaks }) => speaks.length > 0);
  const talk = speakers.length > 1 && 2 * holds.filter(({ cause }) => cause === "speaks").length >= turns;
  const reason = talk
    ? t.talkInTurn(speakers.length, turns)
    : t.attentionPassesOn(turns, reasonsTexts.causes[holds[1]!.cause!]);
  return { ...planHolds(holds, problem, problem.attention.turns, reason), certainty: talk ? 0.9 : PASSING_CERTAINTY };
}

function speaker(problem: FollowProblem, style: TurnStyle): FollowPlan {
  const speaking = candidatesIn(problem).filter(({ speaks }) => speaks.length > 0);
  if (speaking.length === 0) return fallBack(problem, t.nobodySeenSpeaking);
  // Among those who speak only that counts.
  const equals = speaking.map((one): Candidate => ({ ...one, weight: 1, acts: [] }));
  const holds = holdsOf(problem, equals);
  const heard = followedIn(holds);
  if (heard.size === 1) return planHolds(holds, problem, style, t.theSpeaker);
  const isAlwaysAll = holds.length === 1;
  const reason = isAlwaysAll ? t.speakersAllInTheWindow(heard.size) : t.talkInTurn(heard.size, holds.length - 1);
  return planHolds(holds, problem, style, reason);
}

/** Follows one after the other, as the editor has said. */
function asSet(turns: readonly SetTurn[], problem: FollowProblem): FollowPlan {
  const { shot, tracks } = problem;
  const known = new Map(asCandidates(tracks, { shot, tracks, mustHave: [] }).map((one) => [one.track.id, one]));
  const begun = turns.filter(({ frame }, i) => frame < shot.end && (turns[i + 1]?.frame ?? shot.end) > shot.start);
  const holds = (begun.length > 0 ? begun : turns.slice(0, 1)).map(({ frame, trackIds }, i): Hold => {
    const on = trackIds.flatMap((id) => known.get(id) ?? []);
    const start = i === 0 ? shot.start : frame;
    const end = begun[i + 1]?.frame ?? shot.end;
    const isSpeaker = on.length === 1 && on[0]!.speaks.some((range) => range.start < end && range.end > start);
    return { start, end, on, cause: isSpeaker ? "speaks" : "set" };
  });
  const isKnown = turns.some(({ trackIds }) => trackIds.some((id) => tracks.some((track) => track.id === id)));
  if (!isKnown) return fallBack(problem, t.whatYouChoseIsNot);
  return { ...planHolds(holds, problem, problem.attention.turns, t.yourTurns(holds.length - 1)), certainty: 1 };
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
      return speaker(problem, rule.kind === "speaker-move" ? "move" : "jump");
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
    case "turns":
      return asSet(rule.turns, problem);
    default:
      return assertNever(rule);
  }
}
