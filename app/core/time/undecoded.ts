import type { FilmGrid } from "./film-grid";
import { type FrameRange, framesPerSecond } from "./rate";

const [IN_FILE, DECODED] = [1, 2];

/** Records the frames whose pictures are in a film's file but cannot be decoded. */
export class Undecoded {
  private readonly state: Uint8Array;

  /** @param times presentation times in seconds, in the file's own time */
  constructor(
    times: Float64Array,
    private readonly grid: Pick<FilmGrid, "rate" | "frames" | "origin">,
  ) {
    this.state = new Uint8Array(grid.frames);
    for (const time of times) this.mark(time, IN_FILE);
  }

  /** Records a decoded picture. */
  decoded(seconds: number): void {
    this.mark(seconds, DECODED);
  }

  private mark(seconds: number, as: number): void {
    const frame = Math.round((seconds - this.grid.origin) * framesPerSecond(this.grid.rate));
    if (frame >= 0 && frame < this.state.length) this.state[frame] = Math.max(this.state[frame]!, as);
  }

  /**
   * The frames of a range whose pictures have not been decoded; frames without a picture of their own do not separate them.
   */
  within({ start, end }: FrameRange): FrameRange[] {
    const found: FrameRange[] = [];
    let open: FrameRange | null = null;
    for (let frame = start; frame < end; frame++) {
      const state = this.state[frame];
      if (state === DECODED) open = null;
      if (state !== IN_FILE) continue;
      if (open) open.end = frame + 1;
      else found.push((open = { start: frame, end: frame + 1 }));
    }
    return found;
  }
}
