/** The direction in which somebody looks, from the place of the nose between the eyes. */
import type { FrameRange } from "../../time/rate";
import type { Landmarks } from "./detection";

/** How far somebody faces to a side at a frame: the sine of the head's turn, positive to the right of the picture. */
export interface Facing {
  frame: number;
  side: number;
}

/**
 * Protrusion of the nose in front of the eyes, relative to their distance, in a face of average proportions (30 mm to 64
 * mm). When the head turns by an angle, the nose moves by this times its sine, and the eyes appear closer by its cosine.
 */
const NOSE = 0.47;

/** Turn of a head to a side, from −1 to 1; the axis of a tilted head is taken into account. */
export function facingOf({ rightEye, leftEye, nose }: Landmarks): number {
  const [dx, dy] = [leftEye.x - rightEye.x, leftEye.y - rightEye.y];
  const distance = Math.hypot(dx, dy);
  if (distance === 0) return 0;
  const [mx, my] = [(leftEye.x + rightEye.x) / 2, (leftEye.y + rightEye.y) / 2];
  const offset = ((nose.x - mx) * dx + (nose.y - my) * dy) / (distance * distance);
  return offset / Math.hypot(offset, NOSE);
}

/** Mean of the sightings within some frames on each side, for every frame of a shot; NaN where there were none. */
export function facingThrough(seen: readonly Facing[], shot: FrameRange, reach: number): Float64Array {
  const out = new Float64Array(shot.end - shot.start).fill(Number.NaN);
  let [first, next, sum] = [0, 0, 0];
  for (let frame = shot.start; frame < shot.end; frame++) {
    while (next < seen.length && seen[next]!.frame <= frame + reach) sum += seen[next++]!.side;
    while (first < next && seen[first]!.frame < frame - reach) sum -= seen[first++]!.side;
    if (next > first) out[frame - shot.start] = sum / (next - first);
  }
  return out;
}
