/** Plans in which attention switches within a shot: by itself, to whoever speaks, or as the editor has set it. */
import { boxCentre } from "../../geometry/box";
import { type FrameRange, framesPerSecond } from "../../time/rate";
import { clipRanges } from "../../time/ranges";
import type { SwitchStyle } from "../attention/attention-settings";
import { attentionIn, type Hold } from "../attention/switches";
import { asCandidate, type Candidate, candidatesOf } from "../attention/worth";
import { extentOf, nearestBox, type Track } from "../tracking/track";
import { fallBack, type FollowPlan, type FollowProblem, type FollowSpan } from "./follow-plan";
import type { SetSwitch } from "./follow-rule";
import { around, together } from "./made-subject";
import { isSubject } from "./rank";
import { reasonsTexts } from "../../../texts/reasons";

const t = reasonsTexts.follow;

/** Distance to a speaker, in windows, above which the window cuts unless it is set to pan. */
const JUMP_FROM = 1;
/** Certainty of where attention goes when nobody speaks. */
const PASSING_CERTAINTY = 0.65;

/** A plan that switches from one to the next, or holds several. */
function planHolds(holds: readonly Hold[], problem: FollowProblem, style: SwitchStyle, reason: string): FollowPlan {
  const { tracks } = problem;
  const spans = holds.map(({ start, end, on, cause }, i): FollowSpan => {
    const subject =
      on.length === 0
        ? null
        : on.length === 1
          ? on[0]!.subject
          : together(tracksOf(on), { ...problem, shot: { start, end } }).subject;
    const trackIds = on.flatMap((one) => piecesIn(one, { start, end }).map(({ id }) => id));
    return {
      start,
      end,
      subject,
      trackIds,
      cause,
      comesBy: i === 0 ? "cut" : comesBy(holds[i - 1]!, holds[i]!, style, problem),
    };
  });
  const frames = new Map<string, number>();
  for (const { start, end, on } of holds)
    for (const { track } of on) frames.set(track.id, (frames.get(track.id) ?? 0) + end - start);
  const [most] = [...frames].sort((a, b) => b[1] - a[1]);
  const main = tracks.find(({ id }) => id === most?.[0]);
  return { spans, trackId: main?.id ?? null, who: main?.who ?? null, reason, certainty: 0.9 };
}

const tracksOf = (on: readonly Candidate[]): Track[] => on.map(({ subject }) => subject.track);

/** The tracks of somebody that are seen in a range; the first where none is. */
function piecesIn({ pieces }: Candidate, range: FrameRange): readonly Track[] {
  if (pieces.length === 1) return pieces;
  const seen = pieces.filter((piece) => clipRanges([extentOf(piece)], range).length > 0);
  return seen.length > 0 ? seen : pieces.slice(0, 1);
}

/** Whether a hold is on somebody who speaks in it. */
const speaksIn = ({ start, end, on }: Hold): boolean =>
  on.length === 1 && clipRanges(on[0]!.speaks, { start, end }).length > 0;

/** Whether the window pans or cuts from one hold to the next: to a distant speaker it cuts. */
function comesBy(from: Hold, to: Hold, style: SwitchStyle, { window }: FollowProblem): "cut" | "pan" {
  if (style !== "auto") return style;
  const placeOf = ({ on }: Hold) => around(tracksOf(on).map((track) => nearestBox(track, to.start)));
  const [a, b] = [placeOf(from), placeOf(to)];
  const isFar = a && b && Math.abs(boxCentre(a).x - boxCentre(b).x) > JUMP_FROM * window.width;
  return speaksIn(to) && isFar ? "cut" : "pan";
}

function holdsOf(problem: FollowProblem, candidates: readonly Candidate[]): Hold[] {
  const { shot, picture, window, rate, attention } = problem;
  return attentionIn({ shot, candidates, picture, window, fps: framesPerSecond(rate), hold: attention.shortestStay });
}

