/** What is given to lay the path of a shot, and what comes of it. */
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
  /** The parts of it that are shown; where one ends the picture jumps, and the window may. */
  kept: readonly FrameRange[];
  tracks: readonly Track[];
  /** A part of the picture that is to be kept inside where it can be. */
  protect: Box | null;
  /** The part of the picture in which the window may be; all of it if null. */
  active: Box | null;
  /** Whether the window goes on from where it was in the shot before. */
  carry: boolean;
  /** Whether the shot begins at a switch, where the picture goes on. */
  atSwitch: boolean;
}

/** What comes of one of a shot's panes. */
export interface FramedPane extends ShotPath, Pick<FollowPlan, "who" | "reason" | "certainty" | "other"> {
  /** The track that is followed, or followed most. */
  subjectId: string | null;
  /** How the window moves, and why if nobody has chosen. */
  movement: Movement;
  movementReason: string | null;
  /** Which track is followed when, in order and without gaps. */
  spans: FollowedSpan[];
}

/** What comes of a shot: of its first pane, and of the others. */
export interface FramedShot extends FramedPane {
  others: readonly FramedPane[];
  /** Where the panes and their backdrop are in the frame; each window has the shape of its pane. */
  laidOut: LaidOut;
}

/** A part of a shot in which one track is followed; none of the shot's own where it is made of several, or nothing. */
export interface FollowedSpan extends Omit<FollowSpan, "subject"> {
  trackId: string | null;
}

/** What the shot before leaves to the next one. */
export interface ShotBefore {
  /** Where the window of each pane goes on from; none where they do not. */
  windows: readonly CropWindow[];
  /** Who was followed. */
  who: string | null;
}

/** Whom a shot follows most, as somebody of the film and as a track. */
export type Followed = Pick<FollowPlan, "who" | "trackId">;
