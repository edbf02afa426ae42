import { z } from "zod";
import { Caption } from "../captions/caption";
import { Easing } from "../path/easing";
import { MOVEMENTS } from "../path/movement";
import { TRANSITION_KINDS } from "../shots/transition";
import { Backdrop } from "../composition/backdrop";
import { PanePicture } from "../composition/stack";
import { Edge } from "../composition/edge";
import { TRACK_KINDS } from "../subjects/detecting/detection";
import { SWITCH_CAUSES } from "../subjects/attention/switches";
import { ListedFlag } from "./flags";

/**
 * The report of a conversion: what was found and where the window went, as an open format (docs/formats.md).
 * Frames are integers on the film's grid, ranges half-open, places in source pixels as displayed.
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
  /** How it begins; the first shot of the range begins with a cut. */
  transition: z.enum(TRANSITION_KINDS),
  /** For a dissolve, wipe or fade, the frames that are mixed. */
  range: z.tuple([Frame, Frame]).optional(),
  /** The track that is followed, or followed most; null where nothing is. */
  subject: z.string().nullable(),
  /** Why, in words, and how sure that is. */
  reason: z.string(),
  certainty: Share,
  /** What is followed from when on, where that changes within the shot; none for nothing. */
  switches: z
    .array(
      z.object({
        frame: Frame,
        tracks: z.array(z.string()),
        /** Why; null for what the shot begins with. */
        cause: z.enum(SWITCH_CAUSES).nullable(),
        /** How the window gets there. */
        by: z.enum(["cut", "pan"]),
      }),
    )
    .optional(),
  /** The part of the picture that is not the film's own bars; left out where it has none. */
  active: BoxTuple.optional(),
});
const endsAfterStart = (shot: { start: number; end: number }) => shot.end > shot.start;
const WRONG_ORDER = "a shot must end after it starts";

const ReportShot = FoundShot.extend({
  movement: z.enum(MOVEMENTS),
  /** Why that movement; null where it was asked for. */
  movementReason: z.string().nullable(),
  keys: z.array(ReportKey).min(1),
  /** Where the film is shown in the frame; left out where it covers all of it. The windows have its shape. */
  pane: BoxTuple.optional(),
  /** What lies behind it then. */
  backdrop: Backdrop.optional(),
  /** How its border looks then. */
  edge: Edge.optional(),
  /** The second and third pane of a stack; what is told of the shot itself is its first one's. */
  others: z
    .array(
      z.object({
        pane: BoxTuple,
        subject: z.string().nullable(),
        movement: z.enum(MOVEMENTS),
        keys: z.array(ReportKey).min(1),
        /** One for each frame of the shot. */
        windows: z.array(WindowTuple),
        /** What the pane shows instead of the film, whose windows say nothing then. */
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
  /** How sure the detectors were. */
  confidence: Share,
  /** What kind of thing it is. */
  label: z.string().optional(),
  /** Who it is; the same through the whole film. */
  who: z.string().optional(),
  /** For a face, the person's track that it belongs to. */
  person: z.string().optional(),
  /** For a face, when it speaks: [start, end). */
  speaking: z.array(z.tuple([Frame, Frame])).optional(),
  /** When it moves by itself: [start, end). */
  acting: z.array(z.tuple([Frame, Frame])).optional(),
  /** For a face, which way it looks: [frame, sine of the head's turn, positive to the right of the picture]. */
  facing: z.array(z.tuple([Frame, z.number().min(-1).max(1)])).optional(),
});

const Source = z.object({
  file: z.string(),
  width: Side,
  height: Side,
  /** Frames per second as [numerator, denominator]. */
  rate: z.tuple([z.int().positive(), z.int().positive()]),
  frames: z.int().positive(),
  /** Frames that repeat the one before because the film has no picture of its own for them; left out if there are none. */
  repeated: z
    .object({
      frames: z.int().positive(),
      /** Where that lasts long: [start, end). */
      ranges: z.array(z.tuple([Frame, Frame])),
    })
    .optional(),
  /** Frames whose pictures cannot be decoded, [start, end); left out if there are none. */
  undecoded: z.array(z.tuple([Frame, Frame])).optional(),
  /** Frames that the file claims to have after these, and lacks; left out if it is whole. */
  cutOff: z.int().positive().optional(),
});

/** What is found in a film, without a version. */
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
  /** What was converted of the shots, [start, end); left out where it is all of them. */
  kept: z.array(z.tuple([Frame, Frame])).optional(),
  shots: z.array(ReportShot).min(1),
  tracks: z.array(ReportTrack),
  /** [x, y, height] for every source frame of the converted range. */
  windows: z.array(WindowTuple),
  /** What deserves a flag; left out where nobody has looked. */
  flags: z.array(ListedFlag).optional(),
  /** What is said, in frames of the film; left out where nothing was brought along. */
  captions: z.array(Caption.omit({ id: true })).optional(),
});
export type Report = z.infer<typeof Report>;
