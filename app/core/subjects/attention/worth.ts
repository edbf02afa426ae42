/** How much attention everybody and everything in a shot deserves, frame by frame. */
import { boxCentre, boxContains, type Size } from "../../geometry/box";
import { type FrameRange, rangeLength } from "../../time/rate";
import { bridged, clipRanges } from "../../time/ranges";
import { LEAST_TURN_SECONDS } from "../speaking/speaking";
import { isSubject, rankTracks, type SubjectTrack, weightOf } from "../choosing/rank";
import { type Subject, subjectOf } from "../choosing/subject";
import { boxAt, joinTracks, seenTogether, type Track, visibleFrames } from "../tracking/track";
import { isMust } from "./attention-settings";
import { relativeSizes } from "./relative-size";

/** Somebody or something that attention may go to. */
export interface Candidate {
  /** The first track of it. */
  track: SubjectTrack;
  /** All tracks of it, of which no two are seen at a time: who is lost for a while is tracked anew. */
  pieces: readonly Track[];
  /** All of them as one. */
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
const ALIKE_SIZE = 0.85;
const SIZE_POWER = 2;
/** Whoever is seen for less than this is passing by. */
const LEAST_SECONDS = 1;
/** Pauses shorter than this are within what somebody says. */
const PAUSE_SECONDS = 0.6;
/** Among more than this nobody could say where attention is. */
const MOST_CANDIDATES = 8;

/** Share of the time for which a face lies in a body that is its own. */
const SAME_SHARE = 0.5;

export interface WorthGround {
  shot: FrameRange;
  tracks: readonly Track[];
  picture: Size;
  fps: number;
  /** Ids of people and tracks that have to be in the picture. */
  mustHave: readonly string[];
}

/** When somebody says something; a word thrown in is not listened to. */
const saidIn = ({ speaking = [] }: Track, fps: number): FrameRange[] =>
  bridged(speaking, PAUSE_SECONDS * fps).filter((said) => rangeLength(said) >= LEAST_TURN_SECONDS * fps);

/** Somebody or something by its tracks, as weighty as what it is. */
export function asCandidate(
  pieces: readonly [SubjectTrack, ...SubjectTrack[]],
  { shot, tracks, picture, fps, mustHave }: WorthGround,
): Candidate {
  const [track] = pieces;
  const bodies = [...new Set(pieces.flatMap((piece) => subjectOf(piece, tracks).body ?? []))];
  const [body, ...otherBodies] = bodies;
  const whole = pieces.slice(1).reduce<Track>(joinTracks, track);
  const subject = { track: whole, body: body ? otherBodies.reduce<Track>(joinTracks, body) : null };
  return {
    track,
    pieces,
    subject,
    weight: weightOf(track, picture),
    isMust: isMust(track, mustHave),
    speaks: clipRanges(saidIn(whole, fps), shot),
    acts: clipRanges((subject.body ?? whole).acting ?? [], shot),
  };
}

/** Tracks of the same person that are never seen together, together. */
function piecesOf(tracks: readonly SubjectTrack[]): [SubjectTrack, ...SubjectTrack[]][] {
  const all: [SubjectTrack, ...SubjectTrack[]][] = [];
  for (const track of tracks) {
    const same = all.find(
      ([first, ...others]) =>
        track.who !== undefined &&
        first.who === track.who &&
        first.kind === track.kind &&
        ![first, ...others].some((piece) => seenTogether(piece, track)),
    );
    if (same) same.push(track);
    else all.push([track]);
  }
  return all;
}

/** Share of the frames with both in which the middle of one box lies within the other. */
function shareInside(inner: Track, outer: Track): number {
  let both = 0;
  let inside = 0;
  inner.boxes.forEach((box, i) => {
    const other = box && boxAt(outer, inner.start + i);
    if (!box || !other) return;
    both++;
    if (boxContains(other, { ...boxCentre(box), width: 0, height: 0 })) inside++;
  });
  return inside / Math.max(1, both);
}

/** Who and what attention may go to in a shot, the weightiest first; a person whose face is tracked goes by the face. */
export function candidatesOf(ground: WorthGround): Candidate[] {
  const { shot, tracks, picture, fps } = ground;
  const withFace = new Set(tracks.map(({ personId }) => personId));
  const all = tracks.filter(isSubject).filter(({ id, kind }) => kind !== "tile" && !withFace.has(id));
  // A body that was seen beside the one a face was given is the same person once more.
  const isSeenTwice = (body: Track) =>
    body.kind === "person" && all.some((face) => face.kind === "face" && shareInside(face, body) > SAME_SHARE);
  // Of what nothing is known of but that it moves or stands out, the likeliest is enough.
  const unknown = all.filter(({ kind }) => kind === "motion" || kind === "salient");
  const [likeliest] = rankTracks(unknown, shot, picture);
  const own = all
    .filter((track) => !isSeenTwice(track))
    .filter((track) => !unknown.includes(track) || track === likeliest?.track);
  const known = piecesOf(own)
    .map((pieces) => asCandidate(pieces, ground))
    .filter(({ subject }) => visibleFrames(subject.track) >= LEAST_SECONDS * fps);
  const sizes = relativeSizes(
    known.map(({ subject }) => subject),
    shot,
    picture,
  );
  return known
    .map((one, i) => ({ ...one, weight: one.weight * Math.min(1, sizes[i]! / ALIKE_SIZE) ** SIZE_POWER }))
    .sort((a, b) => b.weight * visibleFrames(b.subject.track) - a.weight * visibleFrames(a.subject.track))
    .slice(0, MOST_CANDIDATES);
}

/** Share of the picture at its edges in which somebody who comes in is seen first. */
const EDGE = 0.08;

/** When somebody has just come in over the edge of the picture; what is found again in the middle was there before. */
function entrances({ subject, pieces }: Candidate, { shot, picture, fps }: Omit<WorthGround, "tracks" | "mustHave">) {
  const reach = LEAST_SECONDS * fps;
  const body = subject.body ? [subject.body] : [];
  return [...pieces, ...body].flatMap(({ start, boxes }): FrameRange[] => {
    const box = boxes.find((one) => one !== null);
    if (!box || start < shot.start + reach) return [];
    const isAtEdge = box.x < EDGE * picture.width || box.x + box.width > (1 - EDGE) * picture.width;
    return isAtEdge ? [{ start, end: start + Math.round(LINGER_SECONDS * fps) }] : [];
  });
}

/** For each frame of a shot what a candidate deserves; 0 where it is not seen. */
export function worthOf(one: Candidate, ground: Omit<WorthGround, "tracks" | "mustHave">): Float64Array {
  const { subject, weight, speaks, acts } = one;
  const { shot, fps } = ground;
  const worth = Float64Array.from({ length: shot.end - shot.start }, (_, i) =>
    boxAt(subject.track, shot.start + i) || (subject.body && boxAt(subject.body, shot.start + i)) ? weight : 0,
  );
  const raise = (ranges: readonly FrameRange[], times: number) => {
    for (const { start, end } of ranges)
      for (let i = start - shot.start; i < end - shot.start; i++)
        worth[i] = worth[i]! === 0 ? 0 : Math.max(worth[i]!, weight * times);
  };
  const linger = Math.round(LINGER_SECONDS * fps);
  const after = [...acts, ...speaks].map(({ end }) => ({ start: end, end: end + linger }));
  raise(clipRanges(after, shot), LINGERING);
  raise(clipRanges(entrances(one, ground), shot), ACTING);
  raise(acts, ACTING);
  raise(speaks, SPEAKING);
  return worth;
}
