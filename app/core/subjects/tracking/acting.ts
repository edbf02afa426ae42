/** When a person or thing moves by itself: walks, waves, turns over. */
import { boxArea, intersectionArea } from "../../geometry/box";
import { type FrameRange, framesPerSecond, type Rate } from "../../time/rate";
import { bridged } from "../../time/ranges";
import { CLEAR_MOVEMENT_SCORE } from "../detecting/moving";
import type { FrameDetections } from "../detecting/detection";
import { boxAt, type Track } from "./track";

/** Share of a movement that must lie in a box to belong to its content. */
const OWN = 0.6;
/** A movement much larger than the box is somebody else's, or the camera's. */
const MOST_AREA = 2;
/** Pauses shorter than this, in seconds, are within one movement. */
const PAUSE_SECONDS = 0.6;
/** Shorter movements are a twitch, or noise. */
const LEAST_SECONDS = 0.5;

/**
 * @param frames detections in the shot, in order
 * @returns when a track moves by itself, in order
 */
export function actingIn(track: Track, frames: readonly FrameDetections[], rate: Rate): FrameRange[] {
  const fps = framesPerSecond(rate);
  const looks = frames.filter(({ looked }) => looked.includes("motion"));
  const moves = looks.flatMap(({ frame, detections }, i): FrameRange[] => {
    const box = boxAt(track, frame);
    const isMoving = detections.some(
      ({ kind, score, box: moving }) =>
        kind === "motion" &&
        score >= CLEAR_MOVEMENT_SCORE &&
        box &&
        intersectionArea(box, moving) > OWN * boxArea(moving) &&
        boxArea(moving) < MOST_AREA * boxArea(box),
    );
    // Motion seen at a look happened since the one before.
    const since = looks[i - 1]?.frame ?? track.start;
    return isMoving ? [{ start: since, end: frame + 1 }] : [];
  });
  return bridged(moves, Math.round(PAUSE_SECONDS * fps)).filter(({ start, end }) => end - start >= LEAST_SECONDS * fps);
}
