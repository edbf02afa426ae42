/** Carries findings over when a film's clips are rearranged. */
import { joinActivity, packActivity, partOfActivity, unpackActivity } from "../activity/activity";
import type { Move, MovedPart } from "../edits/move";
import type { TransitionCandidate } from "../shots/detect-transitions";
import { type PackedTrack, packTrack, unpackTrack } from "../subjects/tracking/packed-tracks";
import { type FrameRange, rangeLength } from "../time/rate";

/** What was found in a film. */
export interface Findings {
  candidates: TransitionCandidate[];
  /** By ranges that were analysed as one shot each. */
  tracks: { range: FrameRange; tracks: PackedTrack[] }[];
  undecoded: FrameRange[];
  /** Packed by `packActivity`; null where nothing is known. */
  activity: Uint8Array | null;
}

/** A track's id contains the start of the shot in which it was found. */
const FOUND_AT = /^s(\d+)-/;

/** Id of a track after its clip was moved; null if the clip is no longer in the film. */
export function movedTrackId(id: string, move: Move): string | null {
  const begun = FOUND_AT.exec(id)?.[1];
  const frame = begun === undefined ? null : move.frame(Number(begun));
  return frame === null ? null : id.replace(FOUND_AT, `s${frame}-`);
}

/** A track shifted by some frames. */
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
 * Findings of a film, frame by frame, from those before its clips were rearranged.
 * @param parts that are wholly there, at the same rate
 * @param frames of the film as it is now
 */
export function moveFindings(found: Findings, parts: readonly MovedPart[], move: Move, frames: number): Findings {
  const tracks = found.tracks.flatMap(({ range, tracks }) => {
    const to = move.range(range);
    // An incomplete shot is another shot, with other tracks.
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
