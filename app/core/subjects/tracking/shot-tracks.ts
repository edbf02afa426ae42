/** What can be followed in a shot: what was found in the film, as the editor has changed it, and what is marked. */
import { type FrameRange, rangeKey } from "../../time/rate";
import { markedThings, type ThingMark } from "../marks/marked-things";
import { editTracks, type MergedPerson, type TrackEdit } from "./edit-tracks";
import { reshapeTracks } from "./reshape-tracks";
import type { Track } from "./track";

/** The tracks of a range that was analysed as one shot. */
export interface AnalysedTracks extends FrameRange {
  tracks: readonly Track[];
}

/** What the editor says of tracks. */
export interface TrackOpinions {
  marks: readonly ThingMark[];
  trackEdits: ReadonlyMap<string, TrackEdit>;
  people: readonly MergedPerson[];
}

/** Ranges by where they are; made once for a list, because every shot is looked up in it with every move of a pointer. */
const indices = new WeakMap<readonly FrameRange[], ReadonlyMap<string, FrameRange>>();

function exactRange<Range extends FrameRange>(shot: FrameRange, analysed: readonly Range[]): Range | undefined {
  const index = indices.get(analysed) ?? new Map(analysed.map((range) => [rangeKey(range), range]));
  indices.set(analysed, index);
  return index.get(rangeKey(shot)) as Range | undefined;
}

/**
 * The analysed ranges that a shot's tracks come from. Analyses at other cuts may have left other ranges: the shot's own
 * counts alone, and of those that overlap the first and longest.
 *
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
 * The tracks of a shot as it is now.
 *
 * @param ranges the analysed ranges that it comes from, as `rangesOf` tells them
 * @param trackOfMark the track that was made of a marked thing, by its basis; undefined while there is none
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
