/** Decisions made for one film, saved for others. */
import { z } from "zod";
import { Id } from "../basics/ids";
import { UNTRIMMED } from "../version/trim";
import { Version } from "../version/film-state";
import type { FollowRule } from "../subjects/choosing/follow-rule";
import { type UsualInVersion, withRules } from "../version/settle";

/** A version for any film, without anything that refers to one. */
export const PresetVersion = Version.omit({ id: true, trim: true })
  .refine(({ layers }) => layers.every(({ range }) => range === null), {
    error: "A layer of a preset is there throughout",
  })
  .refine(({ layers }) => new Set(layers.map(({ id }) => id)).size === layers.length, {
    error: "Two layers of a preset have one id",
  });
export type PresetVersion = z.infer<typeof PresetVersion>;

export const Preset = z.object({
  id: Id,
  name: z.string().trim().min(1).max(60),
  versions: z.array(PresetVersion).min(1).max(50),
});
export type Preset = z.infer<typeof Preset>;

/** A preset whose stored data cannot be read: it can be deleted, or replaced under its name. */
export type BrokenPreset = Pick<Preset, "id" | "name">;

/** Changes of the presets. */
export const PresetChange = z.discriminatedUnion("do", [
  z.object({ do: z.literal("save"), preset: Preset }),
  z.object({ do: z.literal("delete"), id: Id }),
]);
export type PresetChange = z.infer<typeof PresetChange>;

/** A rule that refers to nothing in one film; null for any other. */
const anyFilmsRule = (rule: FollowRule): FollowRule | null =>
  rule.kind === "person" || rule.kind === "track" || rule.kind === "switches" ? null : rule;

/** A version's usual settings, without people or things of one film. */
function anyFilms({ mustHave: _, ...usual }: UsualInVersion): UsualInVersion {
  return withRules(usual, anyFilmsRule);
}

/** A preset made from the versions of a film. */
export const presetOf = (versions: readonly Version[]): PresetVersion[] =>
  versions.map(({ id, trim, ...version }) => ({
    ...version,
    usual: anyFilms(version.usual),
    // Ranges and captions belong to one film.
    captions: { ...version.captions, places: {} },
    reviewedFlags: [],
    layers: version.layers.filter(({ range }) => range === null),
  }));

/**
 * The versions that a preset makes for a film.
 * @param newId gives an id that no version has
 */
export const versionsOf = ({ versions }: Pick<Preset, "versions">, newId: () => string): Version[] =>
  versions.map((preset) => ({ ...preset, id: newId(), trim: UNTRIMMED }));
