import { clamped } from "../../numbers/clamped";
import { filmPanes, type ShownAt } from "../../composition/composition";
import { boxArea, boxCentre } from "../../geometry/box";
import { type FrameRange, framesOf } from "../../time/rate";
import { boxAt, type Track } from "../tracking/track";

/**
 * The frame that represents a shot best: with its subject large, in the middle of what is shown of it, and close to the
 * middle of the shot; the middle where there is no subject.
 * @param parts the ranges of the shot to choose from, at least one
 * @param shown what is shown at each frame of them
 */
export function tellingFrame(parts: readonly FrameRange[], subject: Track | null, shown: ShownAt): number {
  const { start, end } = { start: parts[0]!.start, end: parts.at(-1)!.end };
  const centre = Math.floor((start + end) / 2);
  const nearest = (range: FrameRange) => clamped(centre, range.start, range.end - 1);
  const middle = parts.map(nearest).reduce((a, b) => (Math.abs(b - centre) < Math.abs(a - centre) ? b : a));
  if (!subject) return middle;
  let best = middle;
  let bestValue = 0;
  for (const frame of parts.flatMap(framesOf)) {
    const box = boxAt(subject, frame);
    if (!box) continue;
    const early = Math.abs(frame - centre) / (end - start);
    const beside = filmPanes(shown(frame)).reduce(
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
