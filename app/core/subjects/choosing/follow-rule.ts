/** Rules that are nothing but their name. */
const PLAIN = ["auto", "second", "both", "speaker", "speaker-move", "everything", "none"] as const;

/**
 * Whom a shot follows, as the editor has it: the best choice, the second best, two together, whoever speaks (the window
 * jumps or moves at turns), everything, nothing, somebody by name, or one track.
 */
export type FollowRule =
  { kind: (typeof PLAIN)[number] } | { kind: "person"; who: string } | { kind: "track"; trackId: string };

/** What a rule may look like where it is stored. */
export const STORED_RULE = new RegExp(`^(${PLAIN.join("|")}|person:.+|track:.+)$`);

/** Reads how a rule is stored; the best choice where it is nothing known. */
export function followRule(stored: string): FollowRule {
  if (stored.startsWith("track:")) return { kind: "track", trackId: stored.slice("track:".length) };
  if (stored.startsWith("person:")) return { kind: "person", who: stored.slice("person:".length) };
  return { kind: PLAIN.find((kind) => kind === stored) ?? "auto" };
}
