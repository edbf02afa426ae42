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

/** A candidate for attention: a person or a thing. */
export interface Candidate {
  /** Its first track. */
  track: SubjectTrack;
  /** All of its tracks, of which no two overlap in time: who is lost for a while is tracked anew. */
  pieces: readonly Track[];
  /** All of them as one. */
  subject: Subject;
  /** Its weight while it is seen and does nothing. */
  weight: number;
  /** Whether it is required in the frame. */
  isMust: boolean;
  /** When it speaks, and when it moves by itself; in order. */
  speaks: readonly FrameRange[];
  acts: readonly FrameRange[];
}

/** Factors on the worth of whoever speaks, or moves by themselves … */
const SPEAKING = 3;
const ACTING = 1.8;
/** … and factor and duration afterwards: attention stays until something else happens. */
const LINGERING = 1.3;
const LINGER_SECONDS = 3;
/** Relative size above which sizes count as equal; below it, a smaller one counts less by a power of the rest. */
const ALIKE_SIZE = 0.85;
const SIZE_POWER = 2;
/** Whoever is seen for less is passing by. */
const LEAST_SECONDS = 1;
/** Pauses shorter than this are within what somebody says. */
const PAUSE_SECONDS = 0.6;
/** Most candidates: among more, attention cannot be told. */
const MOST_CANDIDATES = 8;

/** Share of the time for which a face must lie in a body to belong to it. */
const SAME_SHARE = 0.5;

export interface WorthGround {
  shot: FrameRange;
  tracks: readonly Track[];
  picture: Size;
  fps: number;
  /** Ids of required people and tracks. */
  mustHave: readonly string[];
}

/** When somebody speaks; a single interjection does not count. */
const saidIn = ({ speaking = [] }: Track, fps: number): FrameRange[] =>
  bridged(speaking, PAUSE_SECONDS * fps).filter((said) => rangeLength(said) >= LEAST_TURN_SECONDS * fps);

/** A candidate made of its tracks, with the weight of its kind. */
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

/** Groups tracks of the same person that never overlap in time. */
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

/** Share of the frames with both in which the centre of one box lies inside the other. */
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

/**
 * The candidates for attention in a shot, the weightiest first; a person whose face is tracked is represented by the face.
 */
export function candidatesOf(ground: WorthGround): Candidate[] {
  const { shot, tracks, picture, fps } = ground;
  const withFace = new Set(tracks.map(({ personId }) => personId));
  const all = tracks.filter(isSubject).filter(({ id, kind }) => kind !== "tile" && !withFace.has(id));
  // A body seen beside the one that a face was given is the same person again.
  const isSeenTwice = (body: Track) =>
    body.kind === "person" && all.some((face) => face.kind === "face" && shareInside(face, body) > SAME_SHARE);
  // Of tracks that are only known to move or stand out, the likeliest is enough.
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

/** Share of the picture at its edges in which somebody who enters is seen first. */
const EDGE = 0.08;

/** When somebody has just entered over the picture's edge; who is found again in the middle was there before. */
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

/** What a candidate deserves in each frame of a shot; 0 where it is not seen. */
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
