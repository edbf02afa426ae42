import { type Box, boxCentre, clipBox, mixBoxes, type Size } from "../geometry/box";
import type { FrameRange } from "../time/rate";
import type { Tracklet } from "./associate";
import type { Track } from "./track";

export interface FillRules {
  /** Gaps up to this many frames are bridged; over a longer one the thing counts as not seen. */
  bridgeFrames: number;
  /** Frames between looks: beyond the first and last sighting a track goes on for up to this many. */
  lookInterval: number;
  /** Standard deviation, in frames, of the smoothing of places and of sizes. */
  placeSigma: number;
  sizeSigma: number;
}

/** A box for every frame between sightings, by linear interpolation; null in gaps too long to bridge. */
function interpolate(tracklet: Tracklet, start: number, end: number, rules: FillRules): (Box | null)[] {
  const boxes: (Box | null)[] = new Array<Box | null>(end - start).fill(null);
  const { sightings } = tracklet;
  sightings.forEach(({ frame, detection }, i) => {
    boxes[frame - start] = detection.box;
    const next = sightings[i + 1];
    if (!next || next.frame - frame > rules.bridgeFrames) return;
    for (let k = frame + 1; k < next.frame; k++) {
      boxes[k - start] = mixBoxes(detection.box, next.detection.box, (k - frame) / (next.frame - frame));
    }
  });
  return boxes;
}

/** Continues the movement of the outermost sightings to frames that nobody looked at. */
function extrapolate(boxes: (Box | null)[], start: number, tracklet: Tracklet): void {
  const { sightings } = tracklet;
  const extend = (from: number, towards: number, edge: number, inner: number) => {
    const outermost = sightings[edge]!;
    const neighbour = sightings[inner];
    for (let k = from; k !== towards; k += Math.sign(towards - from)) {
      const box = outermost.detection.box;
      if (!neighbour) boxes[k - start] = box;
      else {
        const t = (k - outermost.frame) / (neighbour.frame - outermost.frame);
        const a = boxCentre(box);
        const b = boxCentre(neighbour.detection.box);
        boxes[k - start] = { ...box, x: box.x + (b.x - a.x) * t, y: box.y + (b.y - a.y) * t };
      }
    }
  };
  extend(sightings[0]!.frame - 1, start - 1, 0, 1);
  extend(sightings.at(-1)!.frame + 1, start + boxes.length, sightings.length - 1, sightings.length - 2);
}

/**
 * Local linear regression with Gaussian weights, over the seen frames only. Unlike a moving average it has no
 * lag at the ends of a track and does not cut the corners of a steady movement (Cleveland 1979, without the
 * robustness iterations).
 */
export function smoothSeries(values: (number | null)[], sigma: number): (number | null)[] {
  const reach = Math.ceil(sigma * 3);
  return values.map((value, i) => {
    if (value === null) return null;
    let w = 0;
    let wx = 0;
    let wxx = 0;
    let wy = 0;
    let wxy = 0;
    for (let k = Math.max(0, i - reach); k <= Math.min(values.length - 1, i + reach); k++) {
      const y = values[k];
      if (y === null || y === undefined) continue;
      const x = k - i;
      const weight = Math.exp(-0.5 * (x / sigma) ** 2);
      w += weight;
      wx += weight * x;
      wxx += weight * x * x;
      wy += weight * y;
      wxy += weight * x * y;
    }
    const determinant = w * wxx - wx * wx;
    return determinant > 1e-9 * w * wxx ? (wxx * wy - wx * wxy) / determinant : wy / w;
  });
}

/** Smooths centres and sizes of a row of boxes apart; gaps stay gaps. */
export function smoothBoxes(boxes: (Box | null)[], placeSigma: number, sizeSigma: number): (Box | null)[] {
  const series = (pick: (box: Box) => number, sigma: number) =>
    smoothSeries(
      boxes.map((box) => (box ? pick(box) : null)),
      sigma,
    );
  const xs = series((box) => box.x + box.width / 2, placeSigma);
  const ys = series((box) => box.y + box.height / 2, placeSigma);
  const widths = series((box) => box.width, sizeSigma);
  const heights = series((box) => box.height, sizeSigma);
  return boxes.map((box, i) =>
    box ? { x: xs[i]! - widths[i]! / 2, y: ys[i]! - heights[i]! / 2, width: widths[i]!, height: heights[i]! } : null,
  );
}

/** Makes a track with a box for every frame from a tracklet's sightings, within its shot and the picture. */
export function fillTrack(tracklet: Tracklet, id: string, shot: FrameRange, picture: Size, rules: FillRules): Track {
  const first = tracklet.sightings[0]!.frame;
  const last = tracklet.sightings.at(-1)!.frame;
  const start = Math.max(shot.start, first - rules.lookInterval + 1);
  const end = Math.min(shot.end, last + rules.lookInterval);
  const boxes = interpolate(tracklet, start, end, rules);
  extrapolate(boxes, start, tracklet);
  const smooth = smoothBoxes(boxes, rules.placeSigma, rules.sizeSigma).map((box) => {
    const clipped = box && clipBox(box, picture);
    return clipped && clipped.width >= 1 && clipped.height >= 1 ? clipped : null;
  });
  const scores = tracklet.sightings.map((sighting) => sighting.detection.score);
  const label = tracklet.sightings.find((sighting) => sighting.detection.label)?.detection.label;
  return {
    id,
    kind: tracklet.kind,
    start,
    boxes: smooth,
    confidence: scores.reduce((a, b) => a + b, 0) / scores.length,
    ...(label ? { label } : {}),
  };
}
