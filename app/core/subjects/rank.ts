import { boxArea, boxCentre, type Size } from "../geometry/box";
import { rangeLength, type FrameRange } from "../time/rate";
import { type Track, visibleFrames } from "./track";

/** A track with what speaks for following it. */
export interface RankedTrack {
  track: Track;
  /** 0 to about 1. */
  score: number;
  /** Share of the shot in which it is seen. */
  presence: number;
  reason: string;
}

const KIND_WEIGHT: Record<Track["kind"], number> = { mark: 3, face: 1, person: 0.72, object: 0.5, motion: 0.35 };
const KIND_WORD: Record<Track["kind"], string> = {
  mark: "marked by you",
  face: "face",
  person: "person",
  object: "object",
  motion: "what moves most",
};

/** How near to the picture's middle, 1 at the centre to 0 in a corner; size relative to the picture's height. */
function placeAndSize(track: Track, picture: Size): { centrality: number; size: number } {
  let centrality = 0;
  let size = 0;
  let count = 0;
  for (const box of track.boxes) {
    if (!box) continue;
    const centre = boxCentre(box);
    const dx = (centre.x - picture.width / 2) / (picture.width / 2);
    const dy = (centre.y - picture.height / 2) / (picture.height / 2);
    centrality += 1 - Math.min(1, Math.hypot(dx, dy) / Math.SQRT2);
    size += Math.sqrt(boxArea(box)) / picture.height;
    count++;
  }
  return { centrality: centrality / Math.max(1, count), size: size / Math.max(1, count) };
}

/**
 * Orders the tracks of a shot by how much they deserve to be followed: the kind of thing, how long it is seen,
 * how large and how central it is, and how sure the detectors are. Ties keep the order of ids.
 */
export function rankTracks(tracks: Track[], shot: FrameRange, picture: Size): RankedTrack[] {
  const total = rangeLength(shot);
  const ranked = tracks.map((track): RankedTrack => {
    const presence = visibleFrames(track) / total;
    const { centrality, size } = placeAndSize(track, picture);
    // A person's box is some five times the height of the face in it.
    const faceSize = track.kind === "person" ? size / 3 : size;
    const merit = 0.45 * presence + 0.3 * Math.min(1, faceSize / 0.3) + 0.15 * centrality + 0.1 * track.confidence;
    const what = track.label ?? KIND_WORD[track.kind];
    return {
      track,
      score: KIND_WEIGHT[track.kind] * merit,
      presence,
      reason: `${what}, ${Math.round(presence * 100)} % of the shot`,
    };
  });
  ranked.sort((a, b) => b.score - a.score);
  const first = ranked[0];
  if (first && ranked.some((other) => other !== first && other.track.kind === first.track.kind)) {
    first.reason = `most prominent ${first.reason}`;
  }
  return ranked;
}

/** The track to follow if nobody says otherwise; null when there is nothing worth following. */
export function chooseSubject(tracks: Track[], shot: FrameRange, picture: Size): RankedTrack | null {
  const ranked = rankTracks(tracks, shot, picture);
  const best = ranked[0];
  return best && best.presence >= 0.1 ? best : null;
}
