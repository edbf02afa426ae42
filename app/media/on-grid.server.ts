/**
 * ffmpeg filters that put pictures and sound on a film's grid: frame n is what a player shows at n / rate. Time stamps are
 * kept as they are in the file (`-copyts`), since the grid refers to them.
 */
import { type FrameRange, framesPerSecond, frameToSeconds, inRange } from "~/core/time/rate";
import type { FilmInfo } from "~/core/film/film-info";
import type { FilmFile } from "./film-file";
import { reading } from "./film-tool.server";

/** Seconds after the last frame that may still be needed. */
const END_SECONDS = 2;
const SOUND_SEEK_SECONDS = 1;
const LONGEST_GAP_SECONDS = 0.015;

/** Start of a frame of the grid in seconds, in the file's own time. */
const timeOf = (info: FilmInfo, frame: number): number => info.grid.origin + frameToSeconds(frame, info.rate);

/** Reads a film from some seconds after its start, and not past its end: damaged time stamps may lie days later. */
export function readFrom({ file, info }: FilmFile, seconds: number): string[] {
  // Even where a file is read from its middle, this counts from its start.
  const end = timeOf(info, info.frames) + Math.abs(info.grid.fileStart) + END_SECONDS;
  const seek = seconds > 0 ? ["-noaccurate_seek", "-ss", seconds.toFixed(6)] : [];
  return ["-copyts", ...seek, "-t", end.toFixed(6), ...reading(file)];
}

/** Seconds after the file's start at which reading has to begin for a frame's picture. */
export function seekSecondsFor({ grid, ...info }: FilmInfo, frame: number): number {
  // Where a picture is held for long, the one before is needed.
  const shown = grid.longHolds.find((hold) => inRange(frame, hold))?.start ?? frame;
  const time = Math.min(timeOf({ grid, ...info }, shown - 1), grid.lastPicture);
  return Math.max(0, time - grid.fileStart - grid.seekMargin);
}

/**
 * Filters that put pictures on the grid and pass a range of it. A picture is held until the next one; the last one
 * endlessly, so that there are always as many frames as requested.
 */
export function onGrid({ rate, grid, interlaced, fields }: FilmInfo, range: FrameRange): string {
  return [
    ...(grid.late > 0 ? [`setpts=PTS-round(${grid.late.toFixed(6)}/TB)`] : []),
    ...(interlaced ? [`bwdif=mode=${fields ? "send_field" : "send_frame"}:deint=interlaced`] : []),
    // The grid filter loses the last picture where nothing follows it.
    "tpad=stop_duration=1:stop_mode=clone",
    `fps=${rate.num}/${rate.den}:start_time=${grid.origin.toFixed(6)}:round=near:eof_action=pass`,
    "tpad=stop=-1:stop_mode=clone",
    `trim=start_frame=${range.start}:end_frame=${range.end}`,
  ].join(",");
}

/** Seconds after the file's start at which reading has to begin for a frame's sound. */
export const soundSeekSecondsFor = (info: FilmInfo, frame: number): number =>
  frame === 0 ? 0 : Math.max(0, timeOf(info, frame) - info.grid.fileStart - SOUND_SEEK_SECONDS);

/** ffmpeg's name of the film's own sound in an input. */
export const soundStream = (input: number, { audio }: FilmInfo): string => `${input}:a:${audio?.index ?? 0}`;

/**
 * Filters that make a range's sound begin with its first frame and last as long as it, with silence where there is none.
 */
export function soundOnGrid(info: FilmInfo, range: FrameRange, sampleRate: number): string {
  const seconds = frameToSeconds(range.end - range.start, info.rate);
  return [
    `asetpts=PTS-${timeOf(info, range.start).toFixed(6)}/TB`,
    // A gap longer than a block of some milliseconds is filled; otherwise everything after it would be early.
    `aresample=${sampleRate}:async=1:min_hard_comp=${LONGEST_GAP_SECONDS}:first_pts=0`,
    "apad",
    `atrim=end=${seconds.toFixed(6)}`,
  ].join(",");
}

/** Whether the file's unchanged sound begins with frame 0. */
export function soundBeginsWithPicture({ audio, grid, rate }: FilmInfo): boolean {
  return audio !== null && Math.abs(audio.start - grid.origin) < 0.1 / framesPerSecond(rate);
}
