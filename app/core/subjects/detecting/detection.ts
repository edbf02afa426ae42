import type { PlainEdges } from "../../shots/plain-edges";
import type { SeenText } from "../text/text-watch";
import { boxIou, type Box, type Point, type Size } from "../../geometry/box";

/** Kinds of tracks. Text and insets are no subjects: they are kept in the window, and never followed. */
export const TRACK_KINDS = ["face", "person", "object", "motion", "salient", "mark", "tile", "text", "inset"] as const;
export type TrackKind = (typeof TRACK_KINDS)[number];
export type LaidOverKind = "text" | "inset";
export type SubjectKind = Exclude<TrackKind, LaidOverKind>;

/** Score above which a face is clear: it starts a track, and is searched for when it is missed. */
export const CLEAR_FACE = 0.65;

/** Score from which a likely thing starts a track. */
export const CLEAR_THING = 0.2;

/** Height of a face, as a share of the picture, above which a detector has enough detail to be more certain … */
export const LARGE_FACE = 0.3;
/** … even where it is blurred, dark or grainy. Below this score it is more often a pattern than a face. */
const SURE_FACE = { large: 0.86, small: 0.75 };

/** Score above which a face needs no other evidence, by its height in pictures. */
export const sureFaceScore = (height: number): number => (height > LARGE_FACE ? SURE_FACE.large : SURE_FACE.small);

/** Places of the parts of a face; right and left are the person's own. */
export interface Landmarks {
  rightEye: Point;
  leftEye: Point;
  nose: Point;
  mouth: Point;
}

/** A detection in one frame. */
export interface Detection {
  kind: TrackKind;
  box: Box;
  /** The detector's confidence, 0 to 1. */
  score: number;
  /** Class of an object, such as "dog". */
  label?: string;
  /** Of a face. */
  landmarks?: Landmarks;
  /** Colours of its clothes or surface, from `signatureOf`. */
  signature?: number[];
  /** From `sharpnessOf`. */
  sharpness?: number;
  /** Of a thing: the side with more detail, from `detailSide`. */
  detailSide?: number;
  /** Of a thing moved by an arm that leads out of the picture: the box around both. */
  withArm?: Box;
  /** Of a salient thing: share of it covered by lines of text, 0 to 1, where they were looked for. */
  written?: number;
  /** Its boxes by optical flow after this frame, one per step, until it was detected again or the flow was lost. */
  propagated?: Box[];
  /** Of a person: the track of the face at its head, if there is only one. */
  faceId?: string;
  /** Of a face: from `facingOf`. */
  facing?: number;
  /** Of a face: movement of its mouth between steps, 0 to 1. */
  mouth?: number[];
}

/** All detections in one frame that was examined. */
export interface FrameDetections {
  frame: number;
  /** Detectors that ran: a missing face is no evidence if no face detector ran. */
  looked: TrackKind[];
  /** Frames between propagated boxes. */
  step: number;
  detections: Detection[];
  /** The lines of text that were there, and those gone since the look before. */
  texts?: SeenText[];
  /** Rectangles that may hold a picture of their own, if they were searched for. */
  rectangles?: Box[];
  /** Whether the camera has moved since the detectors last ran. */
  cameraMoved?: boolean;
  /** How far the frame is plain from its edges. */
  plain?: PlainEdges;
}

/** Score of a face that makes other salient things irrelevant. */
const CERTAIN_FACE = 0.8;

/** Whether a face is so clear that nothing else in the picture may be what it is about. */
export const hasCertainFace = (detections: readonly Detection[], picture: Size): boolean =>
  detections.some(
    ({ kind, score, box }) =>
      kind === "face" && score >= Math.max(CERTAIN_FACE, sureFaceScore(box.height / picture.height)),
  );

/** What a detector has found somewhere, of some kind if it knows several. */
type Scored = Pick<Detection, "box" | "score"> & Partial<Pick<Detection, "kind">>;

/**
 * Greedy non-maximum suppression within each kind: of overlapping boxes, the most confident stays.
 * @returns what is kept, the most confident first
 */
export function suppressOverlaps<T extends Scored>(detections: readonly T[], maxIou: number): T[] {
  const kept: T[] = [];
  for (const candidate of [...detections].sort((a, b) => b.score - a.score)) {
    const covered = kept.some((other) => other.kind === candidate.kind && boxIou(other.box, candidate.box) > maxIou);
    if (!covered) kept.push(candidate);
  }
  return kept;
}
