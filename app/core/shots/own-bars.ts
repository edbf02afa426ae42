/**
 * Detects a film's own letterbox or pillarbox: the plain edges of a picture that was fitted into a frame of another aspect
 * ratio. Evidence from several frames: at the edge the picture has one level; that ends in a straight line; there is such
 * an edge on the opposite side as well; and what lies between is most of the frame. Dark pictures lack the straight line,
 * titles on black are too small, and a logo or a subtitle in a bar leaves most of it plain.
 */
import { median } from "../numbers/median";
import type { Box, Size } from "../geometry/box";
import { KernelMemory, loops } from "../kernel/kernel";

/** A frame's luma as means along its rows and columns, `SEGMENTS` of each. */
export interface EdgeProfile {
  /** Mean of each segment of each row, from the top; segments from the left. */
  rows: Float32Array;
  /** Mean of each segment of each column, from the left; segments from the top. */
  columns: Float32Array;
}

export const SEGMENTS = 32;
/** Luma above which a segment is lit, and no bar. */
const LIT = 6;
/** Share of the level inside above which a line is no longer the soft end of a bar. */
const NEARLY = 0.9;
/** Share of the frames in which a segment must be lit to count; compression flickers. */
const LIT_SHARE = 0.1;
/** Widest soft edge: in pixels, and as a share of the frame's side. */
const SOFT = { least: 3, share: 0.006 };
/** Share of the segments that must end on one line, for a whole film and for a single shot, which has less evidence. */
export const ALIGNED_SHARE = { film: 0.4, shot: 0.7 };
/** The same for a bar that is not black: a bright sky or a wall is plain as well and may end in a straight line. */
const ALIGNED_SHARE_BRIGHT = 0.85;
/** Luma of the brightest black. */
const BLACK = 32;
/** Least share of the frame's sides between bars on all sides: less is a thing on a plain ground. */
const LEAST_BETWEEN = 0.6;
/** Share of a bar that must be plain where the frame is lit at all. */
const PLAIN_SHARE = 0.8;
/** Share of a frame's middle that must be lit for it to count. */
const FRAME_LIT_SHARE = 0.05;
/** Thickest bars: letterboxes and pillarboxes leave most of the frame. */
const MOST = { rows: 0.3, columns: 0.42 };
/** Thickness of a dark line at one edge alone: many films have one, and lose nothing by it. */
const LINE_SHARE = 0.02;
/** Largest difference between opposite bars, as a share of the longer one, or of the frame's side. */
const UNEQUAL = { ofLonger: 0.5, share: 0.01 };
/** Pixels left out beyond a bar, so that scaling and subsampled chroma bring in nothing of it. */
const GUARD = 2;

/** Starts of a line's segments, and the end of the last. */
const bordersOf = (length: number): Int32Array =>
  Int32Array.from({ length: SEGMENTS + 1 }, (_, s) => Math.ceil((s * length) / SEGMENTS));

/**
 * Computes a frame's profile.
 * @param luma its plane, which may be followed by others
 */
export function edgeProfile(luma: Uint8Array, { width, height }: Size): EdgeProfile {
  const memory = new KernelMemory();
  const plane = memory.put(luma.subarray(0, width * height));
  const [across, down] = [memory.put(bordersOf(width)), memory.put(bordersOf(height))];
  const [rows, columns] = [memory.take(4 * height * SEGMENTS), memory.take(4 * width * SEGMENTS)];
  loops().segmentMeans(plane, width, across, down, SEGMENTS, rows, columns, memory.take(4 * width));
  return {
    rows: memory.floats(rows, height * SEGMENTS).slice(),
    columns: memory.floats(columns, width * SEGMENTS).slice(),
  };
}

/** Segments of a line that are examined: those outside the bars of the other axis. */
type Segments = readonly number[];

/** Lines of segments from one edge of the frame inwards, over several frames. */
class Edge {
  private readonly level: number;
  /** Frames with enough lit to be evidence. */
  private readonly shown: number[];

  constructor(
    private readonly frames: readonly Float32Array[],
    private readonly length: number,
    private readonly segments: Segments,
    private readonly fromEnd: boolean,
  ) {
    this.level = median(frames.flatMap((_, f) => segments.map((s) => this.at(f, 0, s))));
    const [from, to] = [Math.floor(length / 3), Math.ceil((2 * length) / 3)];
    this.shown = frames.flatMap((_, f) => {
      let lit = 0;
      for (let line = from; line < to; line++) for (const s of segments) if (this.off(f, line, s) > LIT) lit++;
      return lit > FRAME_LIT_SHARE * (to - from) * segments.length ? [f] : [];
    });
  }

  /** Mean of a segment of the line at a depth from the edge. */
  private at(frame: number, depth: number, segment: number): number {
    const line = this.fromEnd ? this.length - 1 - depth : depth;
    return this.frames[frame]![line * SEGMENTS + segment]!;
  }

  private off(frame: number, depth: number, segment: number): number {
    return Math.abs(this.at(frame, depth, segment) - this.level);
  }

