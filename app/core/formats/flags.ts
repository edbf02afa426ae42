/** The flags of a version as open formats: a table and JSON (docs/formats.md). */
import { csvFormatRows } from "d3-dsv";
import { z } from "zod";
import { FLAG_KINDS, type Flag } from "../checks/flag";
import { Frame } from "../time/rate";
import { type Clock, timecodeAt } from "../time/timecode";

/** A flag as reports and lists have it. */
export const ListedFlag = z.object({
  kind: z.enum(FLAG_KINDS),
  /** Number of the shot, from 1. */
  shot: z.int().positive(),
  /** The frames that it is about, [start, end), and its worst one. */
  start: Frame,
  end: Frame,
  frame: Frame,
  /** Severity, 0 to 100. */
  severity: z.number().min(0).max(100),
  text: z.string(),
  /** Whether the editor has reviewed it; left out where there is no editor. */
  reviewed: z.boolean().optional(),
});
export type ListedFlag = z.infer<typeof ListedFlag>;

export const FlagList = z.object({
  format: z.literal("glad-pan/flags"),
  version: z.literal(2),
  film: z.string(),
  /** Frames per second as [numerator, denominator]. */
  rate: z.tuple([z.int().positive(), z.int().positive()]),
  /** Name of the version. */
  of: z.string(),
  flags: z.array(ListedFlag),
});
export type FlagList = z.infer<typeof FlagList>;

/** Source of a list. */
export interface FlagsToList {
  film: string;
  version: string;
  clock: Clock;
  flags: readonly (Flag & { shot: number; isReviewed?: boolean })[];
}

export const listedFlag = ({
  kind,
  shot,
  range,
  frame,
  severity,
  text,
  isReviewed,
}: FlagsToList["flags"][number]): ListedFlag => ({
  kind,
  shot,
  start: range.start,
  end: range.end,
  frame,
  severity,
  text,
  ...(isReviewed === undefined ? {} : { reviewed: isReviewed }),
});

export const flagsJson = ({ film, version, clock, flags }: FlagsToList): FlagList => ({
  format: "glad-pan/flags",
  version: 2,
  film,
  rate: [clock.rate.num, clock.rate.den],
  of: version,
  flags: flags.map(listedFlag),
});

const COLUMNS = [
  "shot",
  "kind",
  "start_frame",
  "end_frame",
  "start",
  "end",
  "frame",
  "severity",
  "reviewed",
  "reason",
] as const;

/** One row per flag. Ends are exclusive. */
export function flagsCsv({ clock, flags }: FlagsToList): string {
  const rows = flags
    .map(listedFlag)
    .map(({ shot, kind, start, end, frame, severity, reviewed, text }) => [
      String(shot),
      kind,
      String(start),
      String(end),
      timecodeAt(start, clock),
      timecodeAt(end, clock),
      String(frame),
      String(severity),
      reviewed === undefined ? "" : reviewed ? "yes" : "no",
      text,
    ]);
  return `${csvFormatRows([[...COLUMNS], ...rows])}\n`;
}
