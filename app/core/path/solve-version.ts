import { layOut, paneBox } from "../composition/layout";
import { type Size, wholeOf } from "../geometry/box";
import { aspectRatio, type CropWindow } from "../geometry/crop-window";
import { planFollowing } from "../subjects/choosing/follow";
import type { FollowPlan, FollowSpan } from "../subjects/choosing/follow-plan";
import { around, oneAfterTheOther } from "../subjects/choosing/made-subject";
import type { Subject } from "../subjects/choosing/subject";
import { boxAt, laidOver, type Track } from "../subjects/tracking/track";
import { type FrameRange, framesPerSecond, type Rate } from "../time/rate";
import { clipRanges, withoutRanges } from "../time/ranges";
import { chooseMovement } from "./choose-movement";
import type { Followed, FramedPane, FramedShot, ShotBefore, ShotFraming } from "./shot-framing";
import type { FramingSettings } from "./framing-settings";
import { type ShotProblem, solveShot } from "./solve-shot";
import { insideArea, outOfArea, windowsBefore } from "./active-area";
import { insideTile, outOfTile, tileOf } from "./tile-area";
import { SolvedProblems } from "./solved-problems";
import { heightLimits } from "./zoom-goals";

/**
 * Whether the window continues from the shot before: where the editor wants it to, and at a switch where the version
 * follows the same subject on both sides.
 */
export const goesOn = ({ carry, atSwitch }: ShotFraming, before: Followed, now: Followed): boolean =>
  carry || (atSwitch && before.trackId === now.trackId && before.who === now.who);

const NOTHING_BEFORE: ShotBefore = { windows: [], who: null };

/**
 * The range of a shot that decides whom it follows: from the first frame shown to the last; all of it where nothing is
 * shown.
 */
const shownSpan = ({ range, kept }: ShotFraming): FrameRange => ({
  start: kept[0]?.start ?? range.start,
  end: kept.at(-1)?.end ?? range.end,
});

/** Whom a shot follows, and when; the spans cover the whole shot, whatever of it is shown. */
function plan(shot: ShotFraming, picture: Size, target: Size, rate: Rate, before: string | null): FollowPlan {
  const { range, rule, tracks, settings } = shot;
  const window = windowSize(picture, target, settings);
  const { spans, ...rest } = planFollowing({
    rule,
    shot: shownSpan(shot),
    tracks,
    picture,
    window,
    rate,
    before,
    attention: settings,
    passesOn: shot.others.length === 0,
  });
  const last = spans.length - 1;
  const whole = spans.map((span, i) => ({
    ...span,
    start: i === 0 ? range.start : span.start,
    end: i === last ? range.end : span.end,
  }));
  return { ...rest, spans: whole };
}

/** A range of a shot in which the window follows one subject without a jump. */
interface Run extends FrameRange {
  subject: Subject | null;
}

/** Spans between which the window pans, joined. */
function runsOf(spans: readonly FollowSpan[]): Run[] {
  const runs: FollowSpan[][] = [];
  for (const span of spans) {
    const last = runs.at(-1);
    if (last && span.comesBy === "pan") last.push(span);
    else runs.push([span]);
  }
  return runs.map((run) => ({ start: run[0]!.start, end: run.at(-1)!.end, subject: oneAfterTheOther(run) }));
}

/** Parts of a path, each laid by itself: the window may jump between them. */
interface Part extends Run {
  /** Whether it is shown. */
  isShown: boolean;
}

/** Runs, cut where something is left out: the picture jumps there, as at any cut. */
function pathParts({ range, kept }: ShotFraming, runs: readonly Run[]): Part[] {
  const gone = withoutRanges([range], kept);
  const pieces = [
    ...kept.map((piece) => ({ piece, isShown: true })),
    ...gone.map((piece) => ({ piece, isShown: false })),
  ].sort((a, b) => a.piece.start - b.piece.start);
  return pieces.flatMap(({ piece, isShown }) =>
    runs.flatMap(({ subject, ...run }) => clipRanges([run], piece).map((part) => ({ ...part, subject, isShown }))),
  );
}

/** The window of each pane at the end of what is shown of a shot; at its end where nothing is. */
export const lastWindows = ({ range, kept }: ShotFraming, framed: FramedShot): CropWindow[] =>
  [framed, ...framed.others].flatMap(({ windows }) => windows[(kept.at(-1)?.end ?? range.end) - 1 - range.start] ?? []);

/** The tracks of the people that panes follow: a face with the rest of the person, and others known to be the same. */
function takenBy(panes: readonly FramedPane[], tracks: readonly Track[]): Set<string> {
  const ids = new Set(panes.flatMap(({ spans }) => spans.flatMap(({ trackId }) => trackId ?? [])));
  const followed = tracks.filter(({ id }) => ids.has(id));
  const isSame = (a: Track, b: Track) =>
    a.id === b.id || a.personId === b.id || b.personId === a.id || (a.who !== undefined && a.who === b.who);
  return new Set(tracks.filter((track) => followed.some((other) => isSame(track, other))).map(({ id }) => id));
}

/**
 * One of a shot's panes as a shot of its own. With several panes, text attracts none of them: it would attract each. The
 * protected area is the first one's, and a pane does not choose a subject that another follows.
 */
function paneAsShot(shot: ShotFraming, pane: number, framed: readonly FramedPane[]): ShotFraming {
  if (shot.others.length === 0) return shot;
  const own = shot.others[pane - 1] ?? shot;
  const taken = own.rule.kind === "auto" ? takenBy(framed, shot.tracks) : new Set<string>();
  const tracks = shot.tracks.filter((track) => laidOver([track]).length === 0 && !taken.has(track.id));
  return { ...shot, ...own, tracks, protect: pane === 0 ? shot.protect : null };
}

