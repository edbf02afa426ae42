import type { Size } from "../geometry/box";
import type { CropWindow } from "../geometry/crop-window";
import { chooseSubject } from "../subjects/rank";
import type { Track } from "../subjects/track";
import type { FrameRange, Rate } from "../time/rate";
import type { Subject } from "./framing-goals";
import type { Manner } from "./manner";
import { type ShotPath, solveShot } from "./solve-shot";

/** A key that the editor has placed in a version. */
export interface HandKey extends CropWindow {
  frame: number;
}

/** What is to be framed in a shot, and how. */
export interface ShotFraming {
  range: FrameRange;
  manner: Manner;
  tracks: Track[];
  /** The track to follow; undefined leaves the choice to the ranking, null follows nothing. */
  subjectId?: string | null;
  handKeys: readonly HandKey[];
  /** Whether the window goes on from where it was in the shot before. */
  carry: boolean;
}

/** Reads how a subject is stored: "auto", "none", or "track:" and the track's id. */
export function subjectIdOf(stored: string): string | null | undefined {
  if (stored === "auto") return undefined;
  return stored === "none" ? null : stored.slice("track:".length);
}

export interface FramedShot extends ShotPath {
  subjectId: string | null;
  /** Why this subject, in words. */
  reason: string;
}

/** The subject of a shot: what was asked for, or else what ranks first. */
export function subjectOf(shot: ShotFraming, picture: Size): { subject: Subject | null; reason: string } {
  const withBody = (track: Track): Subject => ({
    track,
    body: shot.tracks.find((other) => other.id === track.personId) ?? (track.kind === "person" ? track : null),
  });
  if (shot.subjectId === null) return { subject: null, reason: "nothing is followed, as you asked" };
  const asked = shot.tracks.find((track) => track.id === shot.subjectId);
  if (asked) return { subject: withBody(asked), reason: asked.kind === "mark" ? "marked by you" : "chosen by you" };
  const chosen = chooseSubject(shot.tracks, shot.range, picture);
  return chosen
    ? { subject: withBody(chosen.track), reason: chosen.reason }
    : { subject: null, reason: "nobody and nothing stands out" };
}

/** Lays the path of one shot for a version of the given size; `startAt` is where the shot before left the window. */
export function frameShot(
  shot: ShotFraming,
  picture: Size,
  target: Size,
  rate: Rate,
  startAt: CropWindow | null = null,
): FramedShot {
  const { subject, reason } = subjectOf(shot, picture);
  const { range, manner, handKeys } = shot;
  const from = shot.carry ? startAt : null;
  const path = solveShot({ shot: range, picture, target, rate, manner, subject, handKeys, startAt: from });
  return { ...path, subjectId: subject?.track.id ?? null, reason };
}

/** Lays the paths of shots that follow one another. */
export function frameShots(shots: readonly ShotFraming[], picture: Size, target: Size, rate: Rate): FramedShot[] {
  let last: CropWindow | null = null;
  return shots.map((shot) => {
    const framed = frameShot(shot, picture, target, rate, last);
    last = framed.windows.at(-1) ?? null;
    return framed;
  });
}
