import { z } from "zod";
import { Caption } from "../captions/caption";
import { Easing } from "../path/easing";
import { MOVEMENTS } from "../path/movement";
import { TRANSITION_KINDS } from "../shots/transition";
import { Backdrop } from "../composition/backdrop";
import { PanePicture } from "../composition/stack";
import { Edge } from "../composition/edge";
import { Words } from "../subjects/text/words";
import { TRACK_KINDS } from "../subjects/detecting/detection";
import { SWITCH_CAUSES } from "../subjects/attention/switches";
import { ListedFlag } from "./flags";

/**
 * The report of a conversion: findings and windows, as an open format (docs/formats.md). Frames are integers on the film's
 * grid, ranges half-open, places in source pixels as displayed.
 */

const Frame = z.int().min(0);
const Side = z.int().positive();
const BoxTuple = z.tuple([z.number(), z.number(), z.number(), z.number()]);

/** [x, y, height] of a window. */
export const WindowTuple = z.tuple([z.number(), z.number(), z.number()]);

const ReportKey = z.object({
  frame: Frame,
  /** Centre of the window. */
  x: z.number(),
  y: z.number(),
  height: z.number().positive(),
  easing: Easing,
  by: z.enum(["solver", "hand"]),
});

const Share = z.number().min(0).max(1);

const FoundShot = z.object({
  start: Frame,
  end: Frame,
  /** Its transition; the first shot of the range begins with a cut. */
  transition: z.enum(TRANSITION_KINDS),
  /** Frames mixed by a dissolve, wipe or fade. */
  range: z.tuple([Frame, Frame]).optional(),
  /** The track that is followed, or followed most; null where nothing is. */
  subject: z.string().nullable(),
  /** Why, in words, and how certain that is. */
  reason: z.string(),
  certainty: Share,
  /** What is followed from which frame on, where that changes within the shot; an empty list for nothing. */
  switches: z
    .array(
      z.object({
        frame: Frame,
        tracks: z.array(z.string()),
        /** Reason; null for the start of the shot. */
        cause: z.enum(SWITCH_CAUSES).nullable(),
        /** How the window gets there. */
        by: z.enum(["cut", "pan"]),
      }),
    )
    .optional(),
  /** The picture area without letterbox; left out where there is none. */
  active: BoxTuple.optional(),
});
const endsAfterStart = (shot: { start: number; end: number }) => shot.end > shot.start;
const WRONG_ORDER = "a shot must end after it starts";

const ReportShot = FoundShot.extend({
  movement: z.enum(MOVEMENTS),
  /** Why that movement; null where it was set. */
  movementReason: z.string().nullable(),
  keys: z.array(ReportKey).min(1),
  /** Box of the film in the frame; left out where it covers all of it. The windows have its aspect ratio. */
  pane: BoxTuple.optional(),
  /** The backdrop then. */
  backdrop: Backdrop.optional(),
  /** Its edge then. */
  edge: Edge.optional(),
  /** The second and third pane of a stack; the shot's own fields are those of its first. */
  others: z
    .array(
      z.object({
        pane: BoxTuple,
        subject: z.string().nullable(),
        movement: z.enum(MOVEMENTS),
        keys: z.array(ReportKey).min(1),
        /** One per frame of the shot. */
        windows: z.array(WindowTuple),
        /** Shown in the pane instead of the film; the windows are then meaningless. */
        own: PanePicture.optional(),
      }),
    )
    .optional(),
}).refine(endsAfterStart, WRONG_ORDER);

const ReportTrack = z.object({
  id: z.string().min(1),
  kind: z.enum(TRACK_KINDS),
  /** Index into `shots`. */
  shot: z.int().min(0),
  start: Frame,
  boxes: z.array(BoxTuple.nullable()),
  /** Confidence of the detectors. */
  confidence: Share,
  /** Class of a thing. */
  label: z.string().optional(),
  /** Identity, the same through the whole film. */
  who: z.string().optional(),
  /** For a face, the track of its person. */
  person: z.string().optional(),
  /** For text: what was read. */
  words: Words.optional(),
  /** For text that may be part of the scene. */
  mayBeSign: z.literal(true).optional(),
  /** For a face, when it speaks: [start, end). */
  speaking: z.array(z.tuple([Frame, Frame])).optional(),
  /** When it moves by itself: [start, end). */
  acting: z.array(z.tuple([Frame, Frame])).optional(),
  /** For a face, its direction: [frame, sine of the head's turn, positive to the right of the picture]. */
  facing: z.array(z.tuple([Frame, z.number().min(-1).max(1)])).optional(),
});

const Source = z.object({
  file: z.string(),
  width: Side,
  height: Side,
  /** Frames per second as [numerator, denominator]. */
  rate: z.tuple([z.int().positive(), z.int().positive()]),
  frames: z.int().positive(),
  /** Frames that repeat the one before because the film lacks their pictures; left out if there are none. */
  repeated: z
    .object({
      frames: z.int().positive(),
      /** Where that lasts long: [start, end). */
      ranges: z.array(z.tuple([Frame, Frame])),
    })
    .optional(),
  /** Frames whose pictures cannot be decoded, [start, end); left out if there are none. */
  undecoded: z.array(z.tuple([Frame, Frame])).optional(),
  /** Frames that the file announces after these, and lacks; left out if it is complete. */
  cutOff: z.int().positive().optional(),
});

/** Findings in a film, without a version. */
export const AnalysisReport = z.object({
  format: z.literal("glad-pan/analysis"),
  version: z.literal(2),
  source: Source,
  shots: z.array(FoundShot.refine(endsAfterStart, WRONG_ORDER)).min(1),
  tracks: z.array(ReportTrack),
});
export type AnalysisReport = z.infer<typeof AnalysisReport>;

export const Report = z.object({
  format: z.literal("glad-pan/report"),
  version: z.literal(2),
  source: Source,
  target: z.object({ width: Side, height: Side }),
  /** The ranges of the shots that were converted, [start, end); left out where it is all of them. */
  kept: z.array(z.tuple([Frame, Frame])).optional(),
  shots: z.array(ReportShot).min(1),
  tracks: z.array(ReportTrack),
  /** [x, y, height] for every source frame of the converted range. */
  windows: z.array(WindowTuple),
  /** Flags; left out where the film was not checked. */
  flags: z.array(ListedFlag).optional(),
  /** Captions, in frames of the film; left out where none were given. */
  captions: z.array(Caption.omit({ id: true })).optional(),
});
export type Report = z.infer<typeof Report>;
