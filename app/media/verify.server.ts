import type { FileFigures } from "~/core/film/film-status";
import { z } from "zod";
import type { Box, Size } from "~/core/geometry/box";
import type { BitDepth } from "~/core/image/bit-depth";
import { formatRate, type FrameRange, frameToSeconds, parseRate, type Rate } from "~/core/time/rate";
import { probe, reading } from "./film-tool.server";
import { bitDepthOf } from "./probe.server";
import { runTool } from "./tool.server";
import { type Decoded, decodeThrough } from "./decode-through.server";

export interface Verification {
  figures: Omit<FileFigures, "checks" | "loudness">;
  decoded: Decoded;
  /** What differs from the expectation; empty if nothing does. */
  faults: string[];
}

export interface Expected {
  size: Size;
  rate: Rate;
  frames: number;
  sound: boolean;
  /** Whether there is a caption track; false if left out. */
  captions?: boolean;
  /** Whether it is tagged as Rec.709; RGB pictures have no such tags. */
  tags?: boolean;
  /** Bits per sample, where that is to be checked. */
  depth?: BitDepth;
  /** Frames whose pictures are returned. */
  pictures?: readonly number[];
  /** The film that it was made from, whose sound may end before its picture does. */
  film?: { file: string; sound: number };
}

const Probe = z.object({
  streams: z.array(
    z.looseObject({
      codec_type: z.string(),
      width: z.number().optional(),
      height: z.number().optional(),
      sample_aspect_ratio: z.string().optional(),
      avg_frame_rate: z.string().optional(),
      pix_fmt: z.string().optional(),
      duration: z.string().optional(),
      color_space: z.string().optional(),
      color_primaries: z.string().optional(),
      color_transfer: z.string().optional(),
      start_time: z.string().optional(),
      side_data_list: z.array(z.looseObject({ rotation: z.number().optional() })).optional(),
    }),
  ),
  format: z.object({ size: z.string(), duration: z.string().optional() }),
});

/** Most ranges in one ffmpeg expression. */
const MOST_RANGES = 200;

export interface BarSearch {
  /** Frames to be examined; all if left out. */
  ranges?: readonly FrameRange[];
  /** Part of the frame to be examined, on even pixels; all of it if left out. */
  area?: Box;
  signal?: AbortSignal;
}

/**
 * Rows and columns that stay black, by ffmpeg's cropdetect over every tenth frame. A dark picture has no black *border* by
 * this measure unless its edges never show anything.
 * @param size of the examined part
 */
export async function hasBars(
  file: string,
  size: Size,
  { ranges = [], area, signal }: BarSearch = {},
): Promise<boolean> {
  const frames = ranges.slice(0, MOST_RANGES).map(({ start, end }) => `between(n,${start},${end - 1})`);
  const wanted = ["not(mod(n,10))", ...(frames.length > 0 ? [`(${frames.join("+")})`] : [])].join("*");
  const log = await runTool(
    "ffmpeg",
    [
      ...["-v", "error", "-nostdin", ...reading(file), "-an", "-vf"],
      `select='${wanted}',${area ? `crop=${area.width}:${area.height}:${area.x}:${area.y},` : ""}cropdetect=limit=20:round=2:reset=0:skip=0,metadata=print:file=-:direct=1`,
      ...["-f", "null", "-"],
    ],
    signal,
  );
  const last = (key: string) => Number([...log.matchAll(new RegExp(`cropdetect\\.${key}=(-?\\d+)`, "g"))].at(-1)?.[1]);
  const width = last("w");
  const height = last("h");
  // Entirely black: another fault, or a black film; no bars either way.
  if (!(width > 0 && height > 0)) return false;
  return size.width - width > 4 || size.height - height > 4;
}

/** Difference in length, in seconds, that nobody hears. */
const SAME_LENGTH = 0.12;

