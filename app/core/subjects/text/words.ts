import { z } from "zod";

const Channel = z.int().min(0).max(255);
/** Red, green and blue. */
const Rgb = z.tuple([Channel, Channel, Channel]);

/** What a text over a film says, and how it looks. */
export const Words = z.object({
  /** Those that were read, from the top. */
  lines: z.array(z.string()).min(1),
  /** Colours of the letters and of what is behind them. */
  ink: Rgb,
  ground: Rgb,
  /** Whether there are others that could not be read, or not surely. */
  isPart: z.literal(true).optional(),
});
export type Words = z.infer<typeof Words>;
