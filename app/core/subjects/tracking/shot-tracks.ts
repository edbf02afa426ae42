/** The tracks of a shot: what was found in the film, with the editor's changes, and marks. */
import { type FrameRange, rangeKey } from "../../time/rate";
import { markedThings, type ThingMark } from "../marks/marked-things";
import { editTracks, type MergedPerson, type TrackEdit } from "./edit-tracks";
import { reshapeTracks } from "./reshape-tracks";
import type { Track } from "./track";

/** The tracks of a range that was analysed as one shot. */
export interface AnalysedTracks extends FrameRange {
  tracks: readonly Track[];
}

/** The editor's changes of tracks. */
export interface TrackOpinions {
  marks: readonly ThingMark[];
  trackEdits: ReadonlyMap<string, TrackEdit>;
  people: readonly MergedPerson[];
}

/** Ranges by place; made once per list, because every shot is looked up in it with every move of the pointer. */
const indices = new WeakMap<readonly FrameRange[], ReadonlyMap<string, FrameRange>>();

function exactRange<Range extends FrameRange>(shot: FrameRange, analysed: readonly Range[]): Range | undefined {
  const index = indices.get(analysed) ?? new Map(analysed.map((range) => [rangeKey(range), range]));
  indices.set(analysed, index);
  return index.get(rangeKey(shot)) as Range | undefined;
}

/**
 * The analysed ranges from which a shot's tracks come. Analyses at other cuts may have left other ranges: only the shot's
 * own is used if there is one, and of overlapping ones the first and longest.
 * @param analysed by start, the longer of two first
 */
export function rangesOf<Range extends FrameRange>(shot: FrameRange, analysed: readonly Range[]): Range[] {
  const exact = exactRange(shot, analysed);
  if (exact) return [exact];
  const pool: Range[] = [];
  let covered = -1;
  for (const range of analysed) {
    if (range.end <= shot.start || range.start >= shot.end || range.start < covered) continue;
    covered = range.end;
    pool.push(range);
  }
  return pool;
}

/**
 * The present tracks of a shot.
 * @param ranges the analysed ranges from which they come, from `rangesOf`
 * @param trackOfMark the track made of a marked thing, by its basis; undefined while there is none
 */
export function tracksInShot(
  shot: FrameRange,
  ranges: readonly AnalysedTracks[],
  trackOfMark: (basis: string) => Track | undefined,
  { marks, trackEdits, people }: TrackOpinions,
): Track[] {
  const [first] = ranges;
  const isWhole = ranges.length === 1 && first!.start === shot.start && first!.end === shot.end;
  const pool = ranges.map(({ tracks }) => tracks);
  const found = isWhole ? first!.tracks : reshapeTracks(shot, pool);
  const marked = markedThings(marks, shot).flatMap(({ basis }) => trackOfMark(basis) ?? []);
  return editTracks([...found, ...marked], trackEdits, people);
}
