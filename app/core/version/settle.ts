import { type z } from "zod";
import { Box } from "../geometry/box";
import { PANES } from "../composition/stack";
import { FramingSettings, PaneSettings, USUAL_FRAMING } from "../path/framing-settings";
import type { Shot } from "../shots/shot";
import { AUTO, FollowRule } from "../subjects/choosing/follow-rule";

/** What a version says of all of its shots where that differs from the usual. */
export const UsualInVersion = FramingSettings.partial().extend({ follow: FollowRule.optional() });
export type UsualInVersion = z.infer<typeof UsualInVersion>;

/**
 * What a version says of a shot: how it is framed where that differs from what is usual in the version, and whom it
 * follows and what it protects where that differs from the film's.
 */
export const ShotInVersion = UsualInVersion.extend({ protect: Box.nullable().optional() });
export type ShotInVersion = z.infer<typeof ShotInVersion>;

/** What can be put back to what is usual, or the film's. */
export const ShotSetting = ShotInVersion.keyof();
export type ShotSetting = z.infer<typeof ShotSetting>;

/** All that holds for a shot in a version. */
export interface SettledShot {
  settings: FramingSettings;
  follow: FollowRule;
  protect: Box | null;
  /** What the version says for itself where the film has a word on it as well. */
  own: { follow: boolean; protect: boolean };
}

/** What is said of a shot, or of all, with other rules for whom its panes follow; null leaves a rule out. */
export function withRules<Said extends UsualInVersion>(said: Said, to: (rule: FollowRule) => FollowRule | null): Said {
  const put = <One extends { follow?: FollowRule | undefined }>({ follow, ...rest }: One) => {
    const rule = follow && to(follow);
    return { ...rest, ...(rule ? { follow: rule } : {}) } as One;
  };
  return { ...put(said), ...(said.panes ? { panes: said.panes.map(put) } : {}) };
}

/** What holds in one of a shot's panes: the first is as the shot is, the others may differ from it. */
export function settledPane(settled: SettledShot, pane: number): SettledShot {
  if (pane === 0) return settled;
  const { follow = AUTO, ...own } = settled.settings.panes[pane - 1] ?? {};
  return { ...settled, settings: { ...settled.settings, ...own }, follow, protect: null };
}

/** What changes one of a shot's panes: of the others, what their windows have is their own. */
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
 * What holds for a shot in a version.
 *
 * @param inVersion what the version says of the shot
 * @param usual what the version says of all of its shots; whom they follow only where the film leaves it open
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
