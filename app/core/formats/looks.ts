/** The second looks of a version as open formats: a table and JSON (docs/formats.md). */
import { csvFormatRows } from "d3-dsv";
import { z } from "zod";
import { LOOK_KINDS, type SecondLook } from "../checks/second-look";
import { Frame } from "../time/rate";
import { type Clock, timecodeAt } from "../time/timecode";

/** A second look as reports and lists have it. */
export const ListedLook = z.object({
  kind: z.enum(LOOK_KINDS),
  /** The shot's number, from 1. */
  shot: z.int().positive(),
  /** The frames that it is about, [start, end), and the one to look at. */
  start: Frame,
  end: Frame,
  frame: Frame,
  /** How bad it is, 0 to 100. */
  severity: z.number().min(0).max(100),
  text: z.string(),
  /** Whether the editor has seen it; left out where there is no editor. */
  seen: z.boolean().optional(),
});
export type ListedLook = z.infer<typeof ListedLook>;

export const LookList = z.object({
  format: z.literal("glad-pan/looks"),
  version: z.literal(1),
  film: z.string(),
  /** Frames per second as [numerator, denominator]. */
  rate: z.tuple([z.int().positive(), z.int().positive()]),
  /** What the version is called. */
  of: z.string(),
  looks: z.array(ListedLook),
});
export type LookList = z.infer<typeof LookList>;

/** What a list is made from. */
export interface LooksToList {
  film: string;
  version: string;
  clock: Clock;
  looks: readonly (SecondLook & { shot: number; isSeen?: boolean })[];
}

export const listedLook = ({
  kind,
  shot,
  range,
  frame,
  severity,
  text,
  isSeen,
}: LooksToList["looks"][number]): ListedLook => ({
  ...{ kind, shot, start: range.start, end: range.end, frame, severity, text },
  ...(isSeen === undefined ? {} : { seen: isSeen }),
});

export const looksJson = ({ film, version, clock, looks }: LooksToList): LookList => ({
  ...{ format: "glad-pan/looks", version: 1, film, rate: [clock.rate.num, clock.rate.den], of: version },
  looks: looks.map(listedLook),
});

const COLUMNS = [
  ...["shot", "kind", "start_frame", "end_frame", "start", "end", "frame", "severity", "seen", "reason"],
] as const;

/** One row a second look. Ends are the first frame that does not belong. */
export function looksCsv({ clock, looks }: LooksToList): string {
  const rows = looks
    .map(listedLook)
    .map(({ shot, kind, start, end, frame, severity, seen, text }) => [
      ...[String(shot), kind, String(start), String(end), timecodeAt(start, clock), timecodeAt(end, clock)],
      ...[String(frame), String(severity), seen === undefined ? "" : seen ? "yes" : "no", text],
    ]);
  return `${csvFormatRows([[...COLUMNS], ...rows])}\n`;
}
