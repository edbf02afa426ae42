import { PerKey } from "../../basics/per-key";
import { type FrameRange, rangeKey } from "../../time/rate";
import { markedThings } from "../marks/marked-things";
import { type AnalysedTracks, rangesOf, tracksInShot, type TrackOpinions } from "./shot-tracks";
import type { Track } from "./track";

/** Loaded tracks, from which those of any shot are made; the result keeps its identity while nothing changes. */
export class TrackStock {
  private readonly byRange = new Map<string, AnalysedTracks>();
  private readonly byBasis = new Map<string, Track>();
  private readonly made = new PerKey<readonly Track[]>();

  add(analysed: readonly AnalysedTracks[], marks: readonly { basis: string; track: Track }[]): void {
    for (const range of analysed) this.byRange.set(rangeKey(range), range);
    for (const { basis, track } of marks) this.byBasis.set(basis, track);
  }

  /**
   * Everything that the tracks of a shot are made of, with unchanged parts identical; null while some of it has not been
   * loaded.
   */
  sourcesOf(
    shot: FrameRange,
    analysed: readonly FrameRange[],
    { marks, trackEdits, people }: TrackOpinions,
  ): readonly unknown[] | null {
    // Where the film has not been analysed yet, there is nothing to load.
    const ranges = this.rangesOf(shot, analysed);
    if (ranges.some((range) => !range)) return null;
    const marked = markedThings(marks, shot).map(({ basis }) => this.byBasis.get(basis));
    return [shot.start, shot.end, trackEdits, people, ...ranges, ...marked];
  }

  /** The tracks of a shot; null while some of their sources have not been loaded. */
  of(
    shot: FrameRange & { id: string },
    analysed: readonly FrameRange[],
    opinions: TrackOpinions,
  ): readonly Track[] | null {
    const sources = this.sourcesOf(shot, analysed, opinions);
    if (!sources) return null;
    return this.made.get(shot.id, sources, () => {
      const ranges = this.rangesOf(shot, analysed).flatMap((range) => range ?? []);
      return tracksInShot(shot, ranges, (basis) => this.byBasis.get(basis), opinions);
    });
  }

  private rangesOf(shot: FrameRange, analysed: readonly FrameRange[]): (AnalysedTracks | undefined)[] {
    return rangesOf(shot, analysed).map((range) => this.byRange.get(rangeKey(range)));
  }
}