const candidatesIn = ({ shot, tracks, picture, rate, attention }: FollowProblem): Candidate[] =>
  candidatesOf({ shot, tracks, picture, fps: framesPerSecond(rate), mustHave: attention.mustHave });

/** Everybody who is followed in some of several holds. */
const followedIn = (holds: readonly Hold[]): Set<Candidate> => new Set(holds.flatMap(({ on }) => on));

/** The plan where attention switches, or several are held together; null where it is on one through the whole shot. */
export function shared(problem: FollowProblem): FollowPlan | null {
  if (problem.passesOn === false) return null;
  const holds = holdsOf(problem, candidatesIn(problem));
  const [first] = holds;
  if (!first) return null;
  const switches = holds.length - 1;
  if (switches === 0 && first.on.length === 1) {
    const [only] = first.on;
    return only!.isMust ? planHolds(holds, problem, "auto", t.mustHave) : null;
  }
  if (switches === 0) {
    const { fitting } = together(tracksOf(first.on), problem);
    const reason = t.severalTogetherOfTheTime(first.on.length, fitting);
    return { ...planHolds(holds, problem, "auto", reason), certainty: fitting || 1 };
  }
  const speakers = [...followedIn(holds)].filter(({ speaks }) => speaks.length > 0);
  const talk = speakers.length > 1 && 2 * holds.filter(({ cause }) => cause === "speaks").length >= switches;
  const reason = talk
    ? t.talkInTurn(speakers.length, switches)
    : t.attentionPassesOn(switches, reasonsTexts.causes[holds[1]!.cause!]);
  return {
    ...planHolds(holds, problem, problem.attention.switchBy, reason),
    certainty: talk ? 0.9 : PASSING_CERTAINTY,
  };
}

/** Switches to whoever speaks, and stays with all speakers where they fit the window. */
export function speaker(problem: FollowProblem, style: SwitchStyle): FollowPlan {
  const speaking = candidatesIn(problem).filter(({ speaks }) => speaks.length > 0);
  if (speaking.length === 0) return fallBack(problem, t.nobodySeenSpeaking);
  // Among speakers only speech counts.
  const equals = speaking.map((one): Candidate => ({ ...one, weight: 1, acts: [] }));
  const holds = holdsOf(problem, equals);
  const heard = followedIn(holds);
  if (heard.size === 1) return planHolds(holds, problem, style, t.theSpeaker);
  const isAlwaysAll = holds.length === 1;
  const reason = isAlwaysAll ? t.speakersAllInTheWindow(heard.size) : t.talkInTurn(heard.size, holds.length - 1);
  return planHolds(holds, problem, style, reason);
}

/** Follows one after the other, as the editor has set it. */
export function asSet(switches: readonly SetSwitch[], problem: FollowProblem): FollowPlan {
  const { shot, tracks, picture, rate } = problem;
  const ground = { shot, tracks, picture, fps: framesPerSecond(rate), mustHave: [] };
  const known = new Map(tracks.filter(isSubject).map((track) => [track.id, asCandidate([track], ground)]));
  const begun = switches.filter(
    ({ frame }, i) => frame < shot.end && (switches[i + 1]?.frame ?? shot.end) > shot.start,
  );
  const holds = (begun.length > 0 ? begun : switches.slice(0, 1)).map(({ frame, trackIds }, i): Hold => {
    const on = trackIds.flatMap((id) => known.get(id) ?? []);
    const start = i === 0 ? shot.start : frame;
    const end = begun[i + 1]?.frame ?? shot.end;
    return { start, end, on, cause: i === 0 ? null : "set" };
  });
  const isKnown = switches.some(({ trackIds }) => trackIds.some((id) => tracks.some((track) => track.id === id)));
  if (!isKnown) return fallBack(problem, t.selectedIsGone);
  return { ...planHolds(holds, problem, problem.attention.switchBy, t.yourSwitches(holds.length - 1)), certainty: 1 };
}
