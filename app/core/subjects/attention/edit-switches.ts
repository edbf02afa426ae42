/** Edits of a shot's switches. Each change fixes all of them: computed switches stay as they are from then on. */
import type { FollowRule, SetSwitch } from "../choosing/follow-rule";
import type { FrameRange } from "../../time/rate";
import { clamped } from "../../numbers/clamped";

/** The switches to the ranges in which something is followed, in order. */
export const asSwitches = (spans: readonly (FrameRange & { trackIds: readonly string[] })[]): SetSwitch[] =>
  spans.map(({ start, trackIds }) => ({ frame: start, trackIds: [...trackIds] }));

const isSame = (a: SetSwitch, b: SetSwitch): boolean => a.trackIds.join() === b.trackIds.join();

/** The follow rule made of switches; one to the present subject is no switch. */
function ruleOf(switches: readonly SetSwitch[]): FollowRule {
  const [first, ...rest] = [...switches].sort((a, b) => a.frame - b.frame);
  const kept = [first!];
  for (const next of rest) if (!isSame(next, kept.at(-1)!)) kept.push(next);
  return { kind: "switches", switches: kept };
}

/** Moves a switch, at most up to its neighbours; the first one is the start of the shot. */
export function moveSwitch(switches: readonly SetSwitch[], index: number, frame: number, shot: FrameRange): FollowRule {
  const least = switches[index - 1]!.frame + 1;
  const most = (switches[index + 1]?.frame ?? shot.end) - 1;
  return ruleOf(switches.map((each, i) => (i === index ? { ...each, frame: clamped(frame, least, most) } : each)));
}

/** Changes the target of a switch. */
export const giveSwitch = (switches: readonly SetSwitch[], index: number, trackIds: string[]): FollowRule =>
  ruleOf(switches.map((each, i) => (i === index ? { ...each, trackIds } : each)));

/** Removes a switch: the subject before it continues; after the first, the next subject begins at the start. */
export function removeSwitch(switches: readonly SetSwitch[], index: number): FollowRule {
  const left = switches.filter((_, i) => i !== index);
  return ruleOf(left.map((each, i) => (i === 0 ? { ...each, frame: switches[0]!.frame } : each)));
}

/** Follows somebody in a range, and after it whoever was followed there before. */
export function followBetween(
  switches: readonly SetSwitch[],
  { start, end }: FrameRange,
  trackIds: string[],
  shot: FrameRange,
): FollowRule {
  const after = switches.findLast(({ frame }) => frame <= end)?.trackIds ?? [];
  const outside = switches.filter(({ frame }) => frame < start || frame > end);
  const back = end < shot.end ? [{ frame: end, trackIds: after }] : [];
  return ruleOf([...outside, { frame: Math.max(start, shot.start), trackIds }, ...back]);
}

/** Follows somebody from a frame on, up to the next switch. */
export const addSwitch = (switches: readonly SetSwitch[], frame: number, trackIds: string[]): FollowRule =>
  ruleOf([...switches.filter((each) => each.frame !== frame), { frame, trackIds }]);
