import { z } from "zod";
import { Id, ShotId, TrackId } from "../ids";
import { FramingChange } from "../path/framing-settings";
import { Easing } from "../path/easing";
import { TRANSITION_KINDS } from "../shots/transition";
import { STORED_RULE } from "../subjects/choosing/follow-rule";

/**
 * Everything an editor can change, as data: it is sent by the interface, stored, and undone by its inverse, which is a
 * command as well.
 */

const Frame = z.int().min(0);
/** Pixels of the source's picture; no picture has more. */
const Pixels = z.number().min(-100_000).max(100_000);
const Length = Pixels.positive();
const HandKey = z.object({
  frame: Frame,
  x: Pixels,
  y: Pixels,
  height: Length,
  // Changes that were stored before keys had one leave it to the solver.
  easing: Easing.nullable().default(null),
});
const Range = z
  .object({ start: Frame, end: Frame })
  .refine(({ start, end }) => start <= end, { error: "A range ends no earlier than it starts" });
/** No film has more shots, keys or cuts that are changed at once. */
const MOST = 20_000;
const ShotIds = z.array(ShotId).min(1).max(MOST);
const Sensitivity = z.int().min(0).max(100);
const StoredTransition = z.object({ frame: Frame, kind: z.enum(TRANSITION_KINDS), range: Range });
const Box = z.object({ x: Pixels, y: Pixels, width: Length, height: Length });
const StoredRule = z.string().max(100).regex(STORED_RULE);
const Shot = z.object({
  id: ShotId,
  start: Frame,
  end: Frame,
  begins: z.enum(TRANSITION_KINDS),
  mixed: Range,
  carry: z.boolean(),
  /** As `followRule` reads it. */
  subject: StoredRule,
  name: z.string().trim().max(80).nullable(),
  excluded: z.boolean(),
  // Changes that were stored before shots had one protect nothing.
  protect: Box.nullable().default(null),
  // … and have no bars.
  active: Box.nullable().default(null),
});
/** What can be set for several shots at once; what is left out stays. */
const ShotChange = Shot.pick({ subject: true, name: true, excluded: true, carry: true, begins: true })
  .partial()
  .extend({ protect: Box.nullable().optional(), active: Box.nullable().optional() });
const TrackEdit = z.object({ removed: z.array(Range).max(MOST), joinedTo: TrackId.nullable() });
const Person = z.object({
  id: Id,
  name: z.string().trim().min(1).max(60).nullable(),
  mergedInto: Id.nullable(),
});
const EvenSide = z
  .int()
  .min(16, "at least 16 pixels")
  .max(8192, "at most 8192 pixels")
  .refine((side) => side % 2 === 0, "an even number of pixels");

/** What the interface can ask for. */
export const Command = z.discriminatedUnion("type", [
  /** Puts the window somewhere at a frame. */
  z.object({ type: z.literal("set-key"), versionId: Id, key: HandKey }),
  /** Gives a frame back to the solver. */
  z.object({ type: z.literal("remove-key"), versionId: Id, frame: Frame }),
  /** Moves a hand key in time and place. */
  z.object({ type: z.literal("move-key"), versionId: Id, fromFrame: Frame, key: HandKey }),
  z.object({
    type: z.literal("set-framing"),
    versionId: Id,
    shotIds: ShotIds,
    change: FramingChange,
  }),
  /** Splits the shot that holds the frame, which begins the new one. */
  z.object({ type: z.literal("split-shot"), frame: Frame, kind: z.enum(["cut", "turn"]) }),
  z.object({ type: z.literal("join-shots"), shotIds: ShotIds }),
  /** Moves where a shot begins, and the one before it ends. */
  z.object({ type: z.literal("move-cut"), shotId: ShotId, frame: Frame }),
  z.object({
    type: z.literal("change-shots"),
    shotIds: ShotIds,
    change: ShotChange,
  }),
  /** Decides again, from what was found, which places are cuts. */
  z.object({ type: z.literal("set-sensitivity"), sensitivity: Sensitivity }),
  /** Cuts the film as a list says that was brought in. */
  z.object({ type: z.literal("set-transitions"), transitions: z.array(StoredTransition).max(MOST) }),
  /** Draws a box around a thing at a frame, or takes it away, and says what the shot follows from then on. */
  z.object({
    type: z.literal("put-mark"),
    thing: Id,
    frame: Frame,
    box: Box.nullable(),
    follow: z.object({ shotId: ShotId, subject: StoredRule }).nullable(),
  }),
  /** Takes parts of a track away, or joins it to another; null leaves it as it was found. */
  z.object({ type: z.literal("edit-track"), trackId: TrackId, edit: TrackEdit.nullable() }),
  /** Says what somebody is called, and who else they are. */
  z.object({ type: z.literal("change-person"), person: Person }),
  z.object({
    type: z.literal("add-version"),
    version: z.object({ id: Id, name: z.string().trim().min(1).max(80), width: EvenSide, height: EvenSide }),
  }),
  z.object({ type: z.literal("remove-version"), versionId: Id }),
]);
export type Command = z.infer<typeof Command>;

/** What is kept of changes: the commands, and those that only take others back, which nobody can send. */
export const StoredCommand = z.discriminatedUnion("type", [
  ...Command.options,
  /** Puts back exactly these hand keys between two frames; what undoes a move onto another key. */
  z.object({
    type: z.literal("restore-keys"),
    versionId: Id,
    frames: z.array(Frame),
    keys: z.array(HandKey),
  }),
  /** Puts shots back as they were; what undoes the commands above. */
  z.object({
    type: z.literal("restore-shots"),
    remove: z.array(z.string()),
    shots: z.array(Shot),
    framings: z.array(z.object({ versionId: Id, shotId: ShotId, settings: FramingChange })),
    sensitivity: Sensitivity.optional(),
  }),
]);
export type StoredCommand = z.infer<typeof StoredCommand>;

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
  if (change.active !== undefined) return "change of the active area";
  if (change.protect !== undefined) return change.protect ? "protection of a part" : "end of a protection";
  return "change of how a shot begins";
}

/** What a command does, for the history and for messages: "Undone: move of a key". */
export function describeCommand(command: StoredCommand): string {
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
