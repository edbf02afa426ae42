/** What an editor wants flagged in a version, and what has been reviewed. */
import { z } from "zod";

const Seconds = z.number().min(0).max(600);

/** Limits below which a problem is not flagged. Times are in seconds. */
export const CheckLimits = z.object({
  /** A subject, a text or a protected area reaches beyond the window. */
  cut: Seconds,
  /** A face or a text lies outside the safe area. */
  covered: Seconds,
  /** The subject is not seen. */
  lost: Seconds,
  /** Nobody is in the frame, though somebody is in the picture. */
  empty: Seconds,
  /** The window is stuck at the picture's edge, with its subject off centre. */
  edge: Seconds,
  /** Somebody looks out of the nearer edge: too little looking room. */
  looksOut: Seconds,
  /** The picture is frozen. */
  frozen: Seconds,
  black: Seconds,
  /** Distance that eyes jump at a cut between shots of the same person, as a share of the frame. */
  jolt: z.number().min(0.05).max(1),
  /** Speed of the window at a cut, in its own widths per second. */
  movingAtCut: z.number().min(0).max(5),
});
export type CheckLimits = z.infer<typeof CheckLimits>;

export const USUAL_LIMITS: CheckLimits = {
  cut: 0.4,
  covered: 0.4,
  lost: 1,
  empty: 1,
  edge: 2,
  looksOut: 1.5,
  frozen: 3,
  black: 1,
  jolt: 1 / 3,
  movingAtCut: 0.15,
};

/** Most reviewed flags that are kept. */
const MOST_SEEN = 20_000;

/** Prints of reviewed flags, as made by `flagPrint`. */
export const ReviewedFlags = z.array(z.string().max(80)).max(MOST_SEEN);
