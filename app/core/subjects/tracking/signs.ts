/** What the words on it say of what stands out in a shot. */
import { boxIou } from "../../geometry/box";
import { median } from "../../numbers/median";
import type { FrameDetections } from "../detecting/detection";
import { boxAt, type Track } from "./track";

/** Share of something that lines of text cover, from which on it is a sign and no more; a label covers less of a thing. */
const SIGN = 0.25;
/** What is left of its confidence then. */
const SIGN_CONFIDENCE = 0.35;
/** A detection is of a track if it is this much like it. */
const SAME = 0.5;

/** A board with words stands out by them, but is seldom what a shot is about where anything else stands out. */
export function withWords(track: Track, frames: readonly FrameDetections[]): Track {
  const written = frames.flatMap(({ frame, detections }) => {
    const box = boxAt(track, frame);
    return detections.flatMap(({ kind, box: at, written = 0 }) =>
      box && kind === track.kind && boxIou(at, box) >= SAME ? [written] : [],
    );
  });
  if (written.length === 0) return track;
  const sign = Math.min(1, median(written) / SIGN);
  return { ...track, confidence: (1 - (1 - SIGN_CONFIDENCE) * sign) * track.confidence };
}
