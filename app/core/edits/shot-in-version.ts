import { type z } from "zod";
import { Box } from "../geometry/box";
import { FramingSettings, USUAL_FRAMING } from "../path/framing-settings";
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
