/**
 * How well a shot fits frames of other aspect ratios: how much of its subject stays inside, and how far the window moves.
 */
import { FILL } from "../composition/layout";
import { boxArea, intersectionArea, type Size } from "../geometry/box";
import { aspectRatio, type CropWindow, windowBox } from "../geometry/crop-window";
import type { ShotFraming } from "../path/shot-framing";
import { followedTrack, frameShot } from "../path/solve-version";
import { boxAt } from "../subjects/tracking/track";
import { framesOf, type Rate } from "../time/rate";

export interface ShapeFit {
  /** Mean share of the subject inside the window where it is seen; null where nobody is followed. */
  inside: number | null;
  /** Length of the path of the window's centre over the shot, in widths of the window. */
  travel: number;
  /** The frame with the smallest share inside, and the window there. */
  frame: number;
  window: CropWindow;
}

/**
 * How a shot fits a frame that the window fills, with the same settings but without the editor's keys, which were placed
 * for another aspect ratio.
 * @param size of the frame
 */
export function shapeFit(framing: ShotFraming, picture: Size, size: Size, rate: Rate): ShapeFit {
  const { range } = framing;
  const filled = { ...framing, others: [], handKeys: [], settings: { ...framing.settings, layout: FILL } };
  const framed = frameShot(filled, picture, size, rate);
  const { windows } = framed;
  const aspect = aspectRatio(size);
  const track = followedTrack(framed, framing.tracks);
  let sum = 0;
  let seen = 0;
  let worst = { share: Infinity, frame: range.start };
  for (const frame of framesOf(range)) {
    const box = track && boxAt(track, frame);
    if (!box) continue;
    const share = intersectionArea(box, windowBox(windows[frame - range.start]!, aspect)) / boxArea(box);
    sum += share;
    seen++;
    if (share < worst.share) worst = { share, frame };
  }
  const travel = windows.slice(1).reduce((way, { x, y, height }, i) => {
    const before = windows[i]!;
    return way + Math.hypot(x - before.x, y - before.y) / (height * aspect);
  }, 0);
  const window = windows[worst.frame - range.start]!;
  return { inside: seen > 0 ? sum / seen : null, travel, frame: worst.frame, window };
}
