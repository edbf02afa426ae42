import { z } from "zod";
import { Caption, MOST_CAPTIONS } from "../captions/caption";
import { CaptionSettings } from "../captions/caption-settings";
import { CheckLimits, ReviewedFlags } from "../checks/check-settings";
import { OutputSettings } from "../formats/output-settings";
import { Layer } from "../composition/layers/layer";
import { SafeArea } from "../composition/layers/safe-area";
import { PaneNumber } from "../composition/stack";
import { Box } from "../geometry/box";
import { Id, ShotId, TrackId } from "../basics/ids";
import { HandKey } from "../path/hand-key";
import { Shot } from "../shots/shot";
import { Transition } from "../shots/transition";
import { AttentionSettings } from "../subjects/attention/attention-settings";
import { TrackEdit } from "../subjects/tracking/edit-tracks";
import { Frame, FrameRange } from "../time/rate";
import { PersonEdit, Version } from "../version/film-state";
import { ShotInVersion, ShotSetting, UsualInVersion } from "../version/settle";
import { LengthLimit } from "../version/trim";

/** Everything an editor can change, as data: it is sent by the interface, applied by `applyEdit`, and stored. */

/** No film has more shots or cuts that are changed at once. */
const MOST = 20_000;
/** More than this nobody does in one step. */
const MOST_IN_A_BATCH = 1000;
const ShotIds = z.array(ShotId).min(1).max(MOST);
const Ranges = z.array(FrameRange).min(1).max(MOST);

/** How a range of hand keys came to be another. */
export const KEY_CHANGES = ["deleted", "steered", "smoothed", "shifted", "reversed"] as const;

/** How captions came to be others. */
export const CAPTION_CHANGES = [
  "added",
  "changed",
  "deleted",
  "moved",
  "split",
  "merged",
  "replaced",
  "imported",
  "timed",
  "mended",
] as const;

/** What can be set for several shots at once; what is left out stays. */
export const ShotChange = Shot.pick({
  follow: true,
  name: true,
  excluded: true,
  carry: true,
  begins: true,
  protect: true,
  active: true,
}).partial();
export type ShotChange = z.infer<typeof ShotChange>;

/** What can be set for a version as a whole; what is left out stays. */
export const VersionChange = z
  .object({
    name: Version.shape.name,
    width: Version.shape.width,
    height: Version.shape.height,
    limitSeconds: LengthLimit.nullable(),
    usual: UsualInVersion,
    safeArea: SafeArea.nullable(),
    captions: CaptionSettings,
    checkLimits: CheckLimits,
    reviewedFlags: ReviewedFlags,
    output: OutputSettings,
  })
  .partial();
export type VersionChange = z.infer<typeof VersionChange>;

