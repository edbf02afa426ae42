/** Reads the findings of a film from a report, so that a path can be laid without analysing the film again. */
import type { Box, Size } from "../geometry/box";
import type { Transition } from "../shots/transition";
import type { Track } from "../subjects/tracking/track";
import type { Lacking } from "../checks/lacking-pictures";
import type { FrameRange, Rate } from "../time/rate";
import type { z } from "zod";
import { type ListedFlag, FlagList } from "./flags";
import { asWrittenToday } from "./older-words";
import { AnalysisReport, Report } from "./report";

/** The text is no report. */
export class ReportError extends Error {
  override name = "ReportError";
}

export interface ReadFilm {
  file: string;
  picture: Size;
  rate: Rate;
  frames: number;
  lacking: Lacking;
  /** The ranges of the shots that were converted; undefined for all. */
  kept: FrameRange[] | undefined;
  shots: { range: FrameRange; begins: Transition; active: Box | null; tracks: Track[] }[];
}

const rangesOf = (pairs: readonly [number, number][] = []): FrameRange[] =>
  pairs.map(([start, end]) => ({ start, end }));

const boxOf = ([x, y, width, height]: readonly [number, number, number, number]): Box => ({ x, y, width, height });

/** Reads JSON in one of several formats, which are told apart by their names. */
function parse<T>(text: string, schemas: Readonly<Record<string, z.ZodType<T>>>, from: string): T {
  let json: unknown;
  try {
    json = asWrittenToday(JSON.parse(text));
  } catch {
    throw new ReportError("this is not JSON");
  }
  const format = (json as { format?: unknown } | null)?.format;
  const schema = typeof format === "string" ? schemas[format] : undefined;
  if (!schema) throw new ReportError(`this is no report of Glad Pan's ${from}`);
  const parsed = schema.safeParse(json);
  if (parsed.success) return parsed.data;
  const [issue] = parsed.error.issues;
  throw new ReportError(`${issue!.path.join(".") || "report"}: ${issue!.message}`);
}

const REPORTS = { "glad-pan/report": Report, "glad-pan/analysis": AnalysisReport };

/** The flags of a version, as a report or a list has them. */
export interface ReadFlags {
  /** Film, and version where that has a name. */
  of: string;
  rate: Rate;
  flags: ListedFlag[];
}

/** @throws ReportError with what is wrong with the text */
export function readFlags(text: string): ReadFlags {
  const read = parse<Report | FlagList>(
    text,
    { "glad-pan/report": Report, "glad-pan/flags": FlagList },
    "`convert` or `solve`, and no list of flags",
  );
  const [num, den] = read.format === "glad-pan/report" ? read.source.rate : read.rate;
  if (read.format === "glad-pan/flags")
    return { of: `${read.film}, ${read.of}`, rate: { num, den }, flags: read.flags };
  if (!read.flags) throw new ReportError("nobody has looked through it; make it again with `convert` or `solve`");
  const { file } = read.source;
  const { width, height } = read.target;
  return { of: `${file}, ${width} × ${height}`, rate: { num, den }, flags: read.flags };
}

/** @throws ReportError with what is wrong with the text */
export function readReport(text: string): ReadFilm {
  const { source, shots, tracks, ...report } = parse<Report | AnalysisReport>(text, REPORTS, "`convert` or `analyse`");
  return {
    file: source.file,
    picture: { width: source.width, height: source.height },
    rate: { num: source.rate[0], den: source.rate[1] },
    frames: source.frames,
    lacking: {
      held: source.repeated?.frames ?? 0,
      longHolds: rangesOf(source.repeated?.ranges),
      undecoded: rangesOf(source.undecoded),
      cutOff: source.cutOff ?? 0,
    },
    kept: "kept" in report && report.kept ? rangesOf(report.kept) : undefined,
    shots: shots.map(({ start, end, transition: kind, range, active }, index) => ({
      range: { start, end },
      active: active ? boxOf(active) : null,
      begins: { kind, frame: start, range: { start: range?.[0] ?? start, end: range?.[1] ?? start } },
      tracks: tracks
        .filter(({ shot }) => shot === index)
        .map(({ shot: _shot, boxes, person, speaking, acting, facing, ...track }) => ({
          ...track,
          boxes: boxes.map((box) => box && boxOf(box)),
          ...(person ? { personId: person } : {}),
          ...(facing ? { facing: facing.map(([frame, side]) => ({ frame, side })) } : {}),
          ...(speaking ? { speaking: speaking.map(([a, b]) => ({ start: a, end: b })) } : {}),
          ...(acting ? { acting: acting.map(([a, b]) => ({ start: a, end: b })) } : {}),
        })),
    })),
  };
}
