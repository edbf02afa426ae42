/**
 * Attention in a shot: on whoever speaks, acts, or is there at all, in long holds, and on several at once where the window
 * holds them. One sequence of holds is found for the whole shot, so that only switches that pay are made.
 */
import type { Box, Size } from "../../geometry/box";
import type { FrameRange } from "../../time/rate";
import { around, fitsInto } from "../choosing/made-subject";
import { boxAt } from "../tracking/track";
import { longHolds } from "./long-holds";
import { type Candidate, worthOf } from "./worth";

/** Why attention switches to somebody; "set" where the editor decides. */
export const SWITCH_CAUSES = ["speaks", "left", "enters", "acts", "together", "matters", "set"] as const;
export type SwitchCause = (typeof SWITCH_CAUSES)[number];

/** A range of a shot with attention on the same subjects. */
export interface Hold extends FrameRange {
  /** One subject, or several that are held together. */
  on: readonly Candidate[];
  /** Why it begins; null at the start of the shot. */
  cause: SwitchCause | null;
}

export interface AttentionProblem {
  shot: FrameRange;
  candidates: readonly Candidate[];
  picture: Size;
  /** Size of the crop window, in source pixels. */
  window: Size;
  fps: number;
  /** Shortest hold, in seconds. */
  hold: number;
}

/** Cost of a switch, in seconds of full attention on the subject that counts most. */
const SWITCH_SECONDS = 1.5;
/** Weight of the others' worth where several are held. */
const OTHERS = 0.5;
/** Factor on the worth of a group's least where the window does not hold it. */
const UNFIT = 0.5;
/** Factor on it while one of them is missing. */
const INCOMPLETE = 0.9;
/** Members of a group count for at least this share of the one that counts most. */
const ALIKE = 0.7;
/** Worth of following somebody who is not there, as a share of full worth. */
const ABSENT = -0.05;
/** An editor cuts to a speaker this long before the first word. */
const LEAD_SECONDS = 0.12;
/** Distance of a cause from its switch, in seconds. */
const CAUSE_SECONDS = 0.7;

/** Groups that may be held together: pairs, and all, of those that count about as much. */
function groupsOf(candidates: readonly Candidate[]): Candidate[][] {
  const pairs = candidates.flatMap((a, i) =>
    candidates.slice(i + 1).flatMap((b) => {
      const areKnown = [a, b].every(({ track }) => track.kind !== "motion" && track.kind !== "salient");
      const isAlike = Math.min(a.weight, b.weight) >= ALIKE * Math.max(a.weight, b.weight);
      return areKnown && isAlike ? [[a, b]] : [];
    }),
  );
  const most = Math.max(0, ...candidates.map(({ weight }) => weight));
  const all = candidates.filter(({ weight }) => weight >= ALIKE * most);
  return all.length > 2 ? [...pairs, all] : pairs;
}

const boxesOf = (group: readonly Candidate[], frame: number): Box[] =>
  group.flatMap(({ subject }) => boxAt(subject.track, frame) ?? []);

/** Whether the window holds a whole group for at least the length of a hold. */
function isEverHeld(group: readonly Candidate[], { shot, window, fps, hold }: AttentionProblem): boolean {
  let held = 0;
  for (let frame = shot.start; frame < shot.end && held < hold * fps; frame++) {
    const boxes = boxesOf(group, frame);
    if (boxes.length === group.length && fitsInto(around(boxes)!, window)) held++;
  }
  return held >= Math.min(hold * fps, (shot.end - shot.start) / 2);
}

/** Worth of holding a group: most from one, and some from the others, where the window holds all who are there. */
function worthTogether(group: readonly Candidate[], worths: readonly Float64Array[], problem: AttentionProblem) {
  const { shot, window } = problem;
  return worths[0]!.map((_, i) => {
    const own = worths.map((worth) => worth[i]!);
    const most = Math.max(...own);
    const box = around(boxesOf(group, shot.start + i));
    if (box && !fitsInto(box, window)) return UNFIT * Math.min(...own);
    if (own.some((value) => value === 0)) return INCOMPLETE * most;
    return most + OTHERS * (own.reduce((sum, value) => sum + value, 0) - most);
  });
}

/** Whether a range begins, or continues, close to a frame. */
const isNear = (ranges: readonly FrameRange[], frame: number, reach: number): boolean =>
  ranges.some(({ start }) => Math.abs(start - frame) <= reach);
const isDuring = (ranges: readonly FrameRange[], frame: number, reach: number): boolean =>
  ranges.some(({ start, end }) => start <= frame + reach && end > frame);

function causeOf(before: readonly Candidate[], now: readonly Candidate[], frame: number, fps: number): SwitchCause {
  const reach = Math.round(CAUSE_SECONDS * fps);
  const isThere = ({ subject }: Candidate, from: number, to: number) => {
    for (let at = from; at < to; at++) if (boxAt(subject.track, at)) return true;
    return false;
  };
  if (now.length === 1 && isDuring(now[0]!.speaks, frame, reach)) return "speaks";
  if (now.some((one) => !isThere(one, frame - reach, frame - 1))) return "enters";
  if (before.every((one) => !isThere(one, frame + 1, frame + reach))) return "left";
  if (now.length > 1) return "together";
  if (isNear(now[0]!.acts, frame, reach)) return "acts";
  return "matters";
}

/** Start of a hold: shortly before a speaker's first word. */
function begins(on: readonly Candidate[], frame: number, { fps, hold }: AttentionProblem): number {
  const [only] = on;
  if (on.length > 1 || !only) return frame;
  const reach = Math.round((hold / 2) * fps);
  const word = only.speaks.find(({ start, end }) => Math.abs(start - frame) <= reach && end > frame);
  return word ? word.start - Math.round(LEAD_SECONDS * fps) : frame;
}

/** The holds of a shot, in order, covering it. None where there is nobody and nothing. */
export function attentionIn(problem: AttentionProblem): Hold[] {
  const { shot, candidates, fps, hold } = problem;
  if (candidates.length === 0) return [];
  const worths = new Map(candidates.map((one) => [one, worthOf(one, problem)]));
  const groups = groupsOf(candidates).filter((group) => isEverHeld(group, problem));
  const all = [...candidates.map((one) => [one]), ...groups];
  const hasMust = candidates.some(({ isMust }) => isMust);
  // Where somebody is required in the frame, nobody else has it alone.
  const states = hasMust ? all.filter((state) => state.some(({ isMust }) => isMust)) : all;
  const most = Math.max(...candidates.map(({ weight }) => weight));
  const gains = states.map((state) => {
    const own = state.map((one) => worths.get(one)!);
    const gain = state.length === 1 ? own[0]! : worthTogether(state, own, problem);
    return gain.map((value) => (value > 0 ? value : ABSENT * most));
  });
  const stays = longHolds(gains, SWITCH_SECONDS * fps * most, Math.round(hold * fps));
  const holds: Hold[] = [];
  for (const { start, end, state } of stays) {
    const on = states[state]!;
    const before = holds.at(-1);
    const at = before ? Math.max(before.start + 1, begins(on, shot.start + start, problem)) : shot.start;
    if (before) before.end = at;
    const cause = before ? causeOf(before.on, on, shot.start + start, fps) : null;
    holds.push({ start: at, end: shot.start + end, on, cause });
  }
  return holds;
}
