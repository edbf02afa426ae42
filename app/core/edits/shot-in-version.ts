import { type z } from "zod";
import { Box } from "../geometry/box";
import { FramingSettings, USUAL_FRAMING } from "../path/framing-settings";
import type { Shot } from "../shots/shot";
import { FollowRule } from "../subjects/choosing/follow-rule";

/**
 * What a version says of a shot: how it is framed where that differs from the usual, and whom it follows and what it
 * protects where that differs from the film's.
 */
export const ShotInVersion = FramingSettings.partial().extend({
  follow: FollowRule.optional(),
  protect: Box.nullable().optional(),
});
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

/** What holds for a shot in a version, given what the version says of it. */
export function settle(shot: Pick<Shot, "follow" | "protect">, inVersion: ShotInVersion = {}): SettledShot {
  const { follow, protect, ...framing } = inVersion;
  return {
    settings: { ...USUAL_FRAMING, ...framing },
    follow: follow ?? shot.follow,
    protect: protect === undefined ? shot.protect : protect,
    own: { follow: follow !== undefined, protect: protect !== undefined },
  };
}
