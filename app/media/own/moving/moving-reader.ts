import type { FrameRange } from "~/core/time/rate";

/** Frames that are rather decoded and thrown away than begun at anew. */
const MOST_SKIPPED = 50;

/** Gives frames of a picture that moves, asked for mostly in order. */
export class MovingReader {
  private frames: AsyncGenerator<Buffer> | null = null;
  /** The last frame that was decoded, and which it is. */
  private at = -1;
  private data: Buffer | null = null;

  /** @param decode gives the frames of a range, in order */
  constructor(
    private readonly decode: (range: FrameRange) => AsyncGenerator<Buffer>,
    private readonly count: number,
  ) {}

  /** Null where it cannot be decoded and nothing came before. */
  async frame(wanted: number): Promise<Buffer | null> {
    if (wanted === this.at) return this.data;
    if (!this.frames || wanted < this.at || wanted > this.at + MOST_SKIPPED) {
      await this.close();
      this.frames = this.decode({ start: wanted, end: this.count });
      this.at = wanted - 1;
    }
    while (this.at < wanted) {
      const { value, done } = await this.frames.next();
      if (done) break;
      this.data = value;
      this.at++;
    }
    return this.data;
  }

  async close(): Promise<void> {
    await this.frames?.return(undefined);
    this.frames = null;
  }
}
