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

/** Every change an editor can make, as data: sent by the interface, applied by `applyEdit`, and stored. */

/** Most shots or cuts that are changed at once. */
const MOST = 20_000;
/** Most changes in one step. */
const MOST_IN_A_BATCH = 1000;
const ShotIds = z.array(ShotId).min(1).max(MOST);
const Ranges = z.array(FrameRange).min(1).max(MOST);

/** How a range of hand keys was changed. */
export const KEY_CHANGES = ["deleted", "steered", "smoothed", "shifted", "reversed"] as const;

/** How captions were changed. */
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

/** Settings of several shots at once; those left out stay. */
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

/** Settings of a version as a whole; those left out stay. */
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
  /** Places the window at a frame. */
  z.object({ type: z.literal("set-key"), versionId: Id, key: HandKey }),
  /** Removes a hand key. */
  z.object({ type: z.literal("remove-key"), versionId: Id, pane: PaneNumber.default(0), frame: Frame }),
  /** Moves a hand key in time and place, within its pane. */
  z.object({ type: z.literal("move-key"), versionId: Id, fromFrame: Frame, key: HandKey }),
  /** Replaces the hand keys of a pane in a range; all new ones lie in it. */
  z.object({
    type: z.literal("replace-keys"),
    versionId: Id,
    pane: PaneNumber.default(0),
    range: FrameRange,
    keys: z.array(HandKey).max(MOST),
    how: z.enum(KEY_CHANGES),
  }),
  /**
   * Sets how a version frames shots, whom it follows in them and what it protects; or returns them to the usual settings.
   */
  z.object({
    type: z.literal("set-framing"),
    versionId: Id,
    shotIds: ShotIds,
    change: ShotInVersion,
    reset: z.array(ShotSetting).max(ShotSetting.options.length).optional(),
  }),
  /** Splits the shot that contains the frame, with which the new one begins. */
  z.object({ type: z.literal("split-shot"), frame: Frame, kind: z.enum(["cut", "switch"]) }),
  z.object({ type: z.literal("join-shots"), shotIds: ShotIds }),
  /** Moves the start of a shot, and with it the end of the one before. */
  z.object({ type: z.literal("move-cut"), shotId: ShotId, frame: Frame }),
  /** Changes the film's settings of shots. */
  z.object({ type: z.literal("change-shots"), shotIds: ShotIds, change: ShotChange }),
  /** Decides again, from the evidence found, which places are cuts. */
  z.object({ type: z.literal("set-sensitivity"), sensitivity: z.int().min(0).max(100) }),
  /** Sets how attention switches in all shots without settings of their own, in a version or the film. */
  z.object({ type: z.literal("set-attention"), attention: AttentionSettings }),
  /** Cuts the film by an imported list. */
  z.object({ type: z.literal("set-transitions"), transitions: z.array(Transition).max(MOST) }),
  /** Draws a mark around a thing at a frame, or removes it. */
  z.object({ type: z.literal("put-mark"), thing: Id, frame: Frame, box: Box.nullable() }),
  /** Removes parts of a track, or joins it to another; null restores what was found. */
  z.object({ type: z.literal("edit-track"), trackId: TrackId, edit: TrackEdit.nullable() }),
  /** Names a person, and says who else they are. */
  z.object({ type: z.literal("change-person"), person: PersonEdit }),
  z.object({ type: z.literal("add-version"), version: Version }),
  /** Makes a copy of a version with its own id and name. */
  z.object({ type: z.literal("duplicate-version"), versionId: Id, id: Id, name: Version.shape.name }),
  /** Changes a version; at another aspect ratio its hand keys keep their zoom and place. */
  z.object({ type: z.literal("change-version"), versionId: Id, change: VersionChange }),
  z.object({ type: z.literal("remove-version"), versionId: Id }),
  /** Replaces the layer with its id, or adds it in front of all. */
  z.object({ type: z.literal("put-layer"), versionId: Id, layer: Layer }),
  z.object({ type: z.literal("remove-layer"), versionId: Id, layerId: Id }),
  /** Moves a layer in the stacking order; 0 is behind all others. */
  z.object({ type: z.literal("move-layer"), versionId: Id, layerId: Id, to: z.int().min(0) }),
  /** Sets the first frame of a version, and the first that it no longer shows; null for the film's. */
  z.object({
    type: z.literal("trim-version"),
    versionId: Id,
    in: Frame.nullable().optional(),
    out: Frame.nullable().optional(),
  }),
  /** Sets the first of its own frames that a clip shows, and the first that it no longer shows; null for all of it. */
  z.object({ type: z.literal("trim-clip"), clipId: Id, in: Frame.nullable(), out: Frame.nullable() }),
  /** Leaves ranges out of a version, or brings them back. */
  z.object({ type: z.literal("leave-out"), versionId: Id, ranges: Ranges }),
  z.object({ type: z.literal("bring-back"), versionId: Id, ranges: Ranges }),
  /** Removes captions, and puts new or changed ones in their place. */
  z.object({
    type: z.literal("change-captions"),
    removed: z.array(Id).max(MOST_CAPTIONS),
    put: z.array(Caption).max(MOST_CAPTIONS),
    how: z.enum(CAPTION_CHANGES),
  }),
]);
export type SingleCommand = z.infer<typeof SingleCommand>;

/** Commands of the interface. */
export const Command = z.discriminatedUnion("type", [
  ...SingleCommand.options,
  /** Several changes as one: all or none of them, and one step to undo. */
  z.object({ type: z.literal("batch"), commands: z.array(SingleCommand).min(1).max(MOST_IN_A_BATCH) }),
]);
export type Command = z.infer<typeof Command>;
