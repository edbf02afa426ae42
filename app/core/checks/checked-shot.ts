import type { Box } from "../geometry/box";
import type { FramingSettings } from "../path/framing-settings";
import type { Track } from "../subjects/tracking/track";
import type { FrameRange, Rate } from "../time/rate";
import type { CheckLimits } from "./check-settings";

/** A shot as it is checked. */
export interface CheckedShot {
  /** The ranges of it that are shown; only these are checked. */
  kept: readonly FrameRange[];
  protect: Box | null;
  tracks: readonly Track[];
  settings: Pick<FramingSettings, "largestScale" | "mustHave">;
  /** The part of the picture in which the window may be. */
  area: Box;
  limits: CheckLimits;
  rate: Rate;
}
