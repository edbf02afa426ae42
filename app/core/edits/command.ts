import { z } from "zod";
import { MANNERS } from "../path/manner";

/**
 * Everything an editor can change, as data: it is sent by the interface, stored, and taken back by its inverse,
 * which is a command as well.
 */

const Frame = z.int().min(0);
const HandKey = z.object({ frame: Frame, x: z.number(), y: z.number(), height: z.number().positive() });
const EvenSide = z
  .int()
  .min(16, "at least 16 pixels")
  .max(8192, "at most 8192 pixels")
  .refine((side) => side % 2 === 0, "an even number of pixels");

export const Command = z.discriminatedUnion("type", [
  /** Puts the window somewhere at a frame. */
  z.object({ type: z.literal("set-key"), versionId: z.string(), key: HandKey }),
  /** Gives a frame back to the solver. */
  z.object({ type: z.literal("remove-key"), versionId: z.string(), frame: Frame }),
  /** Moves a hand key in time and place. */
  z.object({ type: z.literal("move-key"), versionId: z.string(), fromFrame: Frame, key: HandKey }),
  /** Puts back exactly these hand keys between two frames; what undoes a move onto another key. */
  z.object({
    type: z.literal("restore-keys"),
    versionId: z.string(),
    frames: z.array(Frame),
    keys: z.array(HandKey),
  }),
  z.object({
    type: z.literal("set-manner"),
    versionId: z.string(),
    shotId: z.string(),
    manner: z.enum(MANNERS).nullable(),
  }),
  /** "auto", "none", or "track:" and an id. */
  z.object({ type: z.literal("set-subject"), shotId: z.string(), subject: z.string().regex(/^(auto|none|track:.+)$/) }),
  z.object({
    type: z.literal("add-version"),
    version: z.object({ id: z.string().min(1), name: z.string().trim().min(1), width: EvenSide, height: EvenSide }),
  }),
  z.object({ type: z.literal("remove-version"), versionId: z.string() }),
]);
export type Command = z.infer<typeof Command>;

/** What a command does, for the history and for messages: "Undone: move of a key". */
export function describeCommand(command: Command): string {
  switch (command.type) {
    case "set-key":
      return "hand key";
    case "remove-key":
      return "release of a key";
    case "move-key":
      return "move of a key";
    case "restore-keys":
      return "keys";
    case "set-manner":
      return "change of manner";
    case "set-subject":
      return "change of subject";
    case "add-version":
      return "new version";
    case "remove-version":
      return "removal of a version";
  }
}
