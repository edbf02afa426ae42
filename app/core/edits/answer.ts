import { z } from "zod";
import { Difference } from "./difference";

/** What can be undone and redone next, in a sentence each; null where there is nothing. */
export const History = z.object({ undo: z.string().nullable(), redo: z.string().nullable() });
export type History = z.infer<typeof History>;

/** What the server says about a change. */
export const EditAnswer = z.object({
  /** The film's revision now; missing where the server could not even say that. */
  revision: z.int().optional(),
  /** What has changed; missing where nothing has. */
  difference: Difference.optional(),
  /** What was done, undone or redone, in a sentence. */
  sentence: z.string().optional(),
  history: History.optional(),
  /** Why the change was not made. */
  error: z.string().optional(),
  /** Whether the change was made to an older state than there is. */
  stale: z.boolean().optional(),
});
export type EditAnswer = z.infer<typeof EditAnswer>;
