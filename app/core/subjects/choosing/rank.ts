import { boxArea, boxCentre, type Size } from "../../geometry/box";
import { rangeLength, type FrameRange } from "../../time/rate";
import type { SubjectKind } from "../detecting/detection";
import { isDoubtfulFace, type Track, visibleFrames } from "../tracking/track";
import { reasonsTexts } from "../../../texts/reasons";

const t = reasonsTexts.rank;

/** A track of a possible subject. */
export type SubjectTrack = Track & { kind: SubjectKind };
export const isSubject = (track: Track): track is SubjectTrack => track.kind !== "text" && track.kind !== "inset";

/** A track with the evidence for following it. */
export interface RankedTrack {
  track: SubjectTrack;
  /** 0 to about 1. */
  score: number;
  /** Share of the shot in which it is seen. */
  presence: number;
  reason: string;
}

const KIND_WEIGHT: Record<SubjectKind, number> = {
  mark: 3,
  face: 1,
  person: 0.72,
  object: 0.5,
  motion: 0.55,
  salient: 0.55,
  tile: 0.05,
};
/** Factor on the weight of motion that is not known to be held in a hand. */
const NOT_HELD = 0.73;
/** Factor on the weight of the least certain salient thing. */
const UNSURE_SHARE = 0.3;
/** Factor on the weight of a doubtful face. */
const DOUBTFUL_FACE = 0.45;
const KIND_WORD: Record<SubjectKind, string> = {
  mark: t.markedByYou,
  face: "face",
  person: "person",
  object: "thing",
  motion: t.movingThing,
  salient: t.thingThatStandsOut,
  tile: t.partOfAPictureMade,
};

/** Weights of the parts of a track's merit; each part is from 0 to 1, and the weights add up to at most 1. */
const WEIGHTS = {
  presence: 0.3,
  size: 0.14,
  /** Size relative to the largest of the same kind. */
  largest: 0.16,
  centrality: 0.08,
  confidence: 0.06,
  sharpness: 0.08,
  speaking: 0.1,
  motion: 0.04,
  known: 0.04,
};
/** Share of a shot for which a thing must be seen to count in full, and for its size to be a reference for others. */
const LASTING = 0.25;
/** Height of a face, in pictures, beyond which larger is no better. */
const LARGE_FACE = 0.3;
/** Speed, in pictures per second, that counts as full movement. */
const FULL_SPEED = 0.01;

/** Share of its kind's weight, by how certain it is that the track is of that kind. */
function sureness(track: SubjectTrack, picture: Size): number {
  if (track.kind === "motion") return track.held ? 1 : NOT_HELD;
  if (track.kind === "salient") return UNSURE_SHARE + (1 - UNSURE_SHARE) * track.confidence;
  return isDoubtfulFace(track, picture) ? DOUBTFUL_FACE : 1;
}

/** Weight of a track by its kind. */
export const weightOf = (track: SubjectTrack, picture: Size): number =>
  KIND_WEIGHT[track.kind] * sureness(track, picture);

/** Means over a track's frames: centrality (1 in the centre to 0 in a corner), size in pictures, and speed. */
function figuresOf(track: Track, picture: Size): { centrality: number; size: number; speed: number } {
  let centrality = 0;
  let size = 0;
  let speed = 0;
  let count = 0;
  let before: { x: number; y: number } | null = null;
  for (const box of track.boxes) {
    const centre: { x: number; y: number } | null = box && boxCentre(box);
    if (centre && before) speed += Math.hypot(centre.x - before.x, centre.y - before.y) / picture.height;
    before = centre;
    if (!box || !centre) continue;
    const dx = (centre.x - picture.width / 2) / (picture.width / 2);
    const dy = (centre.y - picture.height / 2) / (picture.height / 2);
    centrality += 1 - Math.min(1, Math.hypot(dx, dy) / Math.SQRT2);
    size += Math.sqrt(boxArea(box)) / picture.height;
    count++;
  }
  const per = Math.max(1, count);
  return { centrality: centrality / per, size: size / per, speed: speed / per };
}

/** Height of a track in faces: a person's box is about five faces high. */
const facesIn = ({ kind }: Track): number => (kind === "person" ? 3 : 1);

/** Mean size of a track, as the side of a square in heights of the picture; of a person, that of the face. */
export const faceSizeOf = (track: Track, picture: Size): number => figuresOf(track, picture).size / facesIn(track);

const speakingFrames = ({ speaking = [] }: Track): number =>
  speaking.reduce((sum, { start, end }) => sum + end - start, 0);

