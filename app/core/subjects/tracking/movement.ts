/** What motion in a shot says about its salient things. */
import { boxArea, boxIou, intersectionArea } from "../../geometry/box";
import type { FrameDetections } from "../detecting/detection";
import { CLEAR_MOVEMENT_SCORE } from "../detecting/moving";
import { boxAt, type Track } from "./track";

/** Overlap, as a share of the smaller box, above which one is part of the other. */
const PART = 0.6;
/** Overlap above which boxes are of the same thing, held by an arm. */
const SAME = 0.25;
/** Confidence of a salient thing that moves by itself whenever anything does. */
const MOVING_CONFIDENCE = 0.75;
/** Share of the shot in which something else must move, and this thing less, for it to be part of the surroundings … */
const MUCH_MOVES = 0.3;
const STANDS = 0.5;
/** … and the factor on its confidence then. */
const STANDING_CONFIDENCE = 0.35;

/**
 * A weakly salient thing that moves by itself where anything does is certainly a thing; a salient one that stays while
 * something else moves through the picture is more likely a post, a wall or furniture.
 * @param frames detections in the shot
 * @param texts the text over it, which moves relative to the camera because it stays
 */
export function withMovement(track: Track, frames: readonly FrameDetections[], texts: readonly Track[]): Track {
  let moves = 0;
  let asked = 0;
  let looks = 0;
  for (const { frame, looked, detections } of frames) {
    const box = boxAt(track, frame);
    if (!box || !looked.includes("motion")) continue;
    looks++;
    const written = texts.flatMap((text) => boxAt(text, frame) ?? []);
    const moving = detections.filter(
      ({ kind, score, box: at }) =>
        kind === "motion" &&
        score >= CLEAR_MOVEMENT_SCORE &&
        !written.some((text) => intersectionArea(text, at) > PART * Math.min(boxArea(at), boxArea(text))),
    );
    if (moving.length === 0) continue;
    asked++;
    const isPart = moving.some((other) =>
      // Of an arm and what it holds, the held thing.
      other.withArm
        ? boxIou(box, other.box) > SAME
        : intersectionArea(box, other.box) > PART * Math.min(boxArea(box), boxArea(other.box)),
    );
    if (isPart) moves++;
  }
  if (asked === 0) return track;
  const share = moves / asked;
  if (asked > MUCH_MOVES * looks && share < STANDS)
    return { ...track, confidence: STANDING_CONFIDENCE * track.confidence };
  return { ...track, confidence: Math.max(track.confidence, MOVING_CONFIDENCE * share) };
}
