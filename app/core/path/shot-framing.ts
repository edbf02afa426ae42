/** What is given to lay the path of a shot, and what comes of it. */
import type { Box } from "../geometry/box";
import type { LaidOut } from "../composition/layout";
import type { CropWindow } from "../geometry/crop-window";
import type { FollowPlan } from "../subjects/choosing/follow";
import type { FollowRule } from "../subjects/choosing/follow-rule";
import type { Track } from "../subjects/tracking/track";
import type { FrameRange } from "../time/rate";
import type { FramingSettings } from "./framing-settings";
import type { HandKey } from "./hand-key";
import type { Manner } from "./manner";
import type { ShotPath } from "./solve-shot";

/** What is to be framed in a shot, and how. */
export interface ShotFraming {
  range: FrameRange;
  /** The parts of it that are shown; where one ends the picture jumps, and the window may. */
  kept: readonly FrameRange[];
  settings: FramingSettings;
  tracks: readonly Track[];
  /** Whom or what to follow. */
  rule: FollowRule;
  handKeys: readonly HandKey[];
  /** A part of the picture that is to be kept inside where it can be. */
  protect: Box | null;
  /** The part of the picture in which the window may be; all of it if null. */
  active: Box | null;
  /** Whether the window goes on from where it was in the shot before. */
  carry: boolean;
  /** Whether the shot begins at a turn, where the picture goes on. */
  atTurn: boolean;
}

export interface FramedShot extends ShotPath, Pick<FollowPlan, "who" | "reason" | "certainty" | "other"> {
  /** Where the film and its backdrop are in the frame; the window has the shape of the pane. */
  laidOut: LaidOut;
  /** The track that is followed, or followed most. */
  subjectId: string | null;
  /** How the window moves, and why if nobody has chosen. */
  manner: Manner;
  mannerReason: string | null;
  /** Which track is followed when, in order and without gaps; the window jumps from one to the next. */
  spans: FollowedSpan[];
}

/** A part of a shot in which one track is followed; none of the shot's own where it is made of several, or nothing. */
export interface FollowedSpan extends FrameRange {
  trackId: string | null;
}

/** What the shot before leaves to the next one. */
export interface ShotBefore {
  /** Where the window goes on from; null where it does not. */
  window: CropWindow | null;
  /** Who was followed. */
  who: string | null;
}

/** Whom a shot follows most, as somebody of the film and as a track. */
export type Followed = Pick<FollowPlan, "who" | "trackId">;