/**
 * Ranks the tracks of a shot by how much they deserve to be followed: kind, duration, size, centrality, sharpness, speech
 * or movement, certainty of the detectors, and whether the shot before followed the same person. Ties keep the order of
 * ids.
 * @param before who was followed in the shot before
 */
export function rankTracks(
  all: readonly Track[],
  shot: FrameRange,
  picture: Size,
  before: string | null = null,
): RankedTrack[] {
  const tracks = all.filter(isSubject);
  const total = rangeLength(shot);
  const sharpest = Math.max(1e-9, ...tracks.map(({ sharpness = 0 }) => sharpness));
  const figures = new Map(tracks.map((track) => [track.id, figuresOf(track, picture)]));
  // What passes close by for a moment makes nothing else small.
  const lasting = tracks.filter((track) => visibleFrames(track) >= LASTING * total);
  const largestOf = (kind: Track["kind"]) =>
    Math.max(1e-9, ...lasting.filter((track) => track.kind === kind).map(({ id }) => figures.get(id)!.size));
  const ranked = tracks.map((track): RankedTrack => {
    const presence = visibleFrames(track) / total;
    const { centrality, size, speed } = figures.get(track.id)!;
    const faceSize = size / facesIn(track);
    const speaking = Math.min(1, speakingFrames(track) / total);
    const merit =
      WEIGHTS.presence * presence +
      WEIGHTS.size * Math.min(1, faceSize / LARGE_FACE) +
      WEIGHTS.largest * Math.min(1, size / largestOf(track.kind)) +
      WEIGHTS.centrality * centrality +
      WEIGHTS.confidence * track.confidence +
      WEIGHTS.sharpness * ((track.sharpness ?? sharpest / 2) / sharpest) +
      WEIGHTS.speaking * Math.sqrt(speaking) +
      WEIGHTS.motion * Math.min(1, speed / FULL_SPEED) +
      WEIGHTS.known * (before && track.who === before ? 1 : 0);
    const lasting = Math.min(1, presence / LASTING);
    return { track, score: weightOf(track, picture) * lasting * merit, presence, reason: "" };
  });
  ranked.sort((a, b) => b.score - a.score);
  for (const entry of ranked) entry.reason = reasonFor(entry, ranked, figures, before);
  return ranked;
}

/** The reason for a track's rank, in words: "largest face, speaking, 92% of the shot". */
function reasonFor(
  { track, presence }: RankedTrack,
  ranked: readonly RankedTrack[],
  figures: ReadonlyMap<string, { size: number }>,
  before: string | null,
): string {
  const alike = ranked.filter((other) => other.track.kind === track.kind && other.track !== track);
  const size = figures.get(track.id)!.size;
  const what = track.label ?? (track.held ? t.heldThing : KIND_WORD[track.kind]);
  const largest = alike.length > 0 && alike.every((other) => figures.get(other.track.id)!.size < size);
  const only = alike.length === 0 && (track.kind === "face" || track.kind === "person");
  return [
    largest ? t.largest(what) : only ? t.only(what) : what,
    ...(speakingFrames(track) > 0 ? ["speaking"] : []),
    ...(before && track.who === before ? [t.followedBefore] : []),
    t.ofTheShot(presence),
  ].join(", ");
}

/** A choice with its certainty. */
export interface ChosenSubject extends RankedTrack {
  /** 0 to 1: how clearly it is ahead of the next, how long it is seen, and how certainly. */
  certainty: number;
}

/** A clear lead over the next one, as a share of the score. */
const CLEAR_LEAD = 0.2;

/** The track to follow by default; null when there is nothing worth following. */
export function chooseSubject(
  tracks: readonly Track[],
  shot: FrameRange,
  picture: Size,
  before: string | null = null,
): ChosenSubject | null {
  // A person whose face is tracked is represented by the face.
  const faces = tracks.filter(({ kind }) => kind === "face");
  const ranked = rankTracks(tracks, shot, picture, before);
  const best = ranked[0];
  if (!best || best.presence < 0.1) return null;
  const next = ranked.find(
    ({ track }) =>
      track !== best.track && track.id !== best.track.personId && !faces.some((f) => f.personId === track.id),
  );
  const lead = next ? Math.min(1, (best.score - next.score) / (CLEAR_LEAD * best.score)) : 1;
  const known = best.track.kind === "motion" || best.track.kind === "salient" ? 0.6 : 1;
  const certainty =
    known *
    Math.min(1, 0.45 + 0.55 * lead) *
    Math.min(1, best.presence / 0.5) *
    Math.min(1, best.track.confidence / 0.6);
  return { ...best, certainty };
}
