/** What the movement in a shot says of what stands out in it. */
import { boxArea, boxIou, intersectionArea } from "../../geometry/box";
import type { FrameDetections } from "../detecting/detection";
import { CLEAR_MOVEMENT_SCORE } from "../detecting/moving";
import { boxAt, type Track } from "./track";

/** Share of the smaller of two boxes that they have in common, from which the one is part of the other. */
const PART = 0.6;
/** Boxes that overlap by more than this are of the same thing, which an arm holds. */
const SAME = 0.25;
/** How sure it is that something which moves by itself whenever anything does, and stands out, is a thing. */
const MOVING_CONFIDENCE = 0.75;
/** Where something else moves in this share of the shot, and this in less than that, it is what stands around … */
const MUCH_MOVES = 0.3;
const STANDS = 0.5;
/** … and so much of its confidence is left. */
const STANDING_CONFIDENCE = 0.35;

/**
 * What stands out little, but moves by itself where anything does, is surely a thing; what stands out and stands there
 * while something else moves through the picture is more likely a post, a wall or a piece of furniture.
 *
 * @param frames what was seen in the shot
 * @param texts the text over it, which moves against the camera because it stays
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
      // Of an arm and what it holds, what is held.
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
