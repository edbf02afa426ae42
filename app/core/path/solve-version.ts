import type { Size } from "../geometry/box";
import { aspectRatio } from "../geometry/crop-window";
import { planFollowing } from "../subjects/choosing/follow";
import { boxAt, type Track } from "../subjects/tracking/track";
import { framesPerSecond, type Rate } from "../time/rate";
import { chooseManner } from "./choose-manner";
import type { Followed, FramedShot, ShotBefore, ShotFraming } from "./shot-framing";
import type { FramingSettings } from "./framing-settings";
import { type ShotProblem, solveShot } from "./solve-shot";
import { insideArea, outOfArea, windowBefore } from "./active-area";
import { SolvedProblems } from "./solved-problems";
import { heightLimits } from "./zoom-goals";

/**
 * Whether the window goes on from where it was in the shot before: where the editor wants it to, and at a turn where the
 * version follows the same on both sides.
 */
export const goesOn = ({ carry, atTurn }: ShotFraming, before: Followed, now: Followed): boolean =>
  carry || (atTurn && before.trackId === now.trackId && before.who === now.who);

const NOTHING_BEFORE: ShotBefore = { window: null, who: null };

/**
 * Lays the path of one shot for a version of the given size.
 *
 * @param solved what was solved for the shot's last path; afterwards, what was for this one
 */
export function frameShot(
  shot: ShotFraming,
  picture: Size,
  target: Size,
  rate: Rate,
  before: ShotBefore = NOTHING_BEFORE,
  solved = new SolvedProblems(),
): FramedShot {
  const { active } = shot;
  if (!active) return frameInPicture(shot, picture, target, rate, before, solved);
  const inside = frameInPicture(insideArea(shot, active), active, target, rate, windowBefore(before, active), solved);
  return outOfArea(inside, active);
}

function frameInPicture(
  shot: ShotFraming,
  picture: Size,
  target: Size,
  rate: Rate,
  before: ShotBefore,
  solved: SolvedProblems,
): FramedShot {
  const { range, settings, handKeys, tracks, rule, protect } = shot;
  const window = windowSize(picture, target, settings);
  const plan = planFollowing({ rule, shot: range, tracks, picture, window, rate, before: before.who });
  const parts = plan.spans.map((span, i) => {
    const { start, end, subject } = span;
    const startAt = i === 0 ? before.window : null;
    const { manner, reason } =
      settings.manner === "auto"
        ? chooseManner(subject, span, window.width, framesPerSecond(rate), startAt?.x)
        : { manner: settings.manner, reason: null };
    const problem: ShotProblem = {
      shot: { start, end },
      picture,
      target,
      rate,
      settings: { ...settings, manner },
      subject,
      protect,
      handKeys,
      startAt,
    };
    const path = solveShot(problem, solved);
    return { ...path, manner, mannerReason: reason };
  });
  solved.forgetUnused();
  const longest = parts.reduce((best, part) => (part.windows.length > best.windows.length ? part : best));
  const keys = parts.flatMap((part, i) =>
    // Up to where the window jumps, it stays where the last key before has it.
    i === parts.length - 1
      ? part.keys
      : part.keys.map((key, k) => (k === part.keys.length - 1 ? { ...key, easing: "hold" as const } : key)),
  );
  return {
    keys,
    windows: parts.flatMap((part) => part.windows),
    subjectId: plan.trackId,
    who: plan.who,
    reason: plan.reason,
    certainty: plan.certainty,
    manner: longest.manner,
    mannerReason: longest.mannerReason,
    spans: plan.spans.map(({ start, end, subject }) => ({
      start,
      end,
      trackId: tracks.find(({ id }) => id === subject?.track.id)?.id ?? null,
    })),
  };
}

/** The largest window that the zoom allows. */
const windowSize = (picture: Size, target: Size, settings: FramingSettings): Size => {
  const [, height] = heightLimits(settings, picture, target);
  return { width: height * aspectRatio(target), height };
};

/** Whom a shot follows; `before` is who was followed in the one before it. */
export function followedIn(shot: ShotFraming, whole: Size, target: Size, rate: Rate, before: string | null): Followed {
  const { range, tracks, rule, settings } = shot.active ? insideArea(shot, shot.active) : shot;
  const picture = shot.active ?? whole;
  const window = windowSize(picture, target, settings);
  const { who, trackId } = planFollowing({ rule, shot: range, tracks, picture, window, rate, before });
  return { who, trackId };
}

/** What is followed through a shot as one track, whoever it is at each moment; null where it is no track of the shot's. */
export function followedTrack({ spans, subjectId }: FramedShot, tracks: readonly Track[]): Track | null {
  const found = spans.map(({ trackId }) => tracks.find(({ id }) => id === trackId));
  if (spans.length === 1) return found[0] ?? tracks.find(({ id }) => id === subjectId) ?? null;
  if (found.some((track) => !track)) return null;
  const boxes = spans.flatMap(({ start, end }, i) =>
    Array.from({ length: end - start }, (_, k) => boxAt(found[i]!, start + k)),
  );
  return { ...found[0]!, start: spans[0]!.start, boxes };
}
