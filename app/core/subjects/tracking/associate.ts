import { munkres } from "munkres";
import { boxCentre, boxIou, type Box, driftBox } from "../../geometry/box";
import type { FrameRange } from "../../time/rate";
import type { Detection, FrameDetections, TrackKind } from "../detecting/detection";
import { likeness } from "../detecting/signature";

/** A chain of detections of one thing, before gaps are filled. */
export interface Tracklet {
  kind: TrackKind;
  sightings: Sighting[];
}

export interface Sighting {
  frame: number;
  detection: Detection;
  /** Frames between propagated boxes of the detection. */
  step: number;
}

/**
 * Box of a thing by optical flow at a frame after a sighting; null where it was not propagated that far.
 * @param end first frame of the next shot: a box propagated to there is meaningless, and the last movement is continued
 */
export function propagatedTo({ frame: seenAt, detection, step }: Sighting, frame: number, end = Infinity): Box | null {
  const steps = (frame - seenAt) / step;
  if (steps < 0) return null;
  const at = (k: number): Box | null => (k === 0 ? detection.box : (detection.propagated?.[k - 1] ?? null));
  const whole = Math.floor(steps);
  const before = at(whole);
  if (!before || Number.isInteger(steps)) return before;
  const reaches = seenAt + (whole + 1) * step < end;
  const [from, to] = reaches ? [before, at(whole + 1)] : [at(Math.max(0, whole - 1)), before];
  if (!from || !to) return null;
  return driftBox(before, from, to, steps - whole);
}

export interface AssociationRules {
  /** Detections above start and extend tracklets; those below only extend (ByteTrack's second stage). */
  highScore: number;
  /** Frames without a sighting after which a tracklet has ended. */
  maxGapFrames: number;
  /** Search distance around its predicted place, in multiples of its own size. */
  reach: number;
}

/** Velocity is extrapolated for up to this multiple of the time over which it was measured. */
const MAX_DRIFT = 1.5;

const last = (tracklet: Tracklet) => tracklet.sightings.at(-1)!;

/** Predicted box of a tracklet at a frame: by the flow, or else by its recent velocity. */
function predict(tracklet: Tracklet, frame: number): { box: Box; propagated: boolean } {
  const now = last(tracklet);
  const propagated = propagatedTo(now, frame);
  if (propagated) return { box: propagated, propagated: true };
  const before = tracklet.sightings.at(-3) ?? tracklet.sightings.at(-2);
  const box = now.detection.box;
  if (!before) return { box, propagated: false };
  const elapsed = Math.min(frame - now.frame, MAX_DRIFT * (now.frame - before.frame));
  const span = now.frame - before.frame;
  const from = boxCentre(before.detection.box);
  const to = boxCentre(box);
  const [dx, dy] = [((to.x - from.x) / span) * elapsed, ((to.y - from.y) / span) * elapsed];
  return { box: { ...box, x: box.x + dx, y: box.y + dy }, propagated: false };
}

/** Difference in appearance of two sightings, 0 to 1; a medium value where it is unknown. */
export function unlikeness(a: Detection, b: Detection): number {
  return a.signature && b.signature ? 1 - likeness(a.signature, b.signature) : 0.3;
}

/** Whether a tracklet was last seen with one face, and a detection has another. */
export function hasOtherFace({ sightings }: Tracklet, { faceId }: Detection): boolean {
  if (!faceId) return false;
  const known = sightings.findLast(({ detection }) => detection.faceId)?.detection.faceId;
  return known !== undefined && known !== faceId;
}

/** Cost of identifying a detection with a predicted box: 0 for none, 1 for the most that is allowed. */
function mismatch(predicted: Box, tracklet: Tracklet, seen: Detection, reach: number): number {
  const { box } = seen;
  const size = Math.sqrt(predicted.width * predicted.height);
  const a = boxCentre(predicted);
  const b = boxCentre(box);
  const distance = Math.hypot(a.x - b.x, a.y - b.y) / (size * reach);
  const growth = Math.abs(Math.log((box.width * box.height) / (predicted.width * predicted.height))) / Math.log(6);
  const cost = 0.4 * distance + 0.2 * (1 - boxIou(predicted, box)) + 0.15 * growth;
  const allowed = distance <= 1 && growth <= 1 && !hasOtherFace(tracklet, seen);
  return cost + 0.5 * unlikeness(last(tracklet).detection, seen) + (allowed ? 0 : 10);
}

/** Pairs tracklets with detections at the least total cost (Hungarian method); returns the unmatched of both. */
function match(
  tracklets: Tracklet[],
  detections: Detection[],
  frame: number,
  step: number,
  rules: AssociationRules,
): { tracklets: Tracklet[]; detections: Detection[] } {
  if (tracklets.length === 0 || detections.length === 0) return { tracklets, detections };
  const costs = tracklets.map((tracklet) => {
    const { box, propagated } = predict(tracklet, frame);
    // Velocity is unreliable until a thing has been seen a few times, and less reliable than the flow.
    const reach = rules.reach * (!propagated && tracklet.sightings.length < 3 ? 1.6 : 1);
    return detections.map((detection) => mismatch(box, tracklet, detection, reach));
  });
  const pairedTracklets = new Set<number>();
  const pairedDetections = new Set<number>();
  for (const [row, column] of munkres(costs)) {
    if (costs[row]![column]! >= 10) continue;
    tracklets[row]!.sightings.push({ frame, step, detection: detections[column]! });
    pairedTracklets.add(row);
    pairedDetections.add(column);
  }
  return {
    tracklets: tracklets.filter((_, i) => !pairedTracklets.has(i)),
    detections: detections.filter((_, i) => !pairedDetections.has(i)),
  };
}

/**
 * Associates the detections of one kind in one shot into tracklets, in two stages by confidence (Zhang et al., ByteTrack,
 * 2022): confident ones first; then the weak ones extend the remaining tracklets, but start none.
 */
export function associate(
  frames: FrameDetections[],
  kind: TrackKind,
  shot: FrameRange,
  rules: AssociationRules,
): Tracklet[] {
  const finished: Tracklet[] = [];
  let open: Tracklet[] = [];
  for (const { frame, looked, step, detections } of frames) {
    if (frame < shot.start || frame >= shot.end || !looked.includes(kind)) continue;
    const alive = open.filter((tracklet) => frame - last(tracklet).frame <= rules.maxGapFrames);
    finished.push(...open.filter((tracklet) => !alive.includes(tracklet)));
    const seen = detections.filter((detection) => detection.kind === kind);
    const strong = seen.filter((detection) => detection.score >= rules.highScore);
    const weak = seen.filter((detection) => detection.score < rules.highScore);
    const afterStrong = match(alive, strong, frame, step, rules);
    match(afterStrong.tracklets, weak, frame, step, rules);
    const started = afterStrong.detections.map((detection): Tracklet => ({
      kind,
      sightings: [{ frame, step, detection }],
    }));
    open = [...alive, ...started];
  }
  return [...finished, ...open];
}
