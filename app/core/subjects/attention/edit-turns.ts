/** What an editor does to a shot's turns. Each change settles all of them: what was computed stays as it is from then on. */
import type { FollowRule, SetTurn } from "../choosing/follow-rule";
import type { FrameRange } from "../../time/rate";
import { clamped } from "../../clamped";

/** The turns that lead to stretches in which something is followed, in order. */
export const asTurns = (spans: readonly (FrameRange & { trackIds: readonly string[] })[]): SetTurn[] =>
  spans.map(({ start, trackIds }) => ({ frame: start, trackIds: [...trackIds] }));

const isSame = (a: SetTurn, b: SetTurn): boolean => a.trackIds.join() === b.trackIds.join();

/** The rule to follow as turns say; a turn to whom is followed already is none. */
function ruleOf(turns: readonly SetTurn[]): FollowRule {
  const [first, ...rest] = [...turns].sort((a, b) => a.frame - b.frame);
  const kept = [first!];
  for (const turn of rest) if (!isSame(turn, kept.at(-1)!)) kept.push(turn);
  return { kind: "turns", turns: kept };
}

/** Moves a turn, no further than between its neighbours; the first one is where the shot begins. */
export function moveTurn(turns: readonly SetTurn[], index: number, frame: number, shot: FrameRange): FollowRule {
  const least = turns[index - 1]!.frame + 1;
  const most = (turns[index + 1]?.frame ?? shot.end) - 1;
  return ruleOf(turns.map((turn, i) => (i === index ? { ...turn, frame: clamped(frame, least, most) } : turn)));
}

/** Gives what follows a turn to somebody else. */
export const giveTurn = (turns: readonly SetTurn[], index: number, trackIds: string[]): FollowRule =>
  ruleOf(turns.map((turn, i) => (i === index ? { ...turn, trackIds } : turn)));

/** Takes a turn out: whoever was followed before it is followed on; after the first, whoever comes next from the start. */
export function removeTurn(turns: readonly SetTurn[], index: number): FollowRule {
  const left = turns.filter((_, i) => i !== index);
  return ruleOf(left.map((turn, i) => (i === 0 ? { ...turn, frame: turns[0]!.frame } : turn)));
}

/** Lets somebody be followed in a stretch, and after it whoever was followed there before. */
export function followBetween(
  turns: readonly SetTurn[],
  { start, end }: FrameRange,
  trackIds: string[],
  shot: FrameRange,
): FollowRule {
  const after = turns.findLast(({ frame }) => frame <= end)?.trackIds ?? [];
  const outside = turns.filter(({ frame }) => frame < start || frame > end);
  const back = end < shot.end ? [{ frame: end, trackIds: after }] : [];
  return ruleOf([...outside, { frame: Math.max(start, shot.start), trackIds }, ...back]);
}

/** Lets somebody be followed from a frame on, up to the next turn. */
export const addTurn = (turns: readonly SetTurn[], frame: number, trackIds: string[]): FollowRule =>
  ruleOf([...turns.filter((turn) => turn.frame !== frame), { frame, trackIds }]);
