/** How ffmpeg reads films, and messages for its failures. */
import { MOST_PIXELS } from "~/core/film/film-info";
import type { Size } from "~/core/geometry/box";
import { FileRefusal } from "~/core/basics/refusal";
import type { Rate } from "~/core/time/rate";
import { isClipList } from "./clip-list.server";
import { OPENED_FORMATS } from "./containers";
import { type RunningTool, runTool, startTool, ToolError, type ToolOptions } from "./tool.server";
import { filmErrors } from "~/texts/film-errors";

const t = filmErrors.decoding;

/** A file that cannot be used, with a message for people: the file's name, what is wrong, what to do. */
export class FilmError extends FileRefusal {
  override name = "FilmError";
}

/**
 * A foreign file is never read as one of our lists: the names in it might lead anywhere.
 * @throws FilmError
 */
export function requireNoList(file: string, name: string): void {
  if (isClipList(file)) throw new FilmError(`${name}: ${t.listOfFiles}`);
}

/**
 * Arguments for reading a film's file and nothing else: only local files, only supported containers, and no picture larger
 * than can be handled. Names may begin with "-" and contain ":".
 */
export const reading = (file: string): string[] => {
  // Only our own lists are read, and only files beside them: ffmpeg's own default.
  const formats = isClipList(file) ? `concat,${OPENED_FORMATS}` : OPENED_FORMATS;
  return [
    ...["-protocol_whitelist", "file,pipe", "-format_whitelist", formats, "-max_pixels", String(MOST_PIXELS)],
    ...["-i", `file:${file}`],
  ];
};

/** ffmpeg's output argument for a file of any name. */
export const writing = (file: string): string => `file:${file}`;

/** Arguments for reading piped frames; `pixels` is ffmpeg's name of their format. */
export const pipedIn = ({ width, height }: Size, pixels: string, rate?: Rate): string[] => [
  ...["-f", "rawvideo", "-pix_fmt", pixels, "-s", `${width}x${height}`],
  ...(rate ? ["-r", `${rate.num}/${rate.den}`] : []),
  ...["-i", "pipe:0"],
];

/** Tags for a picture in Rec.709, limited range. */
export const REC709_TAGS = [
  ...["-color_primaries", "bt709", "-color_trc", "bt709", "-colorspace", "bt709", "-color_range", "tv"],
];

/** A message for people from a tool's failure; anything else as it is. */
export function filmFailure(error: unknown, name: string): unknown {
  if (!(error instanceof ToolError) || error.code === "ENOSPC") return error;
  if (error.code === "STALLED") {
    return new FilmError(`${name}: ${t.stalled}`);
  }
  if (/could not be started/.test(error.message)) return error;
  if (/Cannot allocate memory/.test(error.said)) {
    return new FilmError(`${name}: ${t.noMemory}`);
  }
  if (/No such file or directory/.test(error.said)) {
    return new FilmError(`${name}: ${t.missing}`);
  }
  const detail = error.message.replace(/^\w+ failed: /, "");
  if (/opening encoder for output/.test(error.said)) {
    return new FilmError(`${name}: ${t.cannotEncode(detail)}`);
  }
  return new FilmError(`${name}: ${t.cannotDecode(detail)}`);
}

/** Starts ffmpeg for a film; `done` rejects with a FilmError where the film is to blame. */
export function startFfmpeg(name: string, args: string[], signal?: AbortSignal, options?: ToolOptions): RunningTool {
  // However many pictures are broken, the others are worth having.
  const tool = startTool("ffmpeg", ["-v", "error", "-nostdin", "-max_error_rate", "1", ...args], signal, options);
  const done = tool.done.catch((error: unknown) => {
    throw filmFailure(error, name);
  });
  done.catch(() => {});
  return { ...tool, done };
}

/** Runs ffmpeg for a film and returns its whole output. */
export async function bytesFromFfmpeg(
  name: string,
  args: string[],
  input: Uint8Array,
  signal?: AbortSignal,
): Promise<Buffer> {
  const tool = startFfmpeg(name, args, signal);
  const chunks: Buffer[] = [];
  tool.stdin.end(input);
  for await (const chunk of tool.stdout as AsyncIterable<Buffer>) chunks.push(chunk);
  await tool.done;
  return Buffer.concat(chunks);
}

/** Runs ffprobe on a film's file and returns its output. */
export const probe = (file: string, args: string[], signal?: AbortSignal): Promise<string> =>
  runTool("ffprobe", ["-v", "error", ...args, ...reading(file)], signal);
