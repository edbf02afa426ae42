import { USUAL_FRAMING } from "~/core/path/framing-settings";
import type { ShotFraming } from "~/core/path/shot-framing";
import { AUTO } from "~/core/subjects/choosing/follow-rule";
import type { FrameRange } from "~/core/time/rate";

/** A shot in which nothing is set and nobody is found, all of it shown, but for what is said. */
export const framingOf = (range: FrameRange, more: Partial<ShotFraming> = {}): ShotFraming => ({
  range,
  kept: [range],
  settings: USUAL_FRAMING,
  tracks: [],
  rule: AUTO,
  handKeys: [],
  others: [],
  protect: null,
  active: null,
  carry: false,
  atSwitch: false,
  ...more,
});
