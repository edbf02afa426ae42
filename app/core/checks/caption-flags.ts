/** Captions that are too fast to read. */
import type { Caption } from "../captions/caption";
import { paceOf } from "../captions/caption-faults";
import type { FrameRange, Rate } from "../time/rate";
import { flagsTexts } from "../../texts/flags";
import { type Flag, severityOf } from "./flag";

const t = flagsTexts.captionFlags;

/**
 * @param kept the ranges of a shot that are shown; a caption counts in the shot in which it starts
 * @param most characters per second that can be read
 */
export function captionFlags(
  captions: readonly Caption[],
  kept: readonly FrameRange[],
  most: number,
  rate: Rate,
): Flag[] {
  return captions.flatMap((caption) => {
    const { start, end } = caption;
    if (!kept.some((part) => start >= part.start && start < part.end)) return [];
    const pace = paceOf(caption, rate);
    if (pace <= most) return [];
    const severity = severityOf("caption-pace", 0.4 + pace / most - 1);
    return [{ kind: "caption-pace", range: { start, end }, frame: start, text: t.tooQuick(pace, most), severity }];
  });
}
