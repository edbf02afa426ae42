import type { SecondLook } from "~/core/checks/second-looks";
import type { TransitionKind } from "~/core/shots/transition";
import type { FramingSettings } from "~/core/path/framing-settings";
import type { FramedShot, HandKey } from "~/core/path/solve-version";
import type { CastMember } from "~/core/subjects/choosing/cast";
import type { ThingMark } from "~/core/subjects/marks/marked-things";
import type { Track } from "~/core/subjects/tracking/track";
import type { Box, Size } from "~/core/geometry/box";
import { type FrameRange, inRange, type Rate } from "~/core/time/rate";
import type { Clock } from "~/core/time/timecode";

export interface DeskFilm {
  id: string;
  name: string;
  picture: Size;
  rate: Rate;
  frames: number;
  /** How its frames are counted in timecode. */
  clock: Clock;
}

export interface DeskVersion {
  id: string;
  name: string;
  width: number;
  height: number;
}

/** A shot as the desk shows it: what the editor has set, what was found, and the path that follows from both. */
export interface DeskShot {
  id: string;
  number: number;
  start: number;
  end: number;
  /** A part of the picture that the window keeps inside where it can. */
  protect: Box | null;
  /** What of the picture is not the film's own bars; null if it has none. */
  active: Box | null;
  /** How it is framed in the version. */
  settings: FramingSettings;
  /** Whom it follows, as `followRule` reads it. */
  subject: string;
  begins: TransitionKind;
  /** Frames in which it is mixed with the shot before. */
  mixed: FrameRange;
  /** Whether the window goes on from where it was in the shot before. */
  carry: boolean;
  name: string | null;
  /** Left out of what is rendered. */
  excluded: boolean;
  looks: SecondLook[];
  handKeys: HandKey[];
  tracks: Track[];
  cast: CastMember[];
  /** Boxes that the editor has drawn in it. */
  marks: ThingMark[];
  /** Null until it is solved for the first time. */
  framed: FramedShot | null;
}

/** Colours of subjects, after Okabe & Ito (2008) without the one that is near the accent; always with a letter. */
export const SUBJECT_COLOURS = ["#e69f00", "#56b4e9", "#009e73", "#f0e442", "#0072b2", "#d55e00"];
export const subjectColour = (index: number): string => SUBJECT_COLOURS[index % SUBJECT_COLOURS.length]!;

/** Somebody of the film, as the desk shows them. */
export interface DeskPerson {
  id: string;
  number: number;
  name: string | null;
  mergedInto: string | null;
}

/** The shot that a frame belongs to; none where the analysis has not come to. Shots are in order and without gaps. */
export function shotAt<Shot extends FrameRange>(shots: readonly Shot[], frame: number): Shot | undefined {
  const shot = shots.findLast(({ start }) => frame >= start);
  return shot && frame < shot.end ? shot : undefined;
}

/** Whom a shot follows, if it is somebody or something of its cast. */
export const followedIn = ({ cast, framed }: DeskShot): CastMember | undefined =>
  cast.find(({ track }) => track.id === framed?.subjectId);

/** Whether a track of a shot is followed at a frame. */
export const isFollowedAt = ({ framed }: DeskShot, trackId: string, frame: number): boolean =>
  framed?.spans.some((span) => span.trackId === trackId && inRange(frame, span)) ?? false;
