import type { ShownAt } from "../../composition/composition";
import { boxArea, boxCentre } from "../../geometry/box";
import type { FrameRange } from "../../time/rate";
import { boxAt, type Track } from "../tracking/track";

/**
 * The frame that says most about a shot: where its subject is largest, in the middle of what is shown of it, and the
 * nearer to the middle of the shot the better; the middle where there is no subject.
 *
 * @param shown what is shown at each frame of the shot
 */
export function tellingFrame({ start, end }: FrameRange, subject: Track | null, shown: ShownAt): number {
  const middle = Math.floor((start + end) / 2);
  if (!subject) return middle;
  let best = middle;
  let bestValue = 0;
  for (let frame = start; frame < end; frame++) {
    const box = boxAt(subject, frame);
    if (!box) continue;
    const early = Math.abs(frame - middle) / (end - start);
    const beside = shown(frame).panes.reduce(
      (least, { source }) => Math.min(least, Math.abs(boxCentre(box).x - boxCentre(source).x) / source.height),
      Infinity,
    );
    const value = boxArea(box) * (1 - early) * Math.max(0, 1 - 3 * beside);
    if (value <= bestValue) continue;
    bestValue = value;
    best = frame;
  }
  return best;
}
