import { z } from "zod";
import { Id } from "../basics/ids";
import { Command } from "./command";
import { Difference } from "./difference";

/** What can be undone and redone next, in a sentence each; null where there is nothing. */
export const History = z.object({ undo: z.string().nullable(), redo: z.string().nullable() });
export type History = z.infer<typeof History>;

const Edit = z.object({ do: z.literal("edit"), command: Command });
const Step = z.object({ do: z.enum(["undo", "redo"]) });
/** To the state in which the edit with this sequence was the newest; 0 for the film as it was at first. */
const GoTo = z.object({ do: z.literal("go-to"), sequence: z.int().min(0) });
const ReturnTo = z.object({ do: z.literal("return-to"), checkpointId: Id });
/** What the desk asks of the server: an edit, a way through the history, or a state that has a name. */
export type Change = z.infer<typeof Edit | typeof Step | typeof GoTo | typeof ReturnTo>;

/** An edit in the history of a film. */
export const EditRow = z.object({
  sequence: z.int(),
  sentence: z.string(),
  isUndone: z.boolean(),
  /** Milliseconds since 1970; null where that was not kept. */
  madeAt: z.int().nullable(),
});
export type EditRow = z.infer<typeof EditRow>;

/** The revision that a change was made to. */
const MadeTo = { revision: z.int() };
export const ChangeRequest = z.discriminatedUnion("do", [
  Edit.extend(MadeTo),
  Step.extend(MadeTo),
  GoTo.extend(MadeTo),
  ReturnTo.extend(MadeTo),
]);

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
