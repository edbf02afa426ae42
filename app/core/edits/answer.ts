import { z } from "zod";
import { Id } from "../basics/ids";
import { Command } from "./command";
import { Difference } from "./difference";

/** The next step to undo and to redo, as sentences; null where there is none. */
export const History = z.object({ undo: z.string().nullable(), redo: z.string().nullable() });
export type History = z.infer<typeof History>;

const Edit = z.object({ do: z.literal("edit"), command: Command });
const Step = z.object({ do: z.enum(["undo", "redo"]) });
/** To the state after the edit with this sequence number; 0 for the film before its first edit. */
const GoTo = z.object({ do: z.literal("go-to"), sequence: z.int().min(0) });
const ReturnTo = z.object({ do: z.literal("return-to"), checkpointId: Id });
/** What the desk requests of the server: an edit, a step through the history, or a return to a checkpoint. */
export type Change = z.infer<typeof Edit | typeof Step | typeof GoTo | typeof ReturnTo>;

/** An edit in the history of a film. */
export const EditRow = z.object({
  sequence: z.int(),
  sentence: z.string(),
  isUndone: z.boolean(),
  /** Milliseconds since 1970; null where that was not recorded. */
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

/** The server's answer to a change. */
export const EditAnswer = z.object({
  /** The film's present revision; missing where the server could not determine it. */
  revision: z.int().optional(),
  /** What has changed; missing where nothing has. */
  difference: Difference.optional(),
  /** What was done, undone or redone, in a sentence. */
  sentence: z.string().optional(),
  history: History.optional(),
  /** Why the change was not made. */
  error: z.string().optional(),
  /** Whether the change was made to an outdated state. */
  stale: z.boolean().optional(),
});
export type EditAnswer = z.infer<typeof EditAnswer>;