  /** Depth at which a segment is first lit in enough frames; `end` if it is not before. */
  private depthOf(segment: number, end: number): number {
    const enough = Math.max(1, LIT_SHARE * this.frames.length);
    for (let depth = 0; depth < end; depth++) {
      const lit = this.frames.filter((_, f) => this.off(f, depth, segment) > LIT).length;
      if (lit >= enough) return depth;
    }
    return end;
  }

  /** Share of the lines up to a depth that is plain, in frames that show anything. */
  private plainShare(depth: number): number {
    let plain = 0;
    for (const f of this.shown)
      for (let at = 0; at < depth; at++) for (const s of this.segments) if (this.off(f, at, s) <= LIT) plain++;
    return plain / (this.shown.length * depth * this.segments.length);
  }

  /** Lines of a soft edge from a depth on, until it is nearly as lit as farther inside. */
  private softness(depth: number, aligned: Segments, most: number): number {
    const lit = (at: number) =>
      this.shown.reduce((sum, f) => sum + aligned.reduce((all, s) => all + this.off(f, at, s), 0), 0);
    const inside = lit(depth + most + 1);
    for (let more = 0; more < most; more++) if (lit(depth + more) >= NEARLY * inside) return more;
    return most;
  }

  /** Thickness of the bar at this edge, with its soft end; 0 if there is none. */
  bar(most: number, alignedShare: number): number {
    if (this.shown.length === 0) return 0;
    const soft = Math.max(SOFT.least, Math.round(SOFT.share * this.length));
    const depths = this.segments.map((segment) => ({ segment, depth: this.depthOf(segment, most + soft + 1) }));
    let [best, aligned]: [number, number[]] = [0, []];
    for (const { depth } of depths) {
      if (depth === 0 || depth > most) continue;
      const near = depths.filter((other) => other.depth >= depth && other.depth <= depth + soft);
      if (near.length > aligned.length) [best, aligned] = [depth, near.map(({ segment }) => segment)];
    }
    const needed = this.level > BLACK ? Math.max(alignedShare, ALIGNED_SHARE_BRIGHT) : alignedShare;
    const isStraight = aligned.length >= needed * this.segments.length;
    return isStraight && this.plainShare(best) >= PLAIN_SHARE ? best + this.softness(best, aligned, soft) : 0;
  }
}

/** Thickness of the bars at both ends of one axis; none where they do not match. */
function pair(
  frames: readonly Float32Array[],
  lines: number,
  segments: Segments,
  most: number,
  alignedShare: number,
): [number, number] {
  const limit = Math.floor(most * lines);
  const bar = (fromEnd: boolean) => new Edge(frames, lines, segments, fromEnd).bar(limit, alignedShare);
  const [a, b] = [bar(false), bar(true)];
  const line = LINE_SHARE * lines;
  if (Math.max(a, b) <= line) return [a, b];
  return Math.abs(a - b) <= Math.max(UNEQUAL.ofLonger * Math.max(a, b), UNEQUAL.share * lines) ? [a, b] : [0, 0];
}

/** Segments outside the bars at both ends of a line. */
function segmentsBetween([first, last]: [number, number], length: number): number[] {
  const all = Array.from({ length: SEGMENTS }, (_, s) => s);
  const between = all.filter((s) => s * length >= first * SEGMENTS && (s + 1) * length <= (length - last) * SEGMENTS);
  return between.length > 0 ? between : all;
}

/** A bar with the guard inside it; an edge without a bar stays. */
const guarded = (bar: number): number => (bar === 0 ? 0 : bar + GUARD);

/**
 * The part of a frame inside its own bars, from some frames of a film or a shot.
 * @param profiles of frames of the given size, some seconds apart where there are many
 * @returns null where there are no bars, or the frames show too little to decide
 */
export function activeAreaOf(
  profiles: readonly EdgeProfile[],
  { width, height }: Size,
  alignedShare = ALIGNED_SHARE.film,
): Box | null {
  if (profiles.length === 0) return null;
  const rows = profiles.map((profile) => profile.rows);
  const columns = profiles.map((profile) => profile.columns);
  const across = (upDown: [number, number]) =>
    pair(columns, width, segmentsBetween(upDown, height), MOST.columns, alignedShare);
  const upAndDown = (sides: [number, number]) =>
    pair(rows, height, segmentsBetween(sides, width), MOST.rows, alignedShare);
  // With bars on all sides, each pair is measured best between the others.
  const sides = across(upAndDown(across([0, 0])));
  const [left, right] = sides.map(guarded) as [number, number];
  const [top, bottom] = upAndDown(sides).map(guarded) as [number, number];
  if (left + right + top + bottom === 0) return null;
  const isOnAllSides = left + right > 2 * LINE_SHARE * width && top + bottom > 2 * LINE_SHARE * height;
  const least = Math.min((width - left - right) / width, (height - top - bottom) / height);
  if (isOnAllSides && least < LEAST_BETWEEN) return null;
  return { x: left, y: top, width: width - left - right, height: height - top - bottom };
}
