/** How much attention everybody and everything in a shot deserves, frame by frame. */
import type { Size } from "../../geometry/box";
import type { FrameRange } from "../../time/rate";
import { clipRanges } from "../../time/ranges";
import { faceSizeOf, isSubject, rankTracks, type SubjectTrack, weightOf } from "../choosing/rank";
import { type Subject, subjectOf } from "../choosing/subject";
import { boxAt, type Track, visibleFrames } from "../tracking/track";

/** Somebody or something that attention may go to. */
export interface Candidate {
  track: SubjectTrack;
  subject: Subject;
  /** What it counts for while it is seen and does nothing. */
  weight: number;
  /** Whether it has to be in the picture. */
  isMust: boolean;
  /** When it speaks, and when it moves by itself; in order. */
  speaks: readonly FrameRange[];
  acts: readonly FrameRange[];
}

/** How many times as much somebody who speaks, or moves by themselves, deserves … */
const SPEAKING = 3;
const ACTING = 1.8;
/** … and for so long after that so many times as much: attention stays until something else happens. */
const LINGERING = 1.3;
const LINGER_SECONDS = 3;
/** Sizes down to this share of the largest are alike; how much less a smaller one counts is a power of what is left. */
const ALIKE_SIZE = 0.75;
const SIZE_POWER = 1.5;
/** Whoever is seen for less than this is passing by. */
const LEAST_SECONDS = 1;
/** Among more than this nobody could say where attention is. */
const MOST_CANDIDATES = 8;
/** What of a shot counts as seen for long enough to make others small. */
const LASTING = 0.25;

export interface WorthGround {
  shot: FrameRange;
  tracks: readonly Track[];
  picture: Size;
  fps: number;
  /** Ids of people who have to be in the picture. */
  mustHave: readonly string[];
}

/** Tracks as candidates, each as weighty as what it is. */
export const asCandidates = (
  tracks: readonly Track[],
  { shot, tracks: all, mustHave }: Pick<WorthGround, "shot" | "tracks" | "mustHave">,
): Candidate[] =>
  tracks.filter(isSubject).map((track): Candidate => {
    const subject = subjectOf(track, all);
    const acts = clipRanges((subject.body ?? track).acting ?? [], shot);
    const isMust = track.who !== undefined && mustHave.includes(track.who);
    return { track, subject, weight: weightOf(track), isMust, speaks: clipRanges(track.speaking ?? [], shot), acts };
  });

/** Who and what attention may go to in a shot, the weightiest first; a person whose face is tracked goes by the face. */
export function candidatesOf(ground: WorthGround): Candidate[] {
  const { shot, tracks, picture, fps } = ground;
  const withFace = new Set(tracks.map(({ personId }) => personId));
  const all = tracks.filter(isSubject).filter(({ id, kind }) => kind !== "tile" && !withFace.has(id));
  // Of what nothing is known of but that it moves or stands out, the likeliest is enough.
  const unknown = all.filter(({ kind }) => kind === "motion" || kind === "salient");
  const [likeliest] = rankTracks(unknown, shot, picture);
  const own = all.filter((track) => !unknown.includes(track) || track === likeliest?.track);
  const isPerson = ({ kind }: Track) => kind === "face" || kind === "person";
  const sizes = new Map(own.map((track) => [track, faceSizeOf(track, picture)]));
  const largest = (person: boolean) =>
    own
      .filter((track) => isPerson(track) === person && visibleFrames(track) >= LASTING * (shot.end - shot.start))
      .reduce((most, track) => Math.max(most, sizes.get(track)!), 1e-9);
  const largestOf = { person: largest(true), thing: largest(false) };
  const lasting = own.filter((track) => visibleFrames(track) >= LEAST_SECONDS * fps);
  return asCandidates(lasting, ground)
    .map((one) => {
      const share = sizes.get(one.track)! / largestOf[isPerson(one.track) ? "person" : "thing"];
      return { ...one, weight: one.weight * Math.min(1, share / ALIKE_SIZE) ** SIZE_POWER };
    })
    .sort((a, b) => b.weight * visibleFrames(b.track) - a.weight * visibleFrames(a.track))
    .slice(0, MOST_CANDIDATES);
}

/** Share of the picture at its edges in which somebody who comes in is seen first. */
const EDGE = 0.08;

/** When somebody has just come in over the edge of the picture; what is found again in the middle was there before. */
function entrance(
  { track, subject }: Candidate,
  { shot, picture, fps }: Pick<WorthGround, "shot" | "picture" | "fps">,
): FrameRange[] {
  const own = [track, ...(subject.body ? [subject.body] : [])];
  const start = Math.min(...own.map((one) => one.start));
  const box = own.map((one) => boxAt(one, start)).find((one) => one !== null);
  if (!box || start < shot.start + LEAST_SECONDS * fps) return [];
  const isAtEdge = box.x < EDGE * picture.width || box.x + box.width > (1 - EDGE) * picture.width;
  return isAtEdge ? [{ start, end: start + Math.round(LINGER_SECONDS * fps) }] : [];
}

/** For each frame of a shot what a candidate deserves; 0 where it is not seen. */
export function worthOf(one: Candidate, ground: Pick<WorthGround, "shot" | "picture" | "fps">): Float64Array {
  const { track, subject, weight, speaks, acts } = one;
  const { shot, fps } = ground;
  const worth = Float64Array.from({ length: shot.end - shot.start }, (_, i) =>
    boxAt(track, shot.start + i) || (subject.body && boxAt(subject.body, shot.start + i)) ? weight : 0,
  );
  const raise = (ranges: readonly FrameRange[], times: number) => {
    for (const { start, end } of ranges)
      for (let i = start - shot.start; i < end - shot.start; i++)
        worth[i] = worth[i]! === 0 ? 0 : Math.max(worth[i]!, weight * times);
  };
  const linger = Math.round(LINGER_SECONDS * fps);
  const after = [...acts, ...speaks].map(({ end }) => ({ start: end, end: end + linger }));
  raise(clipRanges(after, shot), LINGERING);
  raise(clipRanges(entrance(one, ground), shot), ACTING);
  raise(acts, ACTING);
  raise(speaks, SPEAKING);
  return worth;
}
