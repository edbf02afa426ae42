/** What an editor finds worth a flag in a version, and what of it has been looked at. */
import { z } from "zod";

const Seconds = z.number().min(0).max(600);

/** How much of a trouble is passed over. Times are in seconds. */
export const CheckLimits = z.object({
  /** A subject, a text or a protected area reaches beyond the window. */
  cut: Seconds,
  /** A face or a text lies under what covers the frame. */
  covered: Seconds,
  /** What is followed is not seen. */
  lost: Seconds,
  /** Nobody is in the frame, while somebody is beside it. */
  empty: Seconds,
  /** The window can go no further, and its subject is beside its middle. */
  edge: Seconds,
  /** Somebody looks out of the edge that is nearer. */
  looksOut: Seconds,
  /** The picture does not change at all. */
  frozen: Seconds,
  black: Seconds,
  /** How far eyes jump from one shot to the next of the same person, as a share of the frame. */
  jolt: z.number().min(0.05).max(1),
  /** How fast the window may still be at a cut, in its own widths per second. */
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

/** More than this nobody looks at. */
const MOST_SEEN = 20_000;

/** Prints of flags that the editor has reviewed, as `flagPrint` takes them. */
export const ReviewedFlags = z.array(z.string().max(80)).max(MOST_SEEN);
