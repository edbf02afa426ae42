import { boxIou, type Box } from "../geometry/box";

/** What a track can be of. */
export const TRACK_KINDS = ["face", "person", "object", "motion", "mark"] as const;
export type TrackKind = (typeof TRACK_KINDS)[number];

/** One thing that a detector sees in one frame. */
export interface Detection {
  kind: TrackKind;
  box: Box;
  /** The detector's confidence, 0 to 1. */
  score: number;
  /** What kind of object, such as "dog". */
  label?: string;
}

/** All that was seen in one frame that the detectors looked at. */
export interface FrameDetections {
  frame: number;
  /** Which detectors looked: the absence of a face says nothing if nobody looked for faces. */
  looked: TrackKind[];
  detections: Detection[];
}

/** Greedy non-maximum suppression within each kind: of boxes that overlap, the most confident stays. */
export function suppressOverlaps(detections: Detection[], maxIou: number): Detection[] {
  const kept: Detection[] = [];
  for (const candidate of [...detections].sort((a, b) => b.score - a.score)) {
    const covered = kept.some((other) => other.kind === candidate.kind && boxIou(other.box, candidate.box) > maxIou);
    if (!covered) kept.push(candidate);
  }
  return kept;
}
