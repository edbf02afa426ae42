import { type z } from "zod";
import { Box } from "../geometry/box";
import { PANES } from "../composition/stack";
import { FramingSettings, PaneSettings, USUAL_FRAMING } from "../path/framing-settings";
import type { Shot } from "../shots/shot";
import { AUTO, FollowRule } from "../subjects/choosing/follow-rule";

/** A version's settings for all of its shots, as far as they differ from the usual. */
export const UsualInVersion = FramingSettings.partial().extend({ follow: FollowRule.optional() });
export type UsualInVersion = z.infer<typeof UsualInVersion>;

/**
 * A version's settings of a shot: its framing where it differs from the version's usual, and its subject and protected area
 * where they differ from the film's.
 */
export const ShotInVersion = UsualInVersion.extend({ protect: Box.nullable().optional() });
export type ShotInVersion = z.infer<typeof ShotInVersion>;

/** Settings that can be returned to the usual, or to the film's. */
export const ShotSetting = ShotInVersion.keyof();
export type ShotSetting = z.infer<typeof ShotSetting>;

/** All settings of a shot in a version. */
export interface SettledShot {
  settings: FramingSettings;
  follow: FollowRule;
  protect: Box | null;
  /** Which settings the version overrides that the film has as well. */
  own: { follow: boolean; protect: boolean };
}

/** Settings of one or all shots, with other follow rules for the panes; null removes a rule. */
export function withRules<Said extends UsualInVersion>(said: Said, to: (rule: FollowRule) => FollowRule | null): Said {
  const put = <One extends { follow?: FollowRule | undefined }>({ follow, ...rest }: One) => {
    const rule = follow && to(follow);
    return { ...rest, ...(rule ? { follow: rule } : {}) } as One;
  };
  return { ...put(said), ...(said.panes ? { panes: said.panes.map(put) } : {}) };
}

/** The settings of one of a shot's panes: the first has the shot's, the others may differ. */
export function settledPane(settled: SettledShot, pane: number): SettledShot {
  if (pane === 0) return settled;
  const { follow = AUTO, ...own } = settled.settings.panes[pane - 1] ?? {};
  return { ...settled, settings: { ...settled.settings, ...own }, follow, protect: null };
}

/** A change of one of a shot's panes: window settings of the others are their own. */
export function changeInPane(
  { panes }: Pick<FramingSettings, "panes">,
  pane: number,
  change: ShotInVersion,
): ShotInVersion {
  if (pane === 0) return change;
  const isOwn = (name: string) => name in PaneSettings.shape;
  const entries = Object.entries(change);
  const own = Object.fromEntries(entries.filter(([name]) => isOwn(name)));
  const rest = Object.fromEntries(entries.filter(([name]) => !isOwn(name)));
  if (Object.keys(own).length === 0) return change;
  const all = PANES.slice(1, Math.max(panes.length, pane) + 1).map((number) => {
    const before = panes[number - 1] ?? {};
    return number === pane ? { ...before, ...own } : before;
  });
  return { ...rest, panes: all };
}

/**
 * The settings of a shot in a version.
 * @param inVersion the version's settings of the shot
 * @param usual the version's settings of all shots; its follow rule applies only where the film has none
 */
export function settle(
  shot: Pick<Shot, "follow" | "protect">,
  inVersion: ShotInVersion = {},
  usual: UsualInVersion = {},
): SettledShot {
  const { follow, protect, ...framing } = inVersion;
  const { follow: usuallyFollow = AUTO, ...usualFraming } = usual;
  return {
    settings: { ...USUAL_FRAMING, ...usualFraming, ...framing },
    follow: follow ?? (shot.follow.kind === "auto" ? usuallyFollow : shot.follow),
    protect: protect === undefined ? shot.protect : protect,
    own: { follow: follow !== undefined, protect: protect !== undefined },
  };
}