/**
 * Lays the path of one shot for a version of some size.
 * @param solved problems solved for the shot's last path; afterwards, those for this one
 * @param followed whom it follows, from `planShot`
 */
export function frameShot(
  shot: ShotFraming,
  picture: Size,
  target: Size,
  rate: Rate,
  before: ShotBefore = NOTHING_BEFORE,
  solved = new SolvedProblems(),
  followed = planShot(shot, picture, target, rate, before.who),
): FramedShot {
  const area = shot.active ?? wholeOf(picture);
  const laidOut = layOut(shot.settings, area, target);
  const inside = shot.active ? insideArea(shot, area) : shot;
  const from = shot.active ? windowsBefore(before, area) : before;
  const framed: FramedPane[] = [];
  laidOut.panes.forEach((pane, i) => {
    const ofPane = paneAsShot(inside, i, framed);
    // A pane that shows something else follows nobody.
    const asked: ShotFraming = laidOut.own?.[i] ? { ...ofPane, rule: { kind: "none" }, handKeys: [] } : ofPane;
    const whom = i === 0 ? followed : plan(asked, area, pane, rate, null);
    framed.push(framePane(asked, area, pane, rate, { followed: whom, startAt: from.windows[i] ?? null }, solved));
  });
  solved.forgetUnused();
  const [first, ...others] = shot.active ? framed.map((pane) => outOfArea(pane, area)) : framed;
  return { ...first!, others, laidOut };
}

/** What is decided before a pane's path is laid. */
interface PaneSettled {
  /** Whom it follows, and when. */
  followed: FollowPlan;
  /** Where its window continues from. */
  startAt: CropWindow | null;
}

function framePane(
  shot: ShotFraming,
  picture: Size,
  target: Size,
  rate: Rate,
  { followed, startAt: goesOnFrom }: PaneSettled,
  solved: SolvedProblems,
): FramedPane {
  const { settings, handKeys, tracks, protect } = shot;
  const pieces = pathParts(shot, runsOf(followed.spans));
  const first = Math.max(
    0,
    pieces.findIndex(({ isShown }) => isShown),
  );
  const parts = pieces.map((span, i) => {
    const { start, end, subject } = span;
    const startAt = i === first ? goesOnFrom : null;
    const problem: Omit<ShotProblem, "settings"> = {
      shot: { start, end },
      picture,
      target,
      rate,
      subject,
      protect,
      texts: laidOver(tracks),
      handKeys,
      startAt,
    };
    const tile = tileOf(problem, tracks);
    const window = windowSize(tile ?? picture, target, settings);
    const { movement, reason } =
      settings.movement === "auto"
        ? chooseMovement(subject, span, window.width, framesPerSecond(rate), startAt?.x)
        : { movement: settings.movement, reason: null };
    const asked = { ...problem, settings: { ...settings, movement } };
    const path = tile ? outOfTile(solveShot(insideTile(asked, tile), solved), tile) : solveShot(asked, solved);
    return { ...path, movement, movementReason: reason, isShown: span.isShown };
  });
  const shown = parts.filter(({ isShown }) => isShown);
  const longest = (shown.length > 0 ? shown : parts).reduce((best, part) =>
    part.windows.length > best.windows.length ? part : best,
  );
  const keys = parts.flatMap((part, i) =>
    // Until the window jumps, it stays where the last key before puts it.
    i === parts.length - 1
      ? part.keys
      : part.keys.map((key, k) => (k === part.keys.length - 1 ? { ...key, easing: "hold" as const } : key)),
  );
  return {
    keys,
    windows: parts.flatMap((part) => part.windows),
    subjectId: followed.trackId,
    who: followed.who,
    reason: followed.reason,
    certainty: followed.certainty,
    other: followed.other,
    movement: longest.movement,
    movementReason: longest.movementReason,
    spans: followed.spans.map(({ subject, ...span }) => ({
      ...span,
      trackId: tracks.find(({ id }) => id === subject?.track.id)?.id ?? null,
    })),
  };
}

/** The largest window that the zoom allows. */
const windowSize = (picture: Size, target: Size, settings: FramingSettings): Size => {
  const [, height] = heightLimits(settings, picture, target);
  return { width: height * aspectRatio(target), height };
};

/** Whom a shot follows, and when; `before` is who was followed in the shot before. */
export function planShot(shot: ShotFraming, whole: Size, target: Size, rate: Rate, before: string | null): FollowPlan {
  const inside = shot.active ? insideArea(shot, shot.active) : shot;
  const picture = shot.active ?? whole;
  const first = paneAsShot(inside, 0, []);
  return plan(first, picture, paneBox(shot.settings.layout, picture, target), rate, before);
}

/**
 * The subject of a shot as one track, whoever it is at each moment, with a box around all where there are several; null
 * where it is not a track of the shot.
 */
export function followedTrack({ spans, subjectId }: FramedPane, tracks: readonly Track[]): Track | null {
  const found = spans.map(({ trackIds }) => tracks.filter(({ id }) => trackIds.includes(id)));
  if (spans.length === 1 && found[0]!.length <= 1) {
    return found[0]![0] ?? tracks.find(({ id }) => id === subjectId) ?? null;
  }
  if (found.some((parts) => parts.length === 0)) return null;
  const boxes = spans.flatMap(({ start, end }, i) =>
    Array.from({ length: end - start }, (_, k) => around(found[i]!.map((part) => boxAt(part, start + k)))),
  );
  const { id, kind, confidence } = found[0]![0]!;
  return { id, kind, confidence, start: spans[0]!.start, boxes };
}
