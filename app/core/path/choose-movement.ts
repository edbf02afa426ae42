/** Chooses a movement by the subject's behaviour, for shots in which the editor has not. */
import { clamped } from "../numbers/clamped";
import type { Subject } from "../subjects/choosing/subject";
import { boxAt } from "../subjects/tracking/track";
import type { FrameRange } from "../time/rate";
import { focusBox } from "./focus-box";
import type { Movement } from "./movement";
import { reasonsTexts } from "../../texts/reasons";

const t = reasonsTexts.chooseMovement;

export interface ChosenMovement {
  movement: Movement;
  /** Why, in words. */
  reason: string;
}

/** A subject whose centre stays within this share of the window's width needs no movement of it. */
const SITS_WITHIN = 0.3;
/** Share of the time for which a subject may be beyond that, on either side. */
const OUTLIERS = 0.02;
/** Speed in windows per second above which a subject is fast, and the share of the time for which it must be. */
const QUICK_SPEED = 0.55;
const QUICK_SHARE = 0.25;
/** Seconds over which a speed is measured. */
const SPEED_SECONDS = 0.3;

const quantile = (sorted: readonly number[], share: number): number =>
  sorted[clamped(Math.round(share * (sorted.length - 1)), 0, sorted.length - 1)]!;

/**
 * @param windowWidth in pixels of the picture
 * @param from centre of the window in the shot before, in pixels, if this one continues from there
 */
export function chooseMovement(
  subject: Subject | null,
  shot: FrameRange,
  windowWidth: number,
  fps: number,
  from: number | null = null,
): ChosenMovement {
  const places: (number | null)[] = [];
  for (let frame = shot.start; frame < shot.end; frame++) {
    const box = subject && (focusBox(subject, frame) ?? boxAt(subject.track, frame));
    places.push(box ? (box.x + box.width / 2) / windowWidth : null);
  }
  const seen = places.filter((place) => place !== null).sort((a, b) => a - b);
  if (seen.length === 0) return { movement: "still", reason: t.nothingToFollow };
  const spread = quantile(seen, 1 - OUTLIERS) - quantile(seen, OUTLIERS);
  if (spread <= SITS_WITHIN) {
    const isElsewhere = from !== null && Math.abs(quantile(seen, 0.5) - from / windowWidth) > SITS_WITHIN / 2;
    return isElsewhere
      ? { movement: "glide", reason: t.comesOverFromTheShot }
      : { movement: "still", reason: t.staysInPlace };
  }
  const step = Math.max(1, Math.round(SPEED_SECONDS * fps));
  let quick = 0;
  let measured = 0;
  for (let i = step; i < places.length; i++) {
    const [from, to] = [places[i - step], places[i]];
    if (from === null || from === undefined || to === null || to === undefined) continue;
    measured++;
    if ((Math.abs(to - from) * fps) / step > QUICK_SPEED) quick++;
  }
  return measured > 0 && quick / measured >= QUICK_SHARE
    ? { movement: "chase", reason: t.movesQuickly }
    : { movement: "glide", reason: t.movesNowAndThen };
}
