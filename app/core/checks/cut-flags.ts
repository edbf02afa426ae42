/** Flags about a shot's start, its length, and its other possible subjects. */
import { boxCentre } from "../geometry/box";
import type { Shot } from "../shots/shot";
import type { LeftOut } from "../subjects/choosing/follow-plan";
import { boxAt, type Track } from "../subjects/tracking/track";
import { type FrameRange, rangeLength } from "../time/rate";
import { flagsTexts } from "../../texts/flags";
import { type Flag, severityOf } from "./flag";

const t = flagsTexts.cutFlags;

/** A transition decided by a smaller margin, on a scale of 0 to 1 around 0.5, is uncertain. */
const UNSURE = 0.06;
/** Shots of fewer frames are more often a mistake than intended. */
const SHORT_FRAMES = 6;

/**
 * Flags about a shot's start and length.
 * @param strength of the evidence for the transition at its start, 0 to 1; undefined if nothing was weighed
 */
export function cutFlags(shot: Pick<Shot, "start" | "end" | "begins">, strength: number | undefined): Flag[] {
  const flags: Flag[] = [];
  const { start, end } = shot;
  if (strength !== undefined && shot.begins !== "switch" && Math.abs(strength - 0.5) < UNSURE) {
    const severity = severityOf("unsure-cut", 1 - Math.abs(strength - 0.5) / UNSURE / 2);
    const range = { start, end: start + 1 };
    flags.push({ kind: "unsure-cut", range, frame: start, text: t.cutUncertain(strength), severity });
  }
  const frames = rangeLength(shot);
  if (frames < SHORT_FRAMES) {
    const severity = severityOf("short-shot", 1 - (frames - 1) / SHORT_FRAMES);
    flags.push({ kind: "short-shot", range: { start, end }, frame: start, text: t.shortShot(frames), severity });
  }
  return flags;
}

/**
 * The flag for another subject that would do as well, or belongs in the frame and is left out.
 * @param range of the shot that is shown
 */
export function otherFlags(subject: Track, other: Track, why: LeftOut["why"], range: FrameRange): Flag[] {
  const frame = other.boxes.findIndex((box, i) => box && boxAt(subject, other.start + i)) + other.start;
  const [followed, left] = [boxAt(subject, frame), boxAt(other, frame)];
  if (!followed || !left) return [];
  const side = boxCentre(left).x < boxCentre(followed).x ? "left" : "right";
  const isAlike = why === "alike";
  const kind = isAlike ? "two-alike" : "two-apart";
  const text = isAlike ? t.twoAlike(side) : t.twoApart(side);
  return [{ kind, range, frame, text, severity: severityOf(kind, 1), otherId: other.id }];
}