/** Duration of a file's sound in seconds, as declared; null if it is not. */
async function soundLength(file: string, index: number, signal?: AbortSignal): Promise<number | null> {
  const args = ["-select_streams", `a:${index}`, "-show_entries", "stream=duration", "-of", "csv=p=0"];
  const seconds = Number((await probe(file, args, signal)).trim());
  return seconds > 0 ? seconds : null;
}

/** Measures a rendered file and compares it with what is expected. */
export async function verifyFile(file: string, expected: Expected, signal?: AbortSignal): Promise<Verification> {
  const json = await probe(file, ["-show_streams", "-show_format", "-of", "json"], signal);
  const { streams, format } = Probe.parse(JSON.parse(json));
  const video = streams.find((s) => s.codec_type === "video");
  const audio = streams.find((s) => s.codec_type === "audio");
  const rate = parseRate(video?.avg_frame_rate ?? "");
  const size = { width: video?.width ?? 2, height: video?.height ?? 2 };
  const decoded = await decodeThrough(file, {
    rate: rate ?? expected.rate,
    size,
    frames: expected.pictures ?? [],
    signal,
  });
  const duration = Number(video?.duration ?? format.duration ?? 0);
  const figures = {
    width: video?.width ?? 0,
    height: video?.height ?? 0,
    rate: rate ? formatRate(rate) : "unknown",
    frames: decoded.frames,
    durationSeconds: duration,
    soundSeconds: audio ? Number(audio.duration ?? duration) : null,
    bytes: Number(format.size),
    bitDepth: bitDepthOf(video?.pix_fmt),
    hasCaptions: streams.some((s) => s.codec_type === "subtitle"),
    sidecars: [],
  };
  const faults: string[] = [];
  const wanted = expected.size;
  if (expected.captions && !figures.hasCaptions) faults.push("the text track is missing");
  if (figures.width !== wanted.width || figures.height !== wanted.height) {
    faults.push(`the picture is ${figures.width} × ${figures.height}, not ${wanted.width} × ${wanted.height}`);
  }
  if (video?.sample_aspect_ratio && !["1:1", "N/A"].includes(video.sample_aspect_ratio))
    faults.push("pixels are not square");
  if (video?.side_data_list?.some((data) => data.rotation)) faults.push("the file is marked as rotated");
  if (expected.depth && figures.bitDepth !== expected.depth) {
    faults.push(`it is ${figures.bitDepth}-bit, not ${expected.depth}-bit`);
  }
  if (figures.frames !== expected.frames) faults.push(`there are ${figures.frames} frames, not ${expected.frames}`);
  if (figures.rate !== formatRate(expected.rate)) {
    faults.push(`the frame rate is ${figures.rate}, not ${formatRate(expected.rate)}`);
  }
  if (expected.sound !== Boolean(audio))
    faults.push(expected.sound ? "the sound is missing" : "there is sound that should not be there");
  const frameSeconds = frameToSeconds(1, expected.rate);
  const offset = Math.abs(Number(audio?.start_time ?? 0) - Number(video?.start_time ?? 0));
  if (audio && offset > frameSeconds) faults.push("the sound does not begin with the picture");
  const { soundSeconds } = figures;
  const isAlike = (length: number) =>
    soundSeconds !== null && Math.abs(soundSeconds - length) <= SAME_LENGTH + frameSeconds;
  if (soundSeconds !== null && !isAlike(duration)) {
    const { film } = expected;
    const own = film && soundSeconds < duration ? await soundLength(film.file, film.sound, signal) : null;
    if (own === null || !isAlike(own)) {
      faults.push(`the sound lasts ${soundSeconds.toFixed(2)} s, the picture ${duration.toFixed(2)} s`);
    }
  }
  const tags = [video?.color_space, video?.color_primaries, video?.color_transfer];
  if (expected.tags && tags.some((tag) => tag !== "bt709")) faults.push("the colours are not marked as Rec.709");
  return { figures, faults, decoded };
}
