import { boxArea } from "../geometry/box";
import type { FrameRange } from "../time/rate";
import { boxAt, type Track } from "./track";

/**
 * The frame that says most about a shot: where its subject is largest, the nearer to the middle the better; the
 * middle where there is no subject.
 */
export function tellingFrame({ start, end }: FrameRange, subject: Track | null): number {
  const middle = Math.floor((start + end) / 2);
  if (!subject) return middle;
  let best = middle;
  let bestValue = 0;
  for (let frame = start; frame < end; frame++) {
    const box = boxAt(subject, frame);
    const aside = Math.abs(frame - middle) / (end - start);
    const value = box ? boxArea(box) * (1 - aside) : 0;
    if (value <= bestValue) continue;
    bestValue = value;
    best = frame;
  }
  return best;
}
