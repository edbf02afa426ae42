import type { PlainEdges } from "../../shots/plain-edges";
import { boxIou, type Box, type Point } from "../../geometry/box";

/**
 * What a track can be of. Text, and a picture that is laid over another, are no subjects: they are kept in the window,
 * and never followed.
 */
export const TRACK_KINDS = ["face", "person", "object", "motion", "salient", "mark", "tile", "text", "inset"] as const;
export type TrackKind = (typeof TRACK_KINDS)[number];
export type LaidOverKind = "text" | "inset";
export type SubjectKind = Exclude<TrackKind, LaidOverKind>;

/** Score from which on a face was seen clearly: it begins a track, and is looked for where it is missed. */
export const CLEAR_FACE = 0.65;

/** Of a face that is higher than this share of the picture there is so much to be seen that a detector is surer … */
export const LARGE_FACE = 0.3;
/** … even where it is blurred, dark or grainy. What it is less sure of is a pattern more often than a face. */
const SURE_FACE = { large: 0.86, small: 0.75 };

/** Score from which on a face needs nothing else to tell that it is one, by its height in pictures. */
export const sureFaceScore = (height: number): number => (height > LARGE_FACE ? SURE_FACE.large : SURE_FACE.small);

/** Where the parts of a face are; right and left are the person's own. */
export interface Landmarks {
  rightEye: Point;
  leftEye: Point;
  nose: Point;
  mouth: Point;
}

/** One thing that a detector sees in one frame. */
export interface Detection {
  kind: TrackKind;
  box: Box;
  /** The detector's confidence, 0 to 1. */
  score: number;
  /** What kind of object, such as "dog". */
  label?: string;
  /** Of a face. */
  landmarks?: Landmarks;
  /** Colours of what it wears or is made of, as `signatureOf` takes them. */
  signature?: number[];
  /** As `sharpnessOf` measures it. */
  sharpness?: number;
  /** Of a thing: at which end it has more detail, as `detailSide` tells it. */
  detailSide?: number;
  /** Of a thing that is moved by an arm which leads out of the picture: the box around both. */
  withArm?: Box;
  /** Of what stands out: share of it that lines of text cover, 0 to 1. */
  written?: number;
  /** Where it went by the optical flow after this frame: one box a step, until it was seen anew or its flow was lost. */
  propagated?: Box[];
  /** Of a person: the track of the face where the head is, if there is only one. */
  faceId?: string;
  /** Of a face: as `facingOf` measures it. */
  facing?: number;
  /** Of a face: how much its mouth moved from each step to the next, 0 to 1. */
  mouth?: number[];
}

/** All that was seen in one frame that the detectors looked at. */
export interface FrameDetections {
  frame: number;
  /** Which detectors looked: the absence of a face says nothing if nobody looked for faces. */
  looked: TrackKind[];
  /** Frames from one propagated box to the next. */
  step: number;
  detections: Detection[];
  /** Text that has been in the same place for a while, if it was looked for (`SeenText` in text/find-texts.ts). */
  texts?: Box[];
  letters?: Box[];
  overlaid?: Box[];
  /** Rectangles in which there may be a picture of its own, if they were looked for. */
  rectangles?: Box[];
  /** Whether the camera has moved since the detectors looked last. */
  cameraMoved?: boolean;
  /** How far the frame is plain from its edges. */
  plain?: PlainEdges;
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
