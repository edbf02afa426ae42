/** What happens in a film, frame by frame: brightness, contrast, movement, and speech. */
import { CELLS, type FrameFeatures, LUMA_GRID, lumaStatistics } from "../shots/frame-features";
import { type FrameRange, framesPerSecond, type Rate } from "../time/rate";

/** Activity of a range of film, four bytes per frame. */
export interface Activity {
  /** Mean luma, 0 to 255. */
  light: Uint8Array;
  /** Standard deviation of luma, in quarters. */
  contrast: Uint8Array;
  /** Change in a part of the picture since a moment before, in eighths of a step of luma. */
  change: Uint8Array;
  /** Probability of speech, 0 to 255. */
  speech: Uint8Array;
}

export const CONTRAST_UNIT = 1 / 4;
export const CHANGE_UNIT = 1 / 8;

/** Seconds over which change is measured: between neighbouring frames, slow movement is invisible. */
export const CHANGE_SECONDS = 0.4;
/** Rank of the cell whose change counts, from 0: the largest may be a running burnt-in clock. */
const COUNTED_CELL = 1;

const IN_CELL = { columns: LUMA_GRID.columns / CELLS.columns, rows: LUMA_GRID.rows / CELLS.rows };

/** Mean absolute difference of luma in the cell with the second largest change. */
function changeBetween(a: FrameFeatures, b: FrameFeatures): number {
  const sums = new Float64Array(CELLS.columns * CELLS.rows);
  for (let y = 0, i = 0; y < LUMA_GRID.rows; y++) {
    const row = Math.floor(y / IN_CELL.rows) * CELLS.columns;
    for (let x = 0; x < LUMA_GRID.columns; x++, i++) {
      sums[row + Math.floor(x / IN_CELL.columns)]! += Math.abs(a.luma[i]! - b.luma[i]!);
    }
  }
  sums.sort();
  return sums[sums.length - 1 - COUNTED_CELL]! / (IN_CELL.columns * IN_CELL.rows);
}

const byte = (value: number): number => Math.min(255, Math.round(value));

/** Measures activity from a film's pictures, given in order. */
export class ActivityMeter {
  private readonly reach: number;
  private readonly recent: FrameFeatures[] = [];

  constructor(rate: Rate) {
    this.reach = Math.max(1, Math.round(CHANGE_SECONDS * framesPerSecond(rate)));
  }

  /**
   * Measures the frames that follow.
   *
   * @param speech probability of speech in each, 0 to 255
   */
  measure(features: readonly FrameFeatures[], speech: Uint8Array): Activity {
    const [light, contrast, change] = [0, 1, 2].map(() => new Uint8Array(features.length)) as [
      Uint8Array,
      Uint8Array,
      Uint8Array,
    ];
    features.forEach((feature, i) => {
      const { mean, deviation } = lumaStatistics(feature);
      light[i] = byte(mean);
      contrast[i] = byte(deviation / CONTRAST_UNIT);
      this.recent.push(feature);
      if (this.recent.length > this.reach + 1) this.recent.shift();
      change[i] = byte(changeBetween(this.recent[0]!, feature) / CHANGE_UNIT);
    });
    return { light, contrast, change, speech };
  }
}

/** Activity as stored: the four arrays one after the other. */
export function packActivity({ light, contrast, change, speech }: Activity): Uint8Array {
  const bytes = new Uint8Array(4 * light.length);
  [light, contrast, change, speech].forEach((part, i) => bytes.set(part, i * light.length));
  return bytes;
}

/** @throws Error if the block is not a whole number of frames */
export function unpackActivity(bytes: Uint8Array): Activity {
  if (bytes.length % 4 !== 0) throw new Error("packed activity is cut off");
  const frames = bytes.length / 4;
  const part = (i: number) => bytes.slice(i * frames, (i + 1) * frames);
  return { light: part(0), contrast: part(1), change: part(2), speech: part(3) };
}

/** Activity of a part of a range. */
export const partOfActivity = (activity: Activity, { start, end }: FrameRange): Activity => ({
  light: activity.light.slice(start, end),
  contrast: activity.contrast.slice(start, end),
  change: activity.change.slice(start, end),
  speech: activity.speech.slice(start, end),
});

/** A frame that has not been analysed does not count as idle. */
const UNKNOWN = 255;

/**
 * Activity of a whole film from that of its known ranges.
 * @param frames length of the film
 */
export function joinActivity(parts: readonly (Activity & { start: number })[], frames: number): Activity {
  const joined = (field: keyof Activity) => {
    const bytes = new Uint8Array(frames).fill(UNKNOWN);
    for (const part of parts) bytes.set(part[field].subarray(0, Math.max(0, frames - part.start)), part.start);
    return bytes;
  };
  return { light: joined("light"), contrast: joined("contrast"), change: joined("change"), speech: joined("speech") };
}
