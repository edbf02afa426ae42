import { type Box, boxCentre, driftBox, mixBoxes, type Size, visiblePart } from "../../geometry/box";
import { mean } from "../../numbers/mean";
import type { FrameRange } from "../../time/rate";
import { propagatedTo, type Tracklet } from "./associate";
import type { Detection } from "../detecting/detection";
import { meanSignature } from "../detecting/signature";
import type { Track } from "./track";

export interface FillRules {
  /** Longest gap in frames that is bridged; over a longer one the thing counts as not seen. */
  bridgeFrames: number;
  /** Frames between detections: a track is extended by up to this many before its first and after its last sighting. */
  detectionInterval: number;
  /** Frames after the last sighting for which the flow is trusted. */
  lingerFrames: number;
  /** Standard deviations, in frames, of the smoothing of places and of sizes. */
  placeSigma: number;
  sizeSigma: number;
}

/**
 * A box for every frame between sightings; null in gaps too long to bridge. The flow leads from one sighting to the next,
 * and its error at the end is distributed over the way.
 */
function interpolate(
  tracklet: Tracklet,
  start: number,
  end: number,
  shotEnd: number,
  rules: FillRules,
): (Box | null)[] {
  const boxes: (Box | null)[] = new Array<Box | null>(end - start).fill(null);
  const { sightings } = tracklet;
  sightings.forEach((sighting, i) => {
    const { frame, detection } = sighting;
    boxes[frame - start] = detection.box;
    const next = sightings[i + 1];
    if (!next || next.frame - frame > rules.bridgeFrames) {
      // Gone for long, or for good: the flow gives its last place.
      for (let k = frame + 1; k < Math.min(end, next?.frame ?? end); k++)
        boxes[k - start] = propagatedTo(sighting, k, shotEnd);
      return;
    }
    const arrived = propagatedTo(sighting, next.frame);
    for (let k = frame + 1; k < next.frame; k++) {
      const share = (k - frame) / (next.frame - frame);
      const led = arrived && propagatedTo(sighting, k);
      boxes[k - start] = led
        ? driftBox(led, arrived, next.detection.box, share)
        : mixBoxes(detection.box, next.detection.box, share);
    }
  });
  return boxes;
}

/** Continues the movement of the outermost sightings to frames without a look. */
function extrapolate(boxes: (Box | null)[], start: number, tracklet: Tracklet, reach: number): void {
  const { sightings } = tracklet;
  const extend = (from: number, towards: number, edge: number, inner: number) => {
    const outermost = sightings[edge]!;
    const neighbour = sightings[inner];
    for (let k = from; k !== towards; k += Math.sign(towards - from)) {
      if (boxes[k - start] || Math.abs(k - outermost.frame) > reach) continue;
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
 * Local linear regression with Gaussian weights, over the seen frames only. Unlike a moving average it has no lag at the
 * ends of a track and does not cut the corners of a steady movement (Cleveland 1979, without the robustness iterations).
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

/** Smooths centres and sizes of boxes separately; gaps stay gaps. */
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

/** Makes a track with a box for every frame from a tracklet's sightings, inside its shot and the picture. */
export function fillTrack(tracklet: Tracklet, id: string, shot: FrameRange, picture: Size, rules: FillRules): Track {
  const first = tracklet.sightings[0]!.frame;
  // A hand starts and stops too suddenly for extrapolation.
  const reach = isHeld(tracklet.sightings.map(({ detection }) => detection)) ? 1 : rules.detectionInterval;
  const start = Math.max(shot.start, first - reach + 1);
  const last = tracklet.sightings.at(-1)!;
  const propagatedFrames = (last.detection.propagated?.length ?? 0) * last.step;
  const end = Math.min(shot.end, last.frame + Math.max(reach, Math.min(propagatedFrames, rules.lingerFrames) + 1));
  const boxes = interpolate(tracklet, start, end, shot.end, rules);
  extrapolate(boxes, start, tracklet, reach);
  const smooth = smoothBoxes(boxes, rules.placeSigma, rules.sizeSigma).map((box) => box && visiblePart(box, picture));
  return {
    id,
    kind: tracklet.kind,
    start,
    boxes: smooth,
    ...appearanceOf(tracklet),
    ...(tracklet.kind === "face" ? { mouth: mouthOf(tracklet, start, end) } : {}),
  };
}

const isHeld = (seen: readonly Detection[]): boolean => seen.every(({ withArm }) => withArm);

/** What a thing is called most often; undefined where it mostly has no name. */
function usualLabel(detections: readonly Detection[]): string | undefined {
  const counts = new Map<string | undefined, number>();
  for (const { label } of detections) counts.set(label, (counts.get(label) ?? 0) + 1);
  return [...counts].sort(([, a], [, b]) => b - a)[0]?.[0];
}

/** Appearance of a thing, combined from a tracklet's sightings. */
function appearanceOf({
  sightings,
}: Tracklet): Pick<Track, "confidence" | "label" | "signature" | "sharpness" | "detailSide" | "held" | "facing"> {
  const detections = sightings.map(({ detection }) => detection);
  const label = usualLabel(detections);
  const signature = meanSignature(detections.flatMap((found) => (found.signature ? [found.signature] : [])));
  const sharpness = detections.flatMap((found) => found.sharpness ?? []);
  const detailSide = detections.flatMap((found) => found.detailSide ?? []);
  const facing = sightings.flatMap(({ frame, detection }) =>
    detection.facing === undefined ? [] : [{ frame, side: detection.facing }],
  );
  return {
    confidence: mean(detections.map(({ score }) => score)),
    ...(label ? { label } : {}),
    ...(signature ? { signature } : {}),
    ...(sharpness.length > 0 ? { sharpness: mean(sharpness) } : {}),
    ...(detailSide.length > 0 ? { detailSide: mean(detailSide) } : {}),
    ...(isHeld(detections) ? { held: true } : {}),
    ...(facing.length > 0 ? { facing } : {}),
  };
}

/** Movement of a face's mouth, frame by frame, in thousandths; null where it was not followed. */
function mouthOf({ sightings }: Tracklet, start: number, end: number): (number | null)[] {
  const movement = new Array<number | null>(end - start).fill(null);
  sightings.forEach(({ frame, step, detection }, i) => {
    const until = Math.min(end, sightings[i + 1]?.frame ?? end);
    detection.mouth?.forEach((value, k) => {
      const from = frame + k * step;
      for (let at = from + 1; at <= Math.min(from + step, until); at++) {
        if (at >= start && at < end) movement[at - start] = Math.round(1000 * value);
      }
    });
  });
  return movement;
}
