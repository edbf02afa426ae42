/** Paths that anybody could lay in a minute, to compare with: one coordinate, a place for every frame. */
import type { PathCase } from "./cases";
import { boxAt } from "~/core/subjects/tracking/track";

/** The subject's middle, held while it is not seen. */
export function subjectMiddles({ shot, subject, picture }: PathCase): Float64Array {
  const middles = new Float64Array(shot.end - shot.start).fill(Number.NaN);
  for (let i = 0; i < middles.length; i++) {
    const box = boxAt(subject.track, shot.start + i);
    middles[i] = box ? box.x + box.width / 2 : (middles[i - 1] ?? Number.NaN);
  }
  const first = middles.find((value) => !Number.isNaN(value)) ?? picture.width / 2;
  return middles.map((value) => (Number.isNaN(value) ? first : value));
}

export function movingAverage(values: Float64Array, frames: number): Float64Array {
  const half = Math.floor(frames / 2);
  return values.map((_, i) => {
    const from = Math.max(0, i - half);
    const to = Math.min(values.length, i + half + 1);
    return values.subarray(from, to).reduce((sum, value) => sum + value, 0) / (to - from);
  });
}
