import type { Size } from "../geometry/box";
import type { FrameRange } from "../time/rate";
import { rankTracks } from "./rank";
import type { Track } from "./track";

/** Somebody or something in a shot that can be followed, with the letter it goes by. */
export interface CastMember {
  letter: string;
  track: Track;
  reason: string;
}

const letterOf = (index: number): string =>
  String.fromCharCode(65 + (index % 26)) + (index >= 26 ? String(Math.floor(index / 26) + 1) : "");

/**
 * Who and what can be followed in a shot, the most prominent first. A person whose face is tracked goes by the
 * face and is not listed again.
 */
export function castOf(tracks: readonly Track[], shot: FrameRange, picture: Size): CastMember[] {
  const withFace = new Set(tracks.map((track) => track.personId).filter((id) => id !== undefined));
  const candidates = tracks.filter((track) => !withFace.has(track.id));
  return rankTracks(candidates, shot, picture).map(({ track, reason }, i) => ({ letter: letterOf(i), track, reason }));
}
