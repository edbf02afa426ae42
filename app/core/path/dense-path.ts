/** One coordinate of a solved path, frame by frame, with the bounds of its keys, in pixels. */
export interface DenseValue {
  at: Float64Array;
  low: Float64Array;
  high: Float64Array;
}

/** A solved path: a window for every frame of a shot. */
export type DensePath = Record<"x" | "y" | "height", DenseValue>;

/** A place on or beside the path, at one of its frames. */
export type PathPoint = { frame: number } & Record<keyof DensePath, number>;
export const VALUES = ["x", "y", "height"] as const;

export const pointOf = (path: DensePath, frame: number): PathPoint => ({
  frame,
  x: path.x.at[frame]!,
  y: path.y.at[frame]!,
  height: path.height.at[frame]!,
});

/** How closely a segment between two points reproduces the path; null if it leads out of bounds. */
export function errorOf(path: DensePath, start: PathPoint, end: PathPoint, way: (t: number) => number): number | null {
  let largest = 0;
  const frames = end.frame - start.frame;
  for (const value of VALUES) {
    const { at, low, high } = path[value];
    const from = start[value];
    const distance = end[value] - from;
    for (let k = 1; k < frames; k++) {
      const led = from + distance * way(k / frames);
      const frame = start.frame + k;
      if (led < low[frame]! || led > high[frame]!) return null;
      largest = Math.max(largest, Math.abs(at[frame]! - led));
    }
  }
  return largest;
}
