/** Faces and burnt-in text that lie outside the safe area where they are shown. */
import { inFrame, type ShownAt } from "../composition/composition";
import { type SafeArea, safeBox } from "../composition/layers/safe-area";
import type { Box } from "../geometry/box";
import { boxAt, laidOver, type Track, wordsOf } from "../subjects/tracking/track";
import type { FrameRange, Rate } from "../time/rate";
import { flagsTexts } from "../../texts/flags";
import type { CheckLimits } from "./check-settings";
import type { Flag } from "./flag";
import { troubleIn } from "./trouble";

const t = flagsTexts.coveredFlags;

/** Share of its own size by which something may reach outside the safe area. */
const TOLERANCE = 0.1;

interface Covered {
  /** The ranges of the shot that are shown. */
  kept: readonly FrameRange[];
  tracks: readonly Track[];
  shown: ShownAt;
  safe: SafeArea;
  limits: Pick<CheckLimits, "covered">;
  rate: Rate;
}

/** How far a box reaches beyond another, as a share of its width or height, whichever is more. */
const shareBeyond = (box: Box, safe: Box): number =>
  Math.max(
    (Math.max(safe.x - box.x, 0) + Math.max(box.x + box.width - safe.x - safe.width, 0)) / box.width,
    (Math.max(safe.y - box.y, 0) + Math.max(box.y + box.height - safe.y - safe.height, 0)) / box.height,
  );

/** Where the followed face, or burnt-in text, is outside the safe area for more than a moment. */
export function coveredFlags(subject: Track | null, { kept, tracks, shown, safe, limits, rate }: Covered): Flag[] {
  const coveredAt = (track: Track, frame: number) => {
    const box = boxAt(track, frame);
    if (!box) return 0;
    const composition = shown(frame);
    const there = inFrame(box, composition);
    const beyond = there ? shareBeyond(there, safeBox(safe, composition.size)) : 0;
    return beyond > TOLERANCE ? Math.min(1, beyond) : 0;
  };
  const limit = limits.covered;
  const texts = laidOver(tracks).filter(({ kind }) => kind === "text");
  return [
    ...(subject?.kind === "face"
      ? troubleIn(kept, rate, {
          kind: "face-covered",
          limit,
          at: (frame) => coveredAt(subject, frame),
          text: t.faceOutsideTheSafeArea,
        })
      : []),
    ...texts.flatMap((text) =>
      troubleIn(kept, rate, {
        kind: "text-covered",
        limit,
        text: t.textOutsideTheSafeArea(wordsOf(text)),
        at: (frame) => coveredAt(text, frame),
      }),
    ),
  ];
}
