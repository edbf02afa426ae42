/** The editor's changes of tracks: parts removed, tracks joined, people merged. */
import { z } from "zod";
import { TrackId } from "../../basics/ids";
import { FrameRange, inRange } from "../../time/rate";
import { joinTracks, type Track } from "./track";

/** A change of one track. */
export const TrackEdit = z.object({
  /** Frames in which it is not to be followed any more. */
  removed: z.array(FrameRange).max(20_000),
  /** The track that it is joined to. */
  joinedTo: TrackId.nullable(),
});
export type TrackEdit = z.infer<typeof TrackEdit>;

/** A recognised person, and the one into whom the editor merged them, if any. */
export interface MergedPerson {
  id: string;
  mergedInto: string | null;
}

/** Who a person is after all of the editor's merges. */
export function rootPerson(id: string, people: readonly MergedPerson[]): string {
  const seen = new Set<string>();
  let at = id;
  for (;;) {
    const into = people.find((person) => person.id === at)?.mergedInto;
    if (!into || seen.has(into)) return at;
    seen.add(at);
    at = into;
  }
}

function withoutFrames(track: Track, removed: readonly FrameRange[]): Track | null {
  const boxes = track.boxes.map((box, i) => {
    const frame = track.start + i;
    return removed.some((range) => inRange(frame, range)) ? null : box;
  });
  return boxes.some(Boolean) ? { ...track, boxes } : null;
}

/** The tracks of a shot with the editor's changes. */
export function editTracks(
  tracks: readonly Track[],
  edits: ReadonlyMap<string, TrackEdit>,
  people: readonly MergedPerson[],
): Track[] {
  const kept = tracks.flatMap((track) => {
    const edit = edits.get(track.id);
    const left = edit ? withoutFrames(track, edit.removed) : track;
    return left ? [left.who ? { ...left, who: rootPerson(left.who, people) } : left] : [];
  });
  const result: Track[] = [];
  const gone = new Map<string, string>();
  for (const track of kept) {
    const into = edits.get(track.id)?.joinedTo;
    if (into && kept.some(({ id }) => id === into)) gone.set(track.id, into);
    else result.push(track);
  }
  for (const [id, into] of gone) {
    const at = result.findIndex((track) => track.id === into);
    if (at >= 0)
      result[at] = joinTracks(
        result[at]!,
        kept.find((track) => track.id === id)!,
      );
  }
  return result.map((track) => {
    const person = track.personId && gone.get(track.personId);
    return person ? { ...track, personId: person } : track;
  });
}
