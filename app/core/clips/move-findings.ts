/** Brings what was found in a film along when its clips are put in another order. */
import { joinActivity, packActivity, partOfActivity, unpackActivity } from "../activity/activity";
import type { Move, MovedPart } from "../edits/move";
import type { TransitionCandidate } from "../shots/detect-transitions";
import { type PackedTrack, packTrack, unpackTrack } from "../subjects/tracking/packed-tracks";
import { type FrameRange, rangeLength } from "../time/rate";

/** What was found in a film. */
export interface Findings {
  candidates: TransitionCandidate[];
  /** Of ranges that were analysed as one shot each. */
  tracks: { range: FrameRange; tracks: PackedTrack[] }[];
  undecoded: FrameRange[];
  /** As `packActivity` packs it; null where nothing is known. */
  activity: Uint8Array | null;
}

/** A track's id says at which frame the shot began that it was found in. */
const FOUND_AT = /^s(\d+)-/;

/** What a track is called after its clip has been moved; null if that is not in the film any more. */
export function movedTrackId(id: string, move: Move): string | null {
  const begun = FOUND_AT.exec(id)?.[1];
  const frame = begun === undefined ? null : move.frame(Number(begun));
  return frame === null ? null : id.replace(FOUND_AT, `s${frame}-`);
}

/** A track that is so many frames later. */
function movedTrack(packed: PackedTrack, shift: number, move: Move): PackedTrack[] {
  const { id, personId, ...track } = unpackTrack(packed);
  const renamed = movedTrackId(id, move);
  if (renamed === null) return [];
  const person = personId === undefined ? null : movedTrackId(personId, move);
  return [
    packTrack({
      ...track,
      id: renamed,
      ...(person === null ? {} : { personId: person }),
      start: track.start + shift,
      boxes: track.boxes.map((box, i) => box && move.place(box, track.start + i)),
      ...(track.speaking
        ? { speaking: track.speaking.map(({ start, end }) => ({ start: start + shift, end: end + shift })) }
        : {}),
      ...(track.facing ? { facing: track.facing.map((seen) => ({ ...seen, frame: seen.frame + shift })) } : {}),
    }),
  ];
}

function movedCandidate({ transition, strength }: TransitionCandidate, move: Move): TransitionCandidate[] {
  const frame = move.frame(transition.frame);
  if (frame === null) return [];
  const [range = { start: frame, end: frame }] = move.ranges([transition.range]);
  return [{ transition: { ...transition, frame, range }, strength }];
}

function movedActivity(packed: Uint8Array, parts: readonly MovedPart[], frames: number): Uint8Array {
  const activity = unpackActivity(packed);
  const ranges = parts.map(({ from, to }) => ({ start: to.start, ...partOfActivity(activity, from) }));
  return packActivity(joinActivity(ranges, frames));
}

/**
 * What is known of a film by what was known of it before its clips were moved, frame by frame.
 *
 * @param parts that are wholly there, at the same rate
 * @param frames of the film as it is now
 */
export function moveFindings(found: Findings, parts: readonly MovedPart[], move: Move, frames: number): Findings {
  const tracks = found.tracks.flatMap(({ range, tracks }) => {
    const to = move.range(range);
    // A shot of which something is missing is another one.
    if (!to || rangeLength(to) !== rangeLength(range)) return [];
    const shift = to.start - range.start;
    return [{ range: to, tracks: tracks.flatMap((track) => movedTrack(track, shift, move)) }];
  });
  return {
    candidates: found.candidates
      .flatMap((candidate) => movedCandidate(candidate, move))
      .sort((a, b) => a.transition.frame - b.transition.frame),
    tracks,
    undecoded: move.ranges(found.undecoded),
    activity: found.activity && movedActivity(found.activity, parts, frames),
  };
}
