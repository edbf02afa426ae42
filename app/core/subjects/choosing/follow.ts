/** Turns a rule into what is followed when in a shot, with the reason in words and the certainty. */
import { assertNever } from "../../basics/assert-never";
import { boxArea, boxCentre, intersectionArea } from "../../geometry/box";
import { framesPerSecond } from "../../time/rate";
import { isMust } from "../attention/attention-settings";
import { LEAST_TURN_SECONDS } from "../speaking/speaking";
import { boxAt, type Track } from "../tracking/track";
import { fallBack, type FollowPlan, type FollowProblem, planFor, whole } from "./follow-plan";
import { around, madeTrack, together } from "./made-subject";
import { asSet, shared, speaker } from "./pass-on";
import { type RankedTrack, rankTracks } from "./rank";
import { reasonsTexts } from "../../../texts/reasons";

const t = reasonsTexts.follow;

/** Share of the frames with both in which two must fit the window to be kept together. */
const FITTING_SHARE = 0.85;
/** Score of a thing relative to the best at which it is an equally good choice, if it is seen for most of the shot. */
const ALIKE = 0.75;
const ALIKE_PRESENCE = 0.6;
/** Assumed size of everything together, in windows, where it does not fit. */
const BALANCE_SIZE = 0.15;

/** Tracks in order of merit, each person with a face once. */
function candidates({ tracks, shot, picture, before }: FollowProblem): RankedTrack[] {
  const withFace = new Set(tracks.map(({ personId }) => personId));
  return rankTracks(
    tracks.filter(({ id }) => !withFace.has(id)),
    shot,
    picture,
    before,
  ).filter(({ presence }) => presence >= 0.1);
}

/** Two things of which either may be what the shot is about; null where one is, or where it is about people. */
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

/** A plan for one speaker, with another one who does not fit the window together with them. */
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

/** Says that none of the required people is there, if so. */
function lackOf({ tracks, attention: { mustHave } }: FollowProblem): string | undefined {
  const isThere = tracks.some((track) => isMust(track, mustHave));
  return mustHave.length > 0 && !isThere ? t.mustHaveMissing : undefined;
}

/** What is followed by default: of two equal things both, where they fit, and otherwise always the same one. */
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
  if (!first || !second) return fallBack(problem, t.noTwo);
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
        reason: t.followsNothing,
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
    case "speaker-pan":
      return speaker(problem, rule.kind === "speaker-pan" ? "pan" : "cut");
    case "person": {
      const theirs = candidates(problem).find(({ track }) => track.who === rule.who);
      return theirs ? planFor(problem, theirs, t.yourChoice(theirs.reason)) : fallBack(problem, t.notInThisShot);
    }
    case "track": {
      const asked = tracks.find(({ id }) => id === rule.trackId);
      if (!asked) return fallBack(problem, t.selectedIsGone);
      const ranked = rankTracks([asked], shot, problem.picture)[0]!;
      return planFor(problem, ranked, asked.kind === "mark" ? t.markedByYou : t.setByYou);
    }
    case "switches":
      return asSet(rule.switches, problem);
    default:
      return assertNever(rule);
  }
}
