/** Faces that get under what covers the frame where it is shown. */
import { inFrame, type ShownAt } from "../composition/composition";
import { type SafeArea, safeBox } from "../composition/layers/safe-area";
import { boxContains } from "../geometry/box";
import { boxAt, type Track } from "../subjects/tracking/track";
import { type FrameRange, framesOf } from "../time/rate";
import type { SecondLook } from "./second-looks";
import { looksTexts } from "../../texts/looks";

const t = looksTexts.coveredLooks;

/** Share of the frames with a face in which it may be covered. */
const COVERED_SHARE = 0.05;
/** Share of its own size by which it may reach under what covers. */
const TOLERANCE = 0.1;

/** Whether a face is followed that is covered for more than a moment. */
export function coveredLooks(
  subject: Track | null,
  kept: readonly FrameRange[],
  shown: ShownAt,
  safe: SafeArea,
): SecondLook[] {
  if (subject?.kind !== "face") return [];
  const seen = kept.flatMap(framesOf).filter((frame) => boxAt(subject, frame));
  const covered = seen.filter((frame) => {
    const composition = shown(frame);
    const face = inFrame(boxAt(subject, frame)!, composition);
    return face && !boxContains(safeBox(safe, composition.size), face, TOLERANCE * face.width);
  });
  if (covered.length <= COVERED_SHARE * seen.length) return [];
  const text = t.faceOutsideTheSafeArea(covered.length, seen.length);
  return [{ kind: "face-covered", frame: covered[0]!, text }];
}
