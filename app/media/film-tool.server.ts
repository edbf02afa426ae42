/** How ffmpeg is given films to read, and what its failures say about them. */
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
 * What comes from outside is no list of ours, whatever it is called: its names could lead anywhere.
 *
 * @throws FilmError
 */
export function requireNoList(file: string, name: string): void {
  if (isClipList(file)) throw new FilmError(`${name}: ${t.listOfFiles}`);
}

/**
 * How a tool is told to read a film's file, and nothing else: only from files, only the containers that films come in,
 * and no picture larger than what can be worked with. Names may begin with "-" and hold ":".
 */
export const reading = (file: string): string[] => {
  // Of lists only those that we write are read, and of these only files beside them: ffmpeg's own default.
  const formats = isClipList(file) ? `concat,${OPENED_FORMATS}` : OPENED_FORMATS;
  return [
    ...["-protocol_whitelist", "file,pipe", "-format_whitelist", formats, "-max_pixels", String(MOST_PIXELS)],
    ...["-i", `file:${file}`],
  ];
};

/** How ffmpeg is told to write a file, whatever it is called. */
export const writing = (file: string): string => `file:${file}`;

/** How ffmpeg is told to read frames that are piped in; `pixels` is its own name of what they are made of. */
export const pipedIn = ({ width, height }: Size, pixels: string, rate?: Rate): string[] => [
  ...["-f", "rawvideo", "-pix_fmt", pixels, "-s", `${width}x${height}`],
  ...(rate ? ["-r", `${rate.num}/${rate.den}`] : []),
  ...["-i", "pipe:0"],
];

/** How ffmpeg is told to say of a picture that its colours are Rec.709, in limited range. */
export const REC709_TAGS = [
  ...["-color_primaries", "bt709", "-color_trc", "bt709", "-colorspace", "bt709", "-color_range", "tv"],
];

/** What a tool's failure says about a film, for people; anything else as it is. */
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
  // However many of a film's pictures are broken: those that are not are worth having.
  const tool = startTool("ffmpeg", ["-v", "error", "-nostdin", "-max_error_rate", "1", ...args], signal, options);
  const done = tool.done.catch((error: unknown) => {
    throw filmFailure(error, name);
  });
  done.catch(() => {});
  return { ...tool, done };
}

/** Runs ffmpeg for a film and gives what it has written to its output, all at once. */
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

/** Runs ffprobe on a film's file and returns what it wrote. */
export const probe = (file: string, args: string[], signal?: AbortSignal): Promise<string> =>
  runTool("ffprobe", ["-v", "error", ...args, ...reading(file)], signal);
