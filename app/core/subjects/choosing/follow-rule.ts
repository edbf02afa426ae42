import { z } from "zod";
import { Id, TrackId } from "../../basics/ids";
import { Frame } from "../../time/rate";

/** Rules that consist of their name only. */
const PLAIN = ["auto", "second", "both", "speaker", "speaker-pan", "everything", "none"] as const;

/** Most switches of a shot. */
const MOST_SWITCHES = 2000;

/** What a shot follows from a frame on: one track, several together, or nothing where there are none. */
export const SetSwitch = z.object({ frame: Frame, trackIds: z.array(TrackId).max(8) });
export type SetSwitch = z.infer<typeof SetSwitch>;

/**
 * The editor's rule for whom a shot follows: the best choice, the second best, two together, whoever speaks (the window
 * cuts or pans at switches), everything, nothing, a person, one track, or one after the other by switches, which are in
 * order; before the first of them its own target applies.
 */
export const FollowRule = z.discriminatedUnion("kind", [
  z.object({ kind: z.enum(PLAIN) }),
  z.object({ kind: z.literal("person"), who: Id }),
  z.object({ kind: z.literal("track"), trackId: TrackId }),
  z.object({ kind: z.literal("switches"), switches: z.array(SetSwitch).min(1).max(MOST_SWITCHES) }),
]);
export type FollowRule = z.infer<typeof FollowRule>;

/** The rule of shots for which none was set. */
export const AUTO: FollowRule = { kind: "auto" };

/** A rule as one word, for storage, the command line, and menus. */
export function writeRule(rule: FollowRule): string {
  if (rule.kind === "track") return `track:${rule.trackId}`;
  if (rule.kind === "switches") return `switches:${JSON.stringify(rule.switches)}`;
  return rule.kind === "person" ? `person:${rule.who}` : rule.kind;
}

function fromJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}

/** Reads what `writeRule` writes; the best choice for anything unknown. */
export function readRule(text: string): FollowRule {
  const [kind, ...rest] = text.split(":");
  const id = rest.join(":");
  const parsed = FollowRule.safeParse({
    kind,
    who: id,
    trackId: id,
    switches: kind === "switches" ? fromJson(id) : null,
  });
  return parsed.success ? parsed.data : AUTO;
}

export const sameRule = (a: FollowRule, b: FollowRule): boolean => writeRule(a) === writeRule(b);
