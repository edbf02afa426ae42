/** What an editor does to a shot's switches. Each change settles all of them: what was computed stays as it is from then on. */
import type { FollowRule, SetSwitch } from "../choosing/follow-rule";
import type { FrameRange } from "../../time/rate";
import { clamped } from "../../numbers/clamped";

/** The switches that lead to ranges in which something is followed, in order. */
export const asSwitches = (spans: readonly (FrameRange & { trackIds: readonly string[] })[]): SetSwitch[] =>
  spans.map(({ start, trackIds }) => ({ frame: start, trackIds: [...trackIds] }));

const isSame = (a: SetSwitch, b: SetSwitch): boolean => a.trackIds.join() === b.trackIds.join();

/** The rule to follow as switches say; a switch to whom is followed already is none. */
function ruleOf(switches: readonly SetSwitch[]): FollowRule {
  const [first, ...rest] = [...switches].sort((a, b) => a.frame - b.frame);
  const kept = [first!];
  for (const next of rest) if (!isSame(next, kept.at(-1)!)) kept.push(next);
  return { kind: "switches", switches: kept };
}

/** Moves a switch, no further than between its neighbours; the first one is where the shot begins. */
export function moveSwitch(switches: readonly SetSwitch[], index: number, frame: number, shot: FrameRange): FollowRule {
  const least = switches[index - 1]!.frame + 1;
  const most = (switches[index + 1]?.frame ?? shot.end) - 1;
  return ruleOf(switches.map((each, i) => (i === index ? { ...each, frame: clamped(frame, least, most) } : each)));
}

/** Gives what follows a switch to somebody else. */
export const giveSwitch = (switches: readonly SetSwitch[], index: number, trackIds: string[]): FollowRule =>
  ruleOf(switches.map((each, i) => (i === index ? { ...each, trackIds } : each)));

/** Takes a switch out: whoever was followed before it is followed on; after the first, whoever comes next from the start. */
export function removeSwitch(switches: readonly SetSwitch[], index: number): FollowRule {
  const left = switches.filter((_, i) => i !== index);
  return ruleOf(left.map((each, i) => (i === 0 ? { ...each, frame: switches[0]!.frame } : each)));
}

/** Lets somebody be followed in a range, and after it whoever was followed there before. */
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

/** Lets somebody be followed from a frame on, up to the next switch. */
export const addSwitch = (switches: readonly SetSwitch[], frame: number, trackIds: string[]): FollowRule =>
  ruleOf([...switches.filter((each) => each.frame !== frame), { frame, trackIds }]);
