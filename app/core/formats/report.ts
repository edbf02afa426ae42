import { z } from "zod";
import { Caption } from "../captions/caption";
import type { Box, Size } from "../geometry/box";
import type { CropWindow } from "../geometry/crop-window";
import { Easing } from "../path/easing";
import type { Key } from "../path/keys";
import { MOVEMENTS } from "../path/movement";
import { transitionInto } from "../shots/shot";
import { isGradual, type Transition, TRANSITION_KINDS } from "../shots/transition";
import { Backdrop } from "../composition/backdrop";
import { PanePicture } from "../composition/stack";
import { Edge } from "../composition/edge";
import { TRACK_KINDS } from "../subjects/detecting/detection";
import { SWITCH_CAUSES } from "../subjects/attention/switches";
import type { FollowSpan } from "../subjects/choosing/follow-plan";
import type { Track } from "../subjects/tracking/track";
import type { Lacking } from "../checks/lacking-pictures";
import { type FrameRange, framesIn, type Rate } from "../time/rate";
import type { LaidShot, LaidVersion } from "../version/lay";
import { ListedFlag } from "./flags";

/**
 * The report of a conversion: what was found and where the window went, as an open format (docs/formats.md).
 * Frames are integers on the film's grid, ranges half-open, places in source pixels as displayed.
 */

const Frame = z.int().min(0);
const Side = z.int().positive();
const BoxTuple = z.tuple([z.number(), z.number(), z.number(), z.number()]);

/** [x, y, height] of a window. */
const WindowTuple = z.tuple([z.number(), z.number(), z.number()]);

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

export interface FoundShotData {
  range: FrameRange;
  /** How it begins. */
  begins: Transition;
  subjectId: string | null;
  reason: string;
  certainty: number;
  tracks: readonly Track[];
  /** What is followed when, in order. */
  spans: readonly Omit<FollowSpan, "subject">[];
  active: Box | null;
}

export interface ReportedFilm {
  file: string;
  picture: Size;
  rate: Rate;
  frames: number;
  lacking?: Lacking;
}

/** Thousandths of a pixel are more than anybody can see, and keep the file small. */
const rounded = (value: number): number => Math.round(value * 1000) / 1000;
/** Boxes are measured in whole small-frame pixels at best. */
const tenths = (value: number): number => Math.round(value * 10) / 10;
const boxTuple = (box: Box): [number, number, number, number] => [
  tenths(box.x),
  tenths(box.y),
  tenths(box.width),
  tenths(box.height),
];

const pairsOf = (ranges: readonly FrameRange[]) => ranges.map(({ start, end }): [number, number] => [start, end]);

const sourceOf = ({ file, picture, rate, frames, lacking }: ReportedFilm): Report["source"] => ({
  file,
  width: picture.width,
  height: picture.height,
  rate: [rate.num, rate.den],
  frames,
  ...(lacking && lacking.held > 0 ? { repeated: { frames: lacking.held, ranges: pairsOf(lacking.longHolds) } } : {}),
  ...(lacking && lacking.undecoded.length > 0 ? { undecoded: pairsOf(lacking.undecoded) } : {}),
  ...(lacking && lacking.cutOff > 0 ? { cutOff: lacking.cutOff } : {}),
});

const reportSwitch = ({ start, trackIds, cause, comesBy }: FoundShotData["spans"][number]) => ({
  ...{ frame: start, tracks: [...trackIds], cause, by: comesBy },
});

const foundShot = ({
  range,
  begins,
  subjectId,
  reason,
  certainty,
  spans,
  active,
}: FoundShotData): AnalysisReport["shots"][number] => ({
  start: range.start,
  end: range.end,
  transition: begins.kind,
  ...(isGradual(begins) ? { range: [begins.range.start, begins.range.end] as [number, number] } : {}),
  subject: subjectId,
  reason,
  certainty: rounded(certainty),
  ...(spans.length > 1 ? { switches: spans.map(reportSwitch) } : {}),
  ...(active ? { active: boxTuple(active) } : {}),
});

const reportTracks = (shots: readonly FoundShotData[]): Report["tracks"] =>
  shots.flatMap(({ tracks }, shot) =>
    tracks.map((track) => ({
      id: track.id,
      kind: track.kind,
      shot,
      start: track.start,
      boxes: track.boxes.map((box) => box && boxTuple(box)),
      confidence: rounded(track.confidence),
      ...(track.label ? { label: track.label } : {}),
      ...(track.who ? { who: track.who } : {}),
      ...(track.personId ? { person: track.personId } : {}),
      ...(track.facing ? { facing: track.facing.map(({ frame, side }): [number, number] => [frame, side]) } : {}),
      ...(track.speaking ? { speaking: pairsOf(track.speaking) } : {}),
      ...(track.acting ? { acting: pairsOf(track.acting) } : {}),
    })),
  );

/** Builds the report of what was found in a film. */
export const makeAnalysisReport = (film: ReportedFilm, shots: readonly FoundShotData[]): AnalysisReport => ({
  format: "glad-pan/analysis",
  version: 2,
  source: sourceOf(film),
  shots: shots.map(foundShot),
  tracks: reportTracks(shots),
});

const windowTuple = ({ x, y, height }: CropWindow): z.infer<typeof WindowTuple> => [
  rounded(x),
  rounded(y),
  rounded(height),
];

const reportKeys = (keys: readonly Key[]) =>
  keys.map((key) => ({ ...key, x: rounded(key.x), y: rounded(key.y), height: rounded(key.height) }));

/** What is told of a shot that does not fill its frame, or with several panes. */
function laidOutOf({ laidOut: { panes, own = [], backdrop, edge }, others }: LaidShot) {
  if (!backdrop && others.length === 0) return {};
  const [first, ...rest] = panes.map(boxTuple);
  return {
    pane: first!,
    ...(backdrop ? { backdrop: backdrop.look, edge } : {}),
    ...(others.length > 0
      ? {
          others: others.map(({ subjectId, movement, keys, windows }, i) => ({
            ...{
              pane: rest[i]!,
              subject: subjectId,
              movement,
              keys: reportKeys(keys),
              windows: windows.map(windowTuple),
              ...(own[i + 1] ? { own: own[i + 1]! } : {}),
            },
          })),
        }
      : {}),
  };
}

const foundIn = ({ set: { shot }, ...laid }: LaidShot): FoundShotData => ({
  ...{ ...laid, begins: transitionInto(shot), active: shot.active },
});

/** Builds the report of one conversion. */
export const makeReport = (film: ReportedFilm, { target, shots, ranges }: LaidVersion): Report => ({
  format: "glad-pan/report",
  version: 2,
  source: sourceOf(film),
  target: { width: target.width, height: target.height },
  ...(framesIn(ranges) < framesIn(shots.map(({ range }) => range)) ? { kept: pairsOf(ranges) } : {}),
  shots: shots.map((shot) => ({
    ...foundShot(foundIn(shot)),
    movement: shot.movement,
    movementReason: shot.movementReason,
    keys: reportKeys(shot.keys),
    ...laidOutOf(shot),
  })),
  tracks: reportTracks(shots.map(foundIn)),
  windows: shots.flatMap(({ windows }) => windows.map(windowTuple)),
});
