import type { Box, Size } from "../geometry/box";

/** How far a small frame's lines are plain from each edge, in its pixels: a hint of bars from one frame alone. */
export interface PlainEdges {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

/** Luma by which a pixel of a plain line may deviate. */
const OFF = 10;
/** Share of a line's pixels that must be plain: a logo or a subtitle may lie in a bar. */
const PLAIN_SHARE = 0.7;
/** Share of a side above which it is no bar, whatever it looks like. */
const MOST = 0.45;

const SIDES = ["left", "top", "right", "bottom"] as const;

/** Measures how far a frame is plain from each of its edges. */
export function plainEdges(luma: Uint8Array, { width, height }: Size): PlainEdges {
  const depthOf = (lines: number, length: number, at: (line: number, i: number) => number): number => {
    const level = Array.from({ length }, (_, i) => luma[at(0, i)]!).sort((a, b) => a - b)[length >> 1]!;
    const most = Math.floor(MOST * lines);
    for (let line = 0; line < most; line++) {
      let plain = 0;
      for (let i = 0; i < length; i++) if (Math.abs(luma[at(line, i)]! - level) <= OFF) plain++;
      if (plain < PLAIN_SHARE * length) return line;
    }
    return most;
  };
  return {
    left: depthOf(width, height, (line, i) => i * width + line),
    top: depthOf(height, width, (line, i) => line * width + i),
    right: depthOf(width, height, (line, i) => i * width + width - 1 - line),
    bottom: depthOf(height, width, (line, i) => (height - 1 - line) * width + i),
  };
}

/** Share of the frames in which an edge may be less plain: a fade from white, a flash. */
const EXCEPTIONS = 0.1;

/** How far the edges are plain in nearly all of several frames. */
export function commonEdges(frames: readonly PlainEdges[]): PlainEdges {
  const least = (side: keyof PlainEdges) => {
    const depths = frames.map((edges) => edges[side]).sort((a, b) => a - b);
    return depths[Math.floor(EXCEPTIONS * depths.length)] ?? 0;
  };
  return { left: least("left"), top: least("top"), right: least("right"), bottom: least("bottom") };
}

/** The edges of a small frame around an area of the picture. */
export function edgesAround(area: Box | null, picture: Size, scale: number): PlainEdges {
  if (!area) return { left: 0, top: 0, right: 0, bottom: 0 };
  return {
    left: area.x / scale,
    top: area.y / scale,
    right: (picture.width - area.x - area.width) / scale,
    bottom: (picture.height - area.y - area.height) / scale,
  };
}

/** Pixels of a small frame within which edges are equal. */
const SAME = 1.6;

export const sameEdges = (a: PlainEdges, b: PlainEdges): boolean =>
  SIDES.every((side) => Math.abs(a[side] - b[side]) <= SAME);

/** Whether the bars of some edges would cut the picture of a shot. */
export const reachesBeyond = (seen: PlainEdges, bars: PlainEdges): boolean =>
  SIDES.some((side) => bars[side] > 0 && seen[side] < bars[side] - SAME);

/** Whether a shot is plain along opposite edges beyond some bars: it may have bars of its own. */
export const plainBeyond = (seen: PlainEdges, bars: PlainEdges): boolean =>
  (seen.left > bars.left + SAME && seen.right > bars.right + SAME) ||
  (seen.top > bars.top + SAME && seen.bottom > bars.bottom + SAME);
