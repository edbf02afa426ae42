import { type FrameFeatures, LUMA_GRID } from "./frame-features";

/** Luma samples that are kept of a picture, across and down. */
const GRID = { columns: LUMA_GRID.columns / 2, rows: LUMA_GRID.rows / 2 };
const SAMPLES = GRID.columns * GRID.rows;
/** Standard deviation of luma below which a picture has nothing to recognise it by. */
const FLAT = 2;
/** Difference in mean luma within which two such pictures can be the same. */
const SAME_LIGHT = 12;

/** A film's pictures in small, by which a frame is found in another film: 576 bytes per frame. */
export class PictureStrip {
  private bytes = new Uint8Array(SAMPLES * 256);
  private means = new Float32Array(256);
  private deviations = new Float32Array(256);
  private count = 0;

  get frames(): number {
    return this.count;
  }

  add({ luma }: Pick<FrameFeatures, "luma">): void {
    if (this.count === this.means.length) this.grow();
    const at = this.count * SAMPLES;
    let [sum, squares] = [0, 0];
    for (let y = 0, i = 0; y < GRID.rows; y++) {
      for (let x = 0; x < GRID.columns; x++, i++) {
        const corner = 2 * (y * LUMA_GRID.columns + x);
        const value =
          (luma[corner]! +
            luma[corner + 1]! +
            luma[corner + LUMA_GRID.columns]! +
            luma[corner + LUMA_GRID.columns + 1]!) /
          4;
        this.bytes[at + i] = Math.round(value);
        sum += this.bytes[at + i]!;
        squares += this.bytes[at + i]! ** 2;
      }
    }
    const mean = sum / SAMPLES;
    this.means[this.count] = mean;
    this.deviations[this.count] = Math.sqrt(Math.max(0, squares / SAMPLES - mean * mean));
    this.count++;
  }

  private grow(): void {
    const longer = <A extends Uint8Array | Float32Array>(from: A, to: A): A => {
      to.set(from);
      return to;
    };
    this.bytes = longer(this.bytes, new Uint8Array(2 * this.bytes.length));
    this.means = longer(this.means, new Float32Array(2 * this.means.length));
    this.deviations = longer(this.deviations, new Float32Array(2 * this.deviations.length));
  }

  /**
   * Likeness of a frame and one of another film, regardless of brightness and contrast: the normalised cross-correlation of
   * their luma, −1 to 1; 0 outside either film.
   */
  likeness(frame: number, other: PictureStrip, otherFrame: number): number {
    if (frame < 0 || frame >= this.count || otherFrame < 0 || otherFrame >= other.count) return 0;
    const [mean, otherMean] = [this.means[frame]!, other.means[otherFrame]!];
    const [deviation, otherDeviation] = [this.deviations[frame]!, other.deviations[otherFrame]!];
    if (deviation < FLAT || otherDeviation < FLAT) {
      const bothFlat = deviation < FLAT && otherDeviation < FLAT;
      return bothFlat && Math.abs(mean - otherMean) < SAME_LIGHT ? 1 : 0;
    }
    const [a, b] = [frame * SAMPLES, otherFrame * SAMPLES];
    let sum = 0;
    for (let i = 0; i < SAMPLES; i++) sum += this.bytes[a + i]! * other.bytes[b + i]!;
    return (sum / SAMPLES - mean * otherMean) / (deviation * otherDeviation);
  }
}
