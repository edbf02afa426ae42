/** Input and result of laying a shot's path. */
import type { Box } from "../geometry/box";
import type { LaidOut } from "../composition/layout";
import type { CropWindow } from "../geometry/crop-window";
import type { FollowPlan, FollowSpan } from "../subjects/choosing/follow-plan";
import type { FollowRule } from "../subjects/choosing/follow-rule";
import type { Track } from "../subjects/tracking/track";
import type { FrameRange } from "../time/rate";
import type { FramingSettings } from "./framing-settings";
import type { HandKey } from "./hand-key";
import type { Movement } from "./movement";
import type { ShotPath } from "./solve-shot";

/** How one of a shot's panes is framed. */
export interface PaneFraming {
  settings: FramingSettings;
  /** Whom or what to follow. */
  rule: FollowRule;
  handKeys: readonly HandKey[];
}

/** What is to be framed in a shot, and how: in its first pane, and in the others. */
export interface ShotFraming extends PaneFraming {
  others: readonly PaneFraming[];
  range: FrameRange;
  /** The ranges of it that are shown; at the end of each the picture jumps, and the window may. */
  kept: readonly FrameRange[];
  tracks: readonly Track[];
  /** A part of the picture to keep inside where possible. */
  protect: Box | null;
  /** The part of the picture in which the window may be; all of it if null. */
  active: Box | null;
  /** Whether the window continues from the shot before. */
  carry: boolean;
  /** Whether the shot begins at a switch, where the picture continues. */
  atSwitch: boolean;
}

/** The result for one of a shot's panes. */
export interface FramedPane extends ShotPath, Pick<FollowPlan, "who" | "reason" | "certainty" | "other"> {
  /** The track that is followed, or followed most. */
  subjectId: string | null;
  /** The movement of the window, and the reason if it was chosen automatically. */
  movement: Movement;
  movementReason: string | null;
  /** Which track is followed when, in order and without gaps. */
  spans: FollowedSpan[];
}

/** The result for a shot: its first pane, and the others. */
export interface FramedShot extends FramedPane {
  others: readonly FramedPane[];
  /** Places of the panes and their backdrop in the frame; each window has the aspect ratio of its pane. */
  laidOut: LaidOut;
}

/** A range of a shot in which one track is followed; null where several are combined, or nothing is followed. */
export interface FollowedSpan extends Omit<FollowSpan, "subject"> {
  trackId: string | null;
}

/** What the shot before passes on to the next. */
export interface ShotBefore {
  /** Where each pane's window continues from; empty where they do not. */
  windows: readonly CropWindow[];
  /** Who was followed. */
  who: string | null;
}

/** Whom a shot follows most, as a person of the film and as a track. */
export type Followed = Pick<FollowPlan, "who" | "trackId">;
