import { type FrameRange, rangeKey } from "~/core/time/rate";
import type { LoadedTracks } from "~/workers/path-worker";

/** What is to be loaded. */
export interface TracksToLoad {
  /** Ranges that were analysed as one shot each. */
  analysed: readonly FrameRange[];
  /** Tracks of marked things, by what they were made from. */
  marks: readonly MarkTrackName[];
}

export interface MarkTrackName {
  /** Its id on the server. */
  id: number;
  basis: string;
}

/** Frames of tracks that are requested at a time, at least one range. */
const FRAMES_AT_A_TIME = 4000;
/** Milliseconds until a failed request is repeated. */
const TRY_AGAIN_MS = 3000;

const distance = ({ start, end }: FrameRange, frame: number): number => Math.max(0, start - frame, frame - end);

/**
 * Loads the tracks of a film once, from the playhead outwards. All are needed: whom a shot follows depends on the shot
 * before, and the shot list shows flags of every shot.
 */
export class TrackLoader {
  private readonly has = new Set<string>();
  private readonly hasMark = new Set<number>();
  private wanted: TracksToLoad = { analysed: [], marks: [] };
  private isLoading = false;
  private isDisposed = false;

  constructor(
    private readonly fetchTracks: (
      ranges: readonly FrameRange[],
      marks: readonly MarkTrackName[],
    ) => Promise<LoadedTracks>,
    private readonly playhead: () => number,
    private readonly onLoaded: (tracks: LoadedTracks) => void,
  ) {}

  want(wanted: TracksToLoad): void {
    this.wanted = wanted;
    void this.run();
  }

  dispose(): void {
    this.isDisposed = true;
  }

  private next(): { ranges: FrameRange[]; marks: MarkTrackName[] } | null {
    const frame = this.playhead();
    const marks = this.wanted.marks.filter(({ id }) => !this.hasMark.has(id));
    const missing = this.wanted.analysed.filter((range) => !this.has.has(rangeKey(range)));
    missing.sort((a, b) => distance(a, frame) - distance(b, frame));
    const ranges: FrameRange[] = [];
    let frames = 0;
    for (const range of missing) {
      frames += range.end - range.start;
      if (ranges.length > 0 && frames > FRAMES_AT_A_TIME) break;
      ranges.push(range);
    }
    return ranges.length + marks.length > 0 ? { ranges, marks } : null;
  }

  private async run(): Promise<void> {
    if (this.isLoading) return;
    this.isLoading = true;
    for (let next = this.next(); next && !this.isDisposed; next = this.next()) {
      const { ranges, marks } = next;
      const tracks = await this.fetchTracks(ranges, marks).catch(() => null);
      if (!tracks) {
        await new Promise((resolve) => setTimeout(resolve, TRY_AGAIN_MS));
        continue;
      }
      for (const range of ranges) this.has.add(rangeKey(range));
      for (const { id } of marks) this.hasMark.add(id);
      if (!this.isDisposed) this.onLoaded(tracks);
    }
    this.isLoading = false;
  }
}
