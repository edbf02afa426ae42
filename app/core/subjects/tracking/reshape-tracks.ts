import { boxIou } from "../../geometry/box";
import type { FrameRange } from "../../time/rate";
import type { Track } from "./track";

/** Overlap of the last box before a boundary and the first one after it above which they are the same thing. */
const SAME = 0.4;

/** The part of a track in a range; null if it is not seen there. */
function clipTrack(track: Track, { start, end }: FrameRange): Track | null {
  const from = Math.max(start, track.start);
  const to = Math.min(end, track.start + track.boxes.length);
  if (to <= from) return null;
  const boxes = track.boxes.slice(from - track.start, to - track.start);
  return boxes.some(Boolean) ? { ...track, start: from, boxes } : null;
}

const endOf = (track: Track): number => track.start + track.boxes.length;

/** Whether a track continues in another that begins where it ends. */
function continues(track: Track, later: Track): boolean {
  const last = track.boxes.at(-1);
  const first = later.boxes[0];
  if (later.start !== endOf(track) || track.kind !== later.kind || !last || !first) return false;
  return boxIou(last, first) >= SAME;
}

/**
 * The tracks of a shot that the editor has made from parts of others: those of all shots it covers, cut to its range, and
 * joined across former boundaries.
 * @param pool tracks of consecutive analysed shots, in order of time
 */
export function reshapeTracks(range: FrameRange, pool: readonly (readonly Track[])[]): Track[] {
  const joined: Track[] = [];
  /** Former ids of joined tracks. */
  const renamed = new Map<string, string>();
  for (const tracks of pool) {
    for (const track of tracks) {
      const part = clipTrack(track, range);
      if (!part) continue;
      const before = joined.find((other) => continues(other, part));
      if (before) {
        before.boxes = [...before.boxes, ...part.boxes];
        if (part.facing) before.facing = [...(before.facing ?? []), ...part.facing];
        renamed.set(part.id, before.id);
      } else joined.push({ ...part });
    }
  }
  return joined.map((track) => {
    const personId = track.personId && (renamed.get(track.personId) ?? track.personId);
    return personId ? { ...track, personId } : track;
  });
}
