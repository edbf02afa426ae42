import { z } from "zod";
import { FramingChange } from "../path/framing-settings";
import { Easing } from "../path/easing";
import { TRANSITION_KINDS } from "../shots/transition";
import { STORED_RULE } from "../subjects/follow-rule";

/**
 * Everything an editor can change, as data: it is sent by the interface, stored, and taken back by its inverse,
 * which is a command as well.
 */

const Frame = z.int().min(0);
const HandKey = z.object({
  frame: Frame,
  x: z.number(),
  y: z.number(),
  height: z.number().positive(),
  // Changes that were stored before keys had one leave it to the solver.
  easing: Easing.nullable().default(null),
});
const Range = z.object({ start: Frame, end: Frame });
const ShotIds = z.array(z.string()).min(1);
const Sensitivity = z.int().min(0).max(100);
const StoredTransition = z.object({ frame: Frame, kind: z.enum(TRANSITION_KINDS), range: Range });
const Box = z.object({ x: z.number(), y: z.number(), width: z.number().positive(), height: z.number().positive() });
const Shot = z.object({
  id: z.string().min(1),
  start: Frame,
  end: Frame,
  begins: z.enum(TRANSITION_KINDS),
  mixed: Range,
  carry: z.boolean(),
  /** As `followRule` reads it. */
  subject: z.string().regex(STORED_RULE),
  name: z.string().trim().max(80).nullable(),
  excluded: z.boolean(),
  // Changes that were stored before shots had one protect nothing.
  protect: Box.nullable().default(null),
});
/** What can be set for several shots at once; what is left out stays. */
const ShotChange = Shot.pick({ subject: true, name: true, excluded: true, carry: true, begins: true })
  .partial()
  .extend({ protect: Box.nullable().optional() });
const TrackEdit = z.object({ removed: z.array(Range), joinedTo: z.string().nullable() });
const Person = z.object({
  id: z.string().min(1),
  name: z.string().trim().min(1).max(60).nullable(),
  mergedInto: z.string().nullable(),
});
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
    type: z.literal("set-framing"),
    versionId: z.string(),
    shotIds: ShotIds,
    change: FramingChange,
  }),
  /** Splits the shot that holds the frame, which begins the new one. */
  z.object({ type: z.literal("split-shot"), frame: Frame, kind: z.enum(["cut", "turn"]) }),
  z.object({ type: z.literal("join-shots"), shotIds: ShotIds }),
  /** Moves where a shot begins, and the one before it ends. */
  z.object({ type: z.literal("move-cut"), shotId: z.string(), frame: Frame }),
  z.object({
    type: z.literal("change-shots"),
    shotIds: ShotIds,
    change: ShotChange,
  }),
  /** Decides again, from what was found, which places are cuts. */
  z.object({ type: z.literal("set-sensitivity"), sensitivity: Sensitivity }),
  /** Cuts the film as a list says that was brought in. */
  z.object({ type: z.literal("set-transitions"), transitions: z.array(StoredTransition) }),
  /** Puts shots back as they were; what undoes the commands above. */
  z.object({
    type: z.literal("restore-shots"),
    remove: z.array(z.string()),
    shots: z.array(Shot),
    framings: z.array(z.object({ versionId: z.string(), shotId: z.string(), settings: FramingChange })),
    sensitivity: Sensitivity.optional(),
  }),
  /** Draws a box around a thing at a frame, or takes it away, and says what the shot follows from then on. */
  z.object({
    type: z.literal("put-mark"),
    thing: z.string().min(1).max(40),
    frame: Frame,
    box: Box.nullable(),
    follow: z.object({ shotId: z.string(), subject: z.string().regex(STORED_RULE) }).nullable(),
  }),
  /** Takes parts of a track away, or joins it to another; null leaves it as it was found. */
  z.object({ type: z.literal("edit-track"), trackId: z.string().min(1), edit: TrackEdit.nullable() }),
  /** Says what somebody is called, and who else they are. */
  z.object({ type: z.literal("change-person"), person: Person }),
  z.object({
    type: z.literal("add-version"),
    version: z.object({ id: z.string().min(1), name: z.string().trim().min(1), width: EvenSide, height: EvenSide }),
  }),
  z.object({ type: z.literal("remove-version"), versionId: z.string() }),
]);
export type Command = z.infer<typeof Command>;

function describeFraming(change: FramingChange): string {
  if (change.manner !== undefined) return "change of manner";
  if (change.calm !== undefined) return "change of calmness";
  if (change.enlargement !== undefined) return "change of how far to enlarge";
  return change.zoom ? "change of zoom" : "change of headroom";
}

function describeChange(change: Extract<Command, { type: "change-shots" }>["change"]): string {
  if (change.excluded !== undefined) return change.excluded ? "exclusion" : "end of an exclusion";
  if (change.name !== undefined) return "name of a shot";
  if (change.subject !== undefined) return "change of subject";
  if (change.protect !== undefined) return change.protect ? "protection of a part" : "end of a protection";
  return "change of how a shot begins";
}

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
    case "set-framing":
      return describeFraming(command.change);
    case "split-shot":
      return command.kind === "turn" ? "turn" : "split of a shot";
    case "join-shots":
      return "join of shots";
    case "move-cut":
      return "move of a cut";
    case "change-shots":
      return describeChange(command.change);
    case "set-sensitivity":
      return "sensitivity to cuts";
    case "set-transitions":
      return "cuts from a list";
    case "restore-shots":
      return "shots";
    case "put-mark":
      return command.box ? "mark" : "removal of a mark";
    case "edit-track":
      return "change of a track";
    case "change-person":
      return "change of a person";
    case "add-version":
      return "new version";
    case "remove-version":
      return "removal of a version";
  }
}
