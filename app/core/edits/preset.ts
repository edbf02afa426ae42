/** What was decided for one film, kept for the next. */
import { z } from "zod";
import { Id } from "../basics/ids";
import { UNTRIMMED } from "../version/trim";
import { Version } from "../version/film-state";
import type { FollowRule } from "../subjects/choosing/follow-rule";
import { type UsualInVersion, withRules } from "../version/settle";

/** A version as it is made for any film: nothing in it speaks of one. */
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

/** A preset of which what is stored cannot be read: it can be deleted, or another one saved under its name. */
export type BrokenPreset = Pick<Preset, "id" | "name">;

/** What is done to the presets that there are. */
export const PresetChange = z.discriminatedUnion("do", [
  z.object({ do: z.literal("save"), preset: Preset }),
  z.object({ do: z.literal("delete"), id: Id }),
]);
export type PresetChange = z.infer<typeof PresetChange>;

/** The same rule where it is about nobody and nothing of one film; else null. */
const anyFilmsRule = (rule: FollowRule): FollowRule | null =>
  rule.kind === "person" || rule.kind === "track" || rule.kind === "switches" ? null : rule;

/** What is usual in a version, without whom it follows and who must be in it where that is somebody of one film. */
function anyFilms({ mustHave: _, ...usual }: UsualInVersion): UsualInVersion {
  return withRules(usual, anyFilmsRule);
}

/** What versions of a film would be in another film. */
export const presetOf = (versions: readonly Version[]): PresetVersion[] =>
  versions.map(({ id, trim, ...version }) => ({
    ...version,
    usual: anyFilms(version.usual),
    // A range is one film's, and so is a caption.
    captions: { ...version.captions, places: {} },
    reviewedFlags: [],
    layers: version.layers.filter(({ range }) => range === null),
  }));

/**
 * The versions that a preset makes for a film.
 *
 * @param newId gives an id that no version has
 */
export const versionsOf = ({ versions }: Pick<Preset, "versions">, newId: () => string): Version[] =>
  versions.map((preset) => ({ ...preset, id: newId(), trim: UNTRIMMED }));
