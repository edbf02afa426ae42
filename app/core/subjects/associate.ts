import { munkres } from "munkres";
import { boxCentre, boxIou, type Box } from "../geometry/box";
import type { FrameRange } from "../time/rate";
import type { Detection, FrameDetections, TrackKind } from "./detection";

/** A chain of detections of one thing, before gaps are filled. */
export interface Tracklet {
  kind: TrackKind;
  sightings: { frame: number; detection: Detection }[];
}

export interface AssociationRules {
  /** Detections above start and extend tracklets; those below only extend (ByteTrack's second stage). */
  highScore: number;
  /** A tracklet not seen for longer than this many frames has ended. */
  maxGapFrames: number;
  /** How far from its predicted place a thing may turn up, in multiples of its own size. */
  reach: number;
}

const last = (tracklet: Tracklet) => tracklet.sightings.at(-1)!;

/** Where a tracklet should be at a frame: its last box moved on with its recent velocity. */
function predict(tracklet: Tracklet, frame: number): Box {
  const now = last(tracklet);
  const before = tracklet.sightings.at(-3) ?? tracklet.sightings.at(-2);
  const box = now.detection.box;
  if (!before) return box;
  const elapsed = frame - now.frame;
  const span = now.frame - before.frame;
  const from = boxCentre(before.detection.box);
  const to = boxCentre(box);
  return { ...box, x: box.x + ((to.x - from.x) / span) * elapsed, y: box.y + ((to.y - from.y) / span) * elapsed };
}

/** What it costs to call a detection the same thing as a predicted box: 0 none, 1 as much as is allowed. */
function mismatch(predicted: Box, box: Box, reach: number): number {
  const size = Math.sqrt(predicted.width * predicted.height);
  const a = boxCentre(predicted);
  const b = boxCentre(box);
  const distance = Math.hypot(a.x - b.x, a.y - b.y) / (size * reach);
  const growth = Math.abs(Math.log((box.width * box.height) / (predicted.width * predicted.height))) / Math.log(6);
  return 0.5 * distance + 0.3 * (1 - boxIou(predicted, box)) + 0.2 * growth + (distance > 1 || growth > 1 ? 10 : 0);
}

/** Pairs tracklets with detections at the least total cost (Hungarian method); returns what remains of both. */
function match(
  tracklets: Tracklet[],
  detections: Detection[],
  frame: number,
  rules: AssociationRules,
): { tracklets: Tracklet[]; detections: Detection[] } {
  if (tracklets.length === 0 || detections.length === 0) return { tracklets, detections };
  const costs = tracklets.map((tracklet) => {
    const predicted = predict(tracklet, frame);
    // Velocity is a guess until a thing has been seen a few times, and a worse one the longer it is gone.
    const reach = rules.reach * (tracklet.sightings.length < 3 ? 1.6 : 1);
    return detections.map((detection) => mismatch(predicted, detection.box, reach));
  });
  const pairedTracklets = new Set<number>();
  const pairedDetections = new Set<number>();
  for (const [row, column] of munkres(costs)) {
    if (costs[row]![column]! >= 10) continue;
    tracklets[row]!.sightings.push({ frame, detection: detections[column]! });
    pairedTracklets.add(row);
    pairedDetections.add(column);
  }
  return {
    tracklets: tracklets.filter((_, i) => !pairedTracklets.has(i)),
    detections: detections.filter((_, i) => !pairedDetections.has(i)),
  };
}

/**
 * Joins the detections of one kind within one shot into tracklets, in two stages by confidence (Zhang et al.,
 * ByteTrack, 2022): confident ones first; then the weak ones extend what is left, but start nothing.
 */
export function associate(
  frames: FrameDetections[],
  kind: TrackKind,
  shot: FrameRange,
  rules: AssociationRules,
): Tracklet[] {
  const finished: Tracklet[] = [];
  let open: Tracklet[] = [];
  for (const { frame, looked, detections } of frames) {
    if (frame < shot.start || frame >= shot.end || !looked.includes(kind)) continue;
    const alive = open.filter((tracklet) => frame - last(tracklet).frame <= rules.maxGapFrames);
    finished.push(...open.filter((tracklet) => !alive.includes(tracklet)));
    const seen = detections.filter((detection) => detection.kind === kind);
    const strong = seen.filter((detection) => detection.score >= rules.highScore);
    const weak = seen.filter((detection) => detection.score < rules.highScore);
    const afterStrong = match(alive, strong, frame, rules);
    match(afterStrong.tracklets, weak, frame, rules);
    const started = afterStrong.detections.map((detection): Tracklet => ({ kind, sightings: [{ frame, detection }] }));
    open = [...alive, ...started];
  }
  return [...finished, ...open];
}
