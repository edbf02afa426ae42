import { z } from "zod";
import { Id, TrackId } from "../../ids";

/** Rules that are nothing but their name. */
const PLAIN = ["auto", "second", "both", "speaker", "speaker-move", "everything", "none"] as const;

/**
 * Whom a shot follows, as the editor has it: the best choice, the second best, two together, whoever speaks (the window
 * jumps or moves at turns), everything, nothing, somebody by name, or one track.
 */
export const FollowRule = z.discriminatedUnion("kind", [
  z.object({ kind: z.enum(PLAIN) }),
  z.object({ kind: z.literal("person"), who: Id }),
  z.object({ kind: z.literal("track"), trackId: TrackId }),
]);
export type FollowRule = z.infer<typeof FollowRule>;

/** What a shot follows that nobody has settled anything for. */
export const AUTO: FollowRule = { kind: "auto" };

/** A rule as one word: as it is stored, said on the command line, and listed in a menu. */
export function writeRule(rule: FollowRule): string {
  if (rule.kind === "track") return `track:${rule.trackId}`;
  return rule.kind === "person" ? `person:${rule.who}` : rule.kind;
}

/** Reads what `writeRule` writes; the best choice where it is nothing known. */
export function readRule(text: string): FollowRule {
  const [kind, ...rest] = text.split(":");
  const id = rest.join(":");
  const parsed = FollowRule.safeParse({ kind, who: id, trackId: id });
  return parsed.success ? parsed.data : AUTO;
}

export const sameRule = (a: FollowRule, b: FollowRule): boolean => writeRule(a) === writeRule(b);
