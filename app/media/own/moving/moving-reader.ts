import type { FrameRange } from "~/core/time/rate";

/** Frames that are decoded and discarded before seeking is faster. */
const MOST_SKIPPED = 50;

/** Gives frames of a moving picture, mostly in order. */
export class MovingReader {
  private frames: AsyncGenerator<Buffer> | null = null;
  /** Index of the last decoded frame. */
  private at = -1;
  private data: Buffer | null = null;

  /** @param decode gives the frames of a range, in order */
  constructor(
    private readonly decode: (range: FrameRange) => AsyncGenerator<Buffer>,
    private readonly count: number,
  ) {}

  /** Null where it cannot be decoded and no frame came before. */
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