const SingleCommand = z.discriminatedUnion("type", [
  /** Puts the window somewhere at a frame. */
  z.object({ type: z.literal("set-key"), versionId: Id, key: HandKey }),
  /** Gives a frame back to the solver. */
  z.object({ type: z.literal("remove-key"), versionId: Id, pane: PaneNumber.default(0), frame: Frame }),
  /** Moves a hand key in time and place; it stays in its pane. */
  z.object({ type: z.literal("move-key"), versionId: Id, fromFrame: Frame, key: HandKey }),
  /** Puts other hand keys in the place of those that a pane has in a range, none of them beyond it. */
  z.object({
    type: z.literal("replace-keys"),
    versionId: Id,
    pane: PaneNumber.default(0),
    range: FrameRange,
    keys: z.array(HandKey).max(MOST),
    how: z.enum(KEY_CHANGES),
  }),
  /** Says how a version frames shots, whom it follows in them and what it protects; or leaves it at the usual again. */
  z.object({
    type: z.literal("set-framing"),
    versionId: Id,
    shotIds: ShotIds,
    change: ShotInVersion,
    reset: z.array(ShotSetting).max(ShotSetting.options.length).optional(),
  }),
  /** Splits the shot that holds the frame, which begins the new one. */
  z.object({ type: z.literal("split-shot"), frame: Frame, kind: z.enum(["cut", "switch"]) }),
  z.object({ type: z.literal("join-shots"), shotIds: ShotIds }),
  /** Moves where a shot begins, and the one before it ends. */
  z.object({ type: z.literal("move-cut"), shotId: ShotId, frame: Frame }),
  /** Changes what the film says of shots. */
  z.object({ type: z.literal("change-shots"), shotIds: ShotIds, change: ShotChange }),
  /** Decides again, from what was found, which places are cuts. */
  z.object({ type: z.literal("set-sensitivity"), sensitivity: z.int().min(0).max(100) }),
  /** Says how attention passes on within all shots of which neither a version nor the shot says otherwise. */
  z.object({ type: z.literal("set-attention"), attention: AttentionSettings }),
  /** Cuts the film as a list says that was brought in. */
  z.object({ type: z.literal("set-transitions"), transitions: z.array(Transition).max(MOST) }),
  /** Draws a box around a thing at a frame, or takes it away. */
  z.object({ type: z.literal("put-mark"), thing: Id, frame: Frame, box: Box.nullable() }),
  /** Takes parts of a track away, or joins it to another; null leaves it as it was found. */
  z.object({ type: z.literal("edit-track"), trackId: TrackId, edit: TrackEdit.nullable() }),
  /** Says what somebody is called, and who else they are. */
  z.object({ type: z.literal("change-person"), person: PersonEdit }),
  z.object({ type: z.literal("add-version"), version: Version }),
  /** Makes another version that is like one in all but its id and name. */
  z.object({ type: z.literal("duplicate-version"), versionId: Id, id: Id, name: Version.shape.name }),
  /** Changes a version; in another shape its hand keys keep their zoom and their place. */
  z.object({ type: z.literal("change-version"), versionId: Id, change: VersionChange }),
  z.object({ type: z.literal("remove-version"), versionId: Id }),
  /** Puts a layer in the place of the one with its id, or in front of all. */
  z.object({ type: z.literal("put-layer"), versionId: Id, layer: Layer }),
  z.object({ type: z.literal("remove-layer"), versionId: Id, layerId: Id }),
  /** Gives a layer another place in the order; 0 is behind all others. */
  z.object({ type: z.literal("move-layer"), versionId: Id, layerId: Id, to: z.int().min(0) }),
  /** Says with which frame a version begins, and which is the first that it does not show any more; null for the film's. */
  z.object({
    type: z.literal("trim-version"),
    versionId: Id,
    in: Frame.nullable().optional(),
    out: Frame.nullable().optional(),
  }),
  /** Says with which frame of its own a clip begins, and which it does not show any more; null for all of it. */
  z.object({ type: z.literal("trim-clip"), clipId: Id, in: Frame.nullable(), out: Frame.nullable() }),
  /** Leaves ranges out of a version, or brings back what of them is left out. */
  z.object({ type: z.literal("leave-out"), versionId: Id, ranges: Ranges }),
  z.object({ type: z.literal("bring-back"), versionId: Id, ranges: Ranges }),
  /** Takes captions away, and puts others in their place, or the same with something changed. */
  z.object({
    type: z.literal("change-captions"),
    removed: z.array(Id).max(MOST_CAPTIONS),
    put: z.array(Caption).max(MOST_CAPTIONS),
    how: z.enum(CAPTION_CHANGES),
  }),
]);
export type SingleCommand = z.infer<typeof SingleCommand>;

/** What the interface can ask for. */
export const Command = z.discriminatedUnion("type", [
  ...SingleCommand.options,
  /** Several changes as one: all or none of them, and one step to undo. */
  z.object({ type: z.literal("batch"), commands: z.array(SingleCommand).min(1).max(MOST_IN_A_BATCH) }),
]);
export type Command = z.infer<typeof Command>;
