/** Straight lines in a picture, exactly vertical or horizontal, with edges that stay in place. */
import type { GreyPlane } from "../../image/grey-plane";
import { KernelMemory, loops } from "../../kernel/kernel";

/** Pictures over which a line has to stay, and the number of them in which it has to show. */
export const LINE_PICTURES = 4;
const NEEDED = LINE_PICTURES - 1;
/** One bit for each of the pictures. */
const ALL_PICTURES = (1 << LINE_PICTURES) - 1;
/** 1 if there was an edge in enough of the pictures, by their bits. */
const STAYS = Uint8Array.from({ length: ALL_PICTURES + 1 }, (_, seen) =>
  Number([...seen.toString(2)].filter(Number).length >= NEEDED),
);
/** Change of luma over two samples that is an edge, if no neighbour is stronger. */
export const LEAST_STEP = 6;
/** Share of a side that must have edges: more where there are edges everywhere. */
const COVERED = 0.25;
const CROWDED = 1.3;
/** Most lines in one direction that are examined, the clearest first. */
const MOST_LINES = 16;
/** Least side of a rectangle, as a share of the picture's. */
export const LEAST_SIDE = 0.12;
/** A clear line exceeds the usual number of edges along this share of the least side. */
const CLEAR_SHARE = 0.4;
/** First line that can be a side: closer to the border it is the border. */
const FIRST_LINE = 2;
/** Samples within which two lines are one. */
export const SAME_LINE = 2;

/** A plane in one direction: number of lines, and strides between lines and along them. */
export interface Way {
  lines: number;
  length: number;
  across: number;
  along: number;
}

/** A line between samples, with the number of edges up to each place along it. */
export interface Line {
  /** Its position between samples, or the picture's border. */
  at: number;
  isBorder: boolean;
  upTo: Uint16Array;
}

/** The lines in one direction with steady edges, and the picture's borders. */
export interface Lines {
  lines: Line[];
  /** The share of a side that must have edges. */
  covered: number;
  /** The share of the edges that stay. */
  staying: number;
}

/** The greatest excess of edges over gaps in any part of a line (Kadane's algorithm). */
function weightOf(upTo: Uint16Array, covered: number): number {
  let most = 0;
  let here = 0;
  for (let i = 1; i < upTo.length; i++) {
    here = Math.max(0, here + upTo[i]! - upTo[i - 1]! - covered);
    most = Math.max(most, here);
  }
  return most;
}

/** Finds lines in one direction in consecutive pictures of one size. */
export class LineFinder {
  /** In which of the last pictures there was an edge at each sample, one bit each. */
  private readonly seen: Uint8Array;

  constructor(readonly way: Way) {
    this.seen = new Uint8Array(way.lines * way.length);
  }

  /** Takes the next picture. */
  see({ samples, width, height }: GreyPlane): void {
    const memory = new KernelMemory();
    const { length } = samples;
    const [luma, seen] = [memory.put(samples), memory.put(this.seen)];
    const [steps, edges] = [memory.take(length), memory.take(length)];
    loops().seeLines(luma, seen, steps, edges, width, height, this.way.across, LEAST_STEP, ALL_PICTURES);
    this.seen.set(memory.bytes(seen, length));
  }

  /** For each line, the number of samples with steady edges, and the number with any edge, summed over the pictures. */
  private counted(): { staying: Int32Array; ever: Int32Array } {
    const { lines, length, across, along } = this.way;
    const memory = new KernelMemory();
    const seen = memory.put(this.seen);
    const [staying, ever] = [memory.take(4 * lines), memory.take(4 * lines)];
    loops().countLines(seen, lines, length, across, along, NEEDED, staying, ever);
    return { staying: memory.ints(staying, lines), ever: memory.ints(ever, lines) };
  }

  /** Number of steady edges on a line up to each place along it. */
  private upTo(line: number): Uint16Array {
    const { length, across, along } = this.way;
    const upTo = new Uint16Array(length + 1);
    for (let i = 0, at = line * across; i < length; i++, at += along) upTo[i + 1] = upTo[i]! + STAYS[this.seen[at]!]!;
    return upTo;
  }

  /** The clearest lines in the last `LINE_PICTURES` pictures. */
  clearest(): Lines {
    const { lines, length } = this.way;
    const counted = this.counted();
    const least = CLEAR_SHARE * Math.round(LEAST_SIDE * length);
    const found: Line[] = [];
    let all = 0;
    let ever = 0;
    for (let line = FIRST_LINE; line < lines - FIRST_LINE - 1; line++) {
      const staying = counted.staying[line]!;
      ever += counted.ever[line]!;
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
