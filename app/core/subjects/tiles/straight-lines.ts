/** Straight lines in a picture, exactly upright or level, on which there are edges that stay where they are. */
import type { GreyPlane } from "../../image/grey-plane";

/** Pictures in which a line has to be where it is, and in how many of them it has to show. */
export const LINE_PICTURES = 4;
const NEEDED = LINE_PICTURES - 1;
/** A bit for each of the pictures. */
const ALL_PICTURES = (1 << LINE_PICTURES) - 1;
/** In how many of the pictures there was an edge, by their bits, and 1 if that is enough. */
const TIMES = Uint8Array.from({ length: ALL_PICTURES + 1 }, (_, seen) => [...seen.toString(2)].filter(Number).length);
const STAYS = TIMES.map((times) => Number(times >= NEEDED));
/** Change of luma over two samples that is an edge, if none so many samples beside it is stronger. */
export const LEAST_STEP = 6;
const ALONE = 2;
/** Share of a side at which there is an edge: more, where there are edges everywhere. */
const COVERED = 0.25;
const CROWDED = 1.3;
/** Lines one way that are looked at further, the clearest first. */
const MOST_LINES = 16;
/** Least side of a rectangle, as a share of the picture's. */
export const LEAST_SIDE = 0.12;
/** A clear line has edges, beyond what is usual, along this share of the least side. */
const CLEAR_SHARE = 0.4;
/** The first line that can be a side: what is nearer to the border is the border. */
const FIRST_LINE = 2;
/** Samples within which two lines are one. */
export const SAME_LINE = 2;

/** A plane along one way: lines beside each other, and how far it is in it from one to the next, and along each. */
export interface Way {
  lines: number;
  length: number;
  across: number;
  along: number;
}

/** A line between samples, with how many edges are on it up to each place along it. */
export interface Line {
  /** The place between samples, or the picture's border. */
  at: number;
  isBorder: boolean;
  upTo: Uint16Array;
}

/** The lines one way on which edges stay, and the picture's borders. */
export interface Lines {
  lines: Line[];
  /** The share of a side at which there has to be an edge. */
  covered: number;
  /** The share of the edges that stay. */
  staying: number;
}

/** 1 for each sample across which luma changes, and more than beside it. */
function edgesOf({ samples, width, height }: GreyPlane, { across }: Way): Uint8Array {
  const steps = new Uint8Array(samples.length);
  for (let at = across; at < samples.length - across; at++)
    steps[at] = Math.abs(samples[at + across]! - samples[at - across]!);
  const edges = new Uint8Array(samples.length);
  const [left, top] = across === 1 ? [ALONE, 0] : [0, ALONE];
  const reach = ALONE * across;
  for (let y = top; y < height - top; y++) {
    for (let x = left, at = y * width + x; x < width - left; x++, at++) {
      const step = steps[at]!;
      if (step < LEAST_STEP) continue;
      const isAlone =
        steps[at - across]! <= step &&
        steps[at + across]! <= step &&
        steps[at - reach]! <= step &&
        steps[at + reach]! <= step;
      if (isAlone) edges[at] = 1;
    }
  }
  return edges;
}

/** The most by which edges outweigh gaps in any stretch of a line (Kadane's algorithm). */
function weightOf(upTo: Uint16Array, covered: number): number {
  let most = 0;
  let here = 0;
  for (let i = 1; i < upTo.length; i++) {
    here = Math.max(0, here + upTo[i]! - upTo[i - 1]! - covered);
    most = Math.max(most, here);
  }
  return most;
}

/** Finds lines one way in pictures of one size that are given one after the other. */
export class LineFinder {
  /** In which of the last pictures there was an edge at each sample: a bit for each. */
  private readonly seen: Uint8Array;

  constructor(readonly way: Way) {
    this.seen = new Uint8Array(way.lines * way.length);
  }

  /** Takes the next picture. */
  see(luma: GreyPlane): void {
    const { seen } = this;
    const { across } = this.way;
    const edges = edgesOf(luma, this.way);
    // What lies between two samples is at either.
    for (let at = 0; at < edges.length - across; at++)
      seen[at] = ((seen[at]! << 1) | edges[at]! | edges[at + across]!) & ALL_PICTURES;
  }

  /** How many edges stay on a line up to each place along it. */
  private upTo(line: number): Uint16Array {
    const { length, across, along } = this.way;
    const upTo = new Uint16Array(length + 1);
    for (let i = 0, at = line * across; i < length; i++, at += along) upTo[i + 1] = upTo[i]! + STAYS[this.seen[at]!]!;
    return upTo;
  }

  /** The clearest lines in the last `LINE_PICTURES` pictures. */
  clearest(): Lines {
    const { seen } = this;
    const { lines, length, across, along } = this.way;
    const least = CLEAR_SHARE * Math.round(LEAST_SIDE * length);
    const found: Line[] = [];
    let all = 0;
    let ever = 0;
    for (let line = FIRST_LINE; line < lines - FIRST_LINE - 1; line++) {
      let staying = 0;
      for (let i = 0, at = line * across; i < length; i++, at += along) {
        const pictures = seen[at]!;
        ever += TIMES[pictures]!;
        staying += STAYS[pictures]!;
      }
      all += staying;
      if (staying >= least) found.push({ at: line + 1, isBorder: false, upTo: this.upTo(line) });
    }
    const covered = COVERED + (CROWDED * all) / (length * (lines - 2 * FIRST_LINE - 1));
    const clear = found
      .map((line) => ({ ...line, weight: weightOf(line.upTo, covered) }))
      .filter(({ weight }) => weight >= (1 - covered) * least)
      .sort((a, b) => b.weight - a.weight);
    const kept: Line[] = [];
    for (const line of clear) {
      const isNew = kept.every((other) => Math.abs(other.at - line.at) > SAME_LINE);
      if (kept.length < MOST_LINES && isNew) kept.push(line);
    }
    const border = (at: number): Line => ({ at, isBorder: true, upTo: new Uint16Array(0) });
    const inOrder = [border(0), ...kept, border(lines)].sort((a, b) => a.at - b.at);
    return { lines: inOrder, covered, staying: (LINE_PICTURES * all) / Math.max(1, ever) };
  }
}
