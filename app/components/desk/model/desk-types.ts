import type { Flag } from "~/core/checks/flag";
import type { SettledShot } from "~/core/version/settle";
import type { Version } from "~/core/version/film-state";
import type { FramedPane, FramedShot } from "~/core/path/shot-framing";
import type { HandKey } from "~/core/path/hand-key";
import type { Shot } from "~/core/shots/shot";
import type { CastMember } from "~/core/subjects/choosing/cast";
import type { ThingMark } from "~/core/subjects/marks/marked-things";
import { boxAt, type Track } from "~/core/subjects/tracking/track";
import type { ShownAt } from "~/core/composition/composition";
import type { Box, Size } from "~/core/geometry/box";
import { followedTrack } from "~/core/path/solve-version";
import { type FrameRange, inRange, type Rate } from "~/core/time/rate";
import type { Clock } from "~/core/time/timecode";

export interface DeskFilm {
  id: string;
  name: string;
  picture: Size;
  rate: Rate;
  frames: number;
  /** Bits per sample. */
  bitDepth: number;
  /** The timecode in which its frames are counted. */
  clock: Clock;
}

export type DeskVersion = Version;

/** A flag with its print, and whether it was reviewed. */
export interface DeskFlag extends Flag {
  /** Its print: see `flagPrint`. */
  print: string;
  /** Whether the editor has reviewed it as it is. */
  isReviewed: boolean;
}

/** A shot as the desk shows it in a version: its settings, its tracks, and the path that follows. */
export interface DeskShot extends Omit<Shot, "follow" | "protect">, SettledShot {
  number: number;
  /** The selected pane, from 0; settings, keys and path are that pane's. */
  pane: number;
  /** Numbers of the panes that show the film. */
  panes: readonly number[];
  flags: readonly DeskFlag[];
  handKeys: readonly HandKey[];
  /** Whether it has been analysed, at least in part. */
  isAnalysed: boolean;
  /** The ranges of it that the version shows. */
  kept: readonly FrameRange[];
  /** Boxes that the editor has drawn in it. */
  marks: readonly ThingMark[];
  /** Its tracks; empty until they have loaded. Unpacked at first use. */
  readonly tracks: readonly Track[];
  /** Those of its tracks that can be followed. */
  readonly cast: CastMember[];
  /** The path of the selected pane, and what all panes show; null until it is first solved. */
  framed: FramedPane | null;
  solved: FramedShot | null;
  /** What the version shows at its frames, in all panes; null until then. */
  shown: ShownAt | null;
  /** The frame that represents it best. */
  tellingFrame: number;
}

/**
 * Colours of subjects, after Okabe & Ito (2008), without the one close to the accent colour; always shown with a letter.
 */
export const SUBJECT_COLOURS = ["#e69f00", "#56b4e9", "#009e73", "#f0e442", "#0072b2", "#d55e00"];
export const subjectColour = (index: number): string => SUBJECT_COLOURS[index % SUBJECT_COLOURS.length]!;

/** A person of the film, as the desk shows them. */
export interface DeskPerson {
  id: string;
  number: number;
  name: string | null;
  mergedInto: string | null;
}

/** The shot that contains a frame; undefined where the analysis has not been yet. Shots are in order, without gaps. */
export function shotAt<Shot extends FrameRange>(shots: readonly Shot[], frame: number): Shot | undefined {
  const shot = shots.findLast(({ start }) => frame >= start);
  return shot && frame < shot.end ? shot : undefined;
}

/** The cast member that a shot follows, if any. */
export const followedIn = ({ cast, framed }: DeskShot): CastMember | undefined =>
  cast.find(({ track }) => track.id === framed?.subjectId);

/** The box of a shot's subject at a frame; null where it is not seen, or nothing is followed. */
export function subjectBoxAt(shot: DeskShot | undefined, frame: number): Box | null {
  const track = shot?.framed && followedTrack(shot.framed, shot.tracks);
  return (track && boxAt(track, frame)) ?? null;
}

/** Whether a track of a shot is followed at a frame. */
export const isFollowedAt = ({ framed }: DeskShot, trackId: string, frame: number): boolean =>
  framed?.spans.some((span) => span.trackIds.includes(trackId) && inRange(frame, span)) ?? false;

/** The cuts before and after a frame: where shots begin, and where the film goes on after what is left out of one. */
export function neighbouringCuts(
  shots: readonly Pick<DeskShot, "start" | "kept">[],
  frame: number,
): { before: number; after: number | null } {
  const cuts = shots.flatMap(({ start, kept }) => [...new Set([start, ...kept.map((part) => part.start)])]);
  return {
    before: cuts.findLast((cut) => cut < frame) ?? 0,
    after: cuts.find((cut) => cut > frame) ?? null,
  };
}
