import { z } from "zod";
import type { Box, Size } from "../geometry/box";
import type { CropWindow } from "../geometry/crop-window";
import { EASINGS, type Key } from "../path/keys";
import { type Manner, MANNERS } from "../path/manner";
import { isGradual, type Transition, TRANSITION_KINDS } from "../shots/transition";
import { TRACK_KINDS } from "../subjects/detection";
import type { Track } from "../subjects/track";
import type { FrameRange, Rate } from "../time/rate";

/**
 * The report of a conversion: what was found and where the window went, as an open format (docs/formats.md).
 * Frames are integers on the film's grid, ranges half-open, places in source pixels as displayed.
 */

const Frame = z.int().min(0);
const Side = z.int().positive();
const BoxTuple = z.tuple([z.number(), z.number(), z.number(), z.number()]);

const ReportKey = z.object({
  frame: Frame,
  /** Centre of the window. */
  x: z.number(),
  y: z.number(),
  height: z.number().positive(),
  easing: z.enum(EASINGS),
  by: z.enum(["solver", "hand"]),
});

const ReportShot = z
  .object({
    start: Frame,
    end: Frame,
    /** How it begins; the first shot of the converted range begins with a cut. */
    transition: z.enum(TRANSITION_KINDS),
    /** For a dissolve, wipe or fade, the frames that are mixed. */
    range: z.tuple([Frame, Frame]).optional(),
    manner: z.enum(MANNERS),
    subject: z.string().nullable(),
    keys: z.array(ReportKey).min(1),
  })
  .refine((shot) => shot.end > shot.start, "a shot must end after it starts");

const ReportTrack = z.object({
  id: z.string().min(1),
  kind: z.enum(TRACK_KINDS),
  /** Index into `shots`. */
  shot: z.int().min(0),
  start: Frame,
  boxes: z.array(BoxTuple.nullable()),
});

export const Report = z.object({
  format: z.literal("glad-pan/report"),
  version: z.literal(1),
  source: z.object({
    file: z.string(),
    width: Side,
    height: Side,
    /** Frames per second as [numerator, denominator]. */
    rate: z.tuple([z.int().positive(), z.int().positive()]),
    frames: z.int().positive(),
  }),
  target: z.object({ width: Side, height: Side }),
  shots: z.array(ReportShot).min(1),
  tracks: z.array(ReportTrack),
  /** [x, y, height] for every source frame of the converted range. */
  windows: z.array(z.tuple([z.number(), z.number(), z.number()])),
});
export type Report = z.infer<typeof Report>;

export interface ReportedShot {
  range: FrameRange;
  /** How it begins. */
  begins: Transition;
  manner: Manner;
  subjectId: string | null;
  keys: readonly Key[];
  tracks: readonly Track[];
  windows: readonly CropWindow[];
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

/** Builds the report of one conversion. */
export function makeReport(
  source: { file: string; picture: Size; rate: Rate; frames: number },
  target: Size,
  shots: readonly ReportedShot[],
): Report {
  return {
    format: "glad-pan/report",
    version: 1,
    source: {
      file: source.file,
      width: source.picture.width,
      height: source.picture.height,
      rate: [source.rate.num, source.rate.den],
      frames: source.frames,
    },
    target: { width: target.width, height: target.height },
    shots: shots.map(({ range, begins, manner, subjectId, keys }) => ({
      start: range.start,
      end: range.end,
      transition: begins.kind,
      ...(isGradual(begins) ? { range: [begins.range.start, begins.range.end] as [number, number] } : {}),
      manner,
      subject: subjectId,
      keys: keys.map((key) => ({ ...key, x: rounded(key.x), y: rounded(key.y), height: rounded(key.height) })),
    })),
    tracks: shots.flatMap(({ tracks }, shot) =>
      tracks.map((track) => ({
        id: track.id,
        kind: track.kind,
        shot,
        start: track.start,
        boxes: track.boxes.map((box) => box && boxTuple(box)),
      })),
    ),
    windows: shots.flatMap(({ windows }) =>
      windows.map(({ x, y, height }): [number, number, number] => [rounded(x), rounded(y), rounded(height)]),
    ),
  };
}
