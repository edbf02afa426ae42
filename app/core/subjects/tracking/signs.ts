/** What words on a salient thing say about it. */
import { boxIou } from "../../geometry/box";
import { median } from "../../numbers/median";
import type { FrameDetections } from "../detecting/detection";
import { boxAt, type Track } from "./track";

/** Share covered by lines of text above which something is merely a sign; a label covers less of a thing. */
const SIGN = 0.25;
/** Factor on its confidence then. */
const SIGN_CONFIDENCE = 0.35;
/** Overlap above which a detection is of the track. */
const SAME = 0.5;

/** A board with words is salient because of them, but is seldom the subject where anything else is salient. */
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
