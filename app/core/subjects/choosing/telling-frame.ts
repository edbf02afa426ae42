import { boxArea } from "../../geometry/box";
import type { CropWindow } from "../../geometry/crop-window";
import type { FrameRange } from "../../time/rate";
import { boxAt, type Track } from "../tracking/track";

/**
 * The frame that says most about a shot: where its subject is largest, well inside the window, and the nearer to the
 * middle of the shot the better; the middle where there is no subject.
 *
 * @param windows one for each frame of the shot
 */
export function tellingFrame(
  { start, end }: FrameRange,
  subject: Track | null,
  windows: readonly CropWindow[],
): number {
  const middle = Math.floor((start + end) / 2);
  if (!subject) return middle;
  let best = middle;
  let bestValue = 0;
  for (let frame = start; frame < end; frame++) {
    const box = boxAt(subject, frame);
    const window = windows[frame - start];
    if (!box || !window) continue;
    const early = Math.abs(frame - middle) / (end - start);
    const beside = Math.abs(box.x + box.width / 2 - window.x) / window.height;
    const value = boxArea(box) * (1 - early) * Math.max(0, 1 - 3 * beside);
    if (value <= bestValue) continue;
    bestValue = value;
    best = frame;
  }
  return best;
}
