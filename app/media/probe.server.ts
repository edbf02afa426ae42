import { open, stat } from "node:fs/promises";
import { basename } from "node:path";
import { z } from "zod";
import type { Size } from "~/core/geometry/box";
import { type FilmGrid, makeGrid, type PictureTimes } from "~/core/time/film-grid";
import { framesPerSecond, parseRate } from "~/core/time/rate";
import { type FilmInfo, type FilmSound, MOST_FRAMES, MOST_PIXELS, type SoundTrack } from "~/core/film/film-info";
import { FilmError, filmFailure, probe } from "./film-tool.server";
import { endOfSound, pictureTimes } from "./picture-times.server";
import { ToolError } from "./tool.server";
import { filmErrors } from "~/texts/film-errors";

const t = filmErrors.probe;

const Stream = z.object({
  codec_type: z.string().optional(),
  codec_name: z.string().optional(),
  codec_tag_string: z.string().optional(),
  width: z.number().optional(),
  height: z.number().optional(),
  sample_aspect_ratio: z.string().optional(),
  r_frame_rate: z.string().optional(),
  avg_frame_rate: z.string().optional(),
  start_time: z.string().optional(),
  time_base: z.string().optional(),
  color_transfer: z.string().optional(),
  color_space: z.string().optional(),
  color_range: z.string().optional(),
  pix_fmt: z.string().optional(),
  field_order: z.string().optional(),
  has_b_frames: z.number().optional(),
  channels: z.number().optional(),
  tags: z.record(z.string(), z.string()).optional(),
  disposition: z.object({ attached_pic: z.number(), default: z.number() }).partial().optional(),
  side_data_list: z.array(z.looseObject({ rotation: z.number().optional() })).optional(),
});
const Probe = z.object({
  streams: z.array(Stream).default([]),
  format: z
    .object({
      format_name: z.string().optional(),
      duration: z.string().optional(),
      start_time: z.string().optional(),
      tags: z.record(z.string(), z.string()).optional(),
    })
    .optional(),
});
type AnyStream = z.infer<typeof Stream>;

const seconds = (text: string | undefined): number => {
  const value = Number(text);
  return Number.isFinite(value) ? value : 0;
};

/** Pixels; a smaller picture leaves nothing to crop, and the resampler requires it. */
const MIN_SIDE = 32;
const MAX_SIDE = 16_384;
/** Seconds before a picture at which reading begins so that it is not missed. */
const SEEK_MARGIN = 0.5;
/** Containers without an index: a seek may land on the key frame after the one needed. */
const SEEKS_ROUGHLY = new Set(["mpegts", "mpeg"]);
/** ffprobe's field orders of interlaced frames. */
const INTERLACED = new Set(["tt", "bb", "tb", "bt"]);
/** Largest mean number of frames for which pictures are held: more are declared than there are. */
const LONGEST_MEAN_HOLD = 900;

/** Displayed size, from the stored size, the rotation in the side data and the pixel aspect ratio. */
function displaySize(video: AnyStream): { picture: Size; nonSquarePixels: boolean } {
  const [num, den] = (video.sample_aspect_ratio ?? "1:1").split(":").map(Number);
  const sar = num && den ? num / den : 1;
  const rotation = video.side_data_list?.find((data) => data.rotation !== undefined)?.rotation ?? 0;
  const stored = { width: Math.round(video.width! * sar), height: video.height! };
  const turned = Math.abs(Math.round(rotation / 90)) % 2 === 1;
  return {
    picture: turned ? { width: stored.height, height: stored.width } : stored,
    nonSquarePixels: Math.abs(sar - 1) > 1e-3,
  };
}

/** Seconds before a picture at which reading has to begin so that it is not missed. */
function seekMarginIn(container: string, { held }: FilmGrid, longestKeyGap: number, late: number): number {
  // AVI has no times: after a seek its frames are counted, without dropped ones and those in the chunk of another.
  if (late > 0 || (container === "avi" && held > 0)) return Number.MAX_SAFE_INTEGER;
  return SEEK_MARGIN + (SEEKS_ROUGHLY.has(container) ? longestKeyGap : 0);
}

/** Whether a file begins with a box of the ISO base media format: a text file named .mp4 does not. */
async function beginsLikeMovie(file: string): Promise<boolean> {
  const handle = await open(file);
  try {
    const { buffer } = await handle.read(Buffer.alloc(8), 0, 8, 0);
    return ["ftyp", "mdat", "free", "wide", "skip"].includes(buffer.toString("latin1", 4, 8));
  } finally {
    await handle.close();
  }
}

/** Most characters kept of a file's own texts. */
const MOST_LETTERS = 500;

/** A tag of a stream or a file, regardless of case. */
const tag = (tags: Record<string, string> | undefined, name: string): string | null =>
  Object.entries(tags ?? {})
    .find(([key]) => key.toLowerCase() === name)?.[1]
    .slice(0, MOST_LETTERS) ?? null;

/** The file's audio tracks, and the one to use: its default, or the first. */
function soundsOf(streams: readonly AnyStream[]): { sounds: SoundTrack[]; audio: FilmSound | null } {
  const found = streams.filter((stream) => stream.codec_type === "audio");
  const sounds = found.map(({ codec_name, start_time, channels, tags }, index) => ({
    codec: codec_name ?? "unknown",
    index,
    start: seconds(start_time),
    channels: channels ?? 0,
    language: tag(tags, "language"),
    title: tag(tags, "title"),
  }));
  const usual = found.findIndex(({ disposition }) => disposition?.default === 1);
  const sound = sounds[Math.max(0, usual)];
  return { sounds, audio: sound ? { codec: sound.codec, index: sound.index, start: sound.start } : null };
}

/** Bits per sample, by ffmpeg's name of the pixel format: "yuv420p10le", "p010le", "gbrp12le". */
export const bitDepthOf = (pixels = ""): number => Number(/(?<=p0?)(9|1\d)(?=[lb]e$)/.exec(pixels)?.[0] ?? 8);

const FirstPacket = z.object({
  packets: z.array(
    z.object({ side_data_list: z.array(z.object({ side_data_type: z.string().optional() })).optional() }),
  ),
});

/** Whether a film's pictures are encrypted (ISO/IEC 23001-7), by the first of them. */
async function isEncrypted(file: string): Promise<boolean> {
  const first = ["-select_streams", "V:0", "-read_intervals", "%+#1", "-show_packets", "-of", "json"];
  const json = await probe(file, first).catch(() => "{}");
  const read = FirstPacket.safeParse(JSON.parse(json || "{}"));
  const sideData = read.data?.packets.flatMap(({ side_data_list }) => side_data_list ?? []) ?? [];
  return sideData.some(({ side_data_type }) => side_data_type?.startsWith("Encryption") === true);
}

/** Seconds missing at a film's end above which it was cut off. */
const CUT_OFF_SECONDS = 1;

/**
 * The grid of what a file contains: a truncated file, such as a partial download, declares a longer one. Where the sound
 * continues, it is complete.
 */
async function gridOfWhatIsThere(
  file: string,
  claimed: PictureTimes,
  audio: FilmSound | null,
): Promise<{ grid: FilmGrid | null; cutOff: number }> {
  const grid = makeGrid(claimed);
  if (!grid) return { grid, cutOff: 0 };
  const fps = framesPerSecond(grid.rate);
  const end = grid.origin + grid.frames / fps;
  const isOver = (seconds: number) => end - seconds < CUT_OFF_SECONDS;
  const pictureEnd = grid.lastPicture + 1 / fps;
  if (isOver(pictureEnd)) return { grid, cutOff: 0 };
  const soundEnd = audio ? await endOfSound(file, audio.index) : -Infinity;
  if (isOver(soundEnd)) return { grid, cutOff: 0 };
  const durationSeconds = Math.max(pictureEnd, soundEnd) - (claimed.durationFromZero ? 0 : claimed.fileStart);
  const shorter = makeGrid({ ...claimed, durationSeconds });
  return { grid: shorter, cutOff: grid.frames - (shorter?.frames ?? 0) };
}

/**
 * The limits that a film is beyond, as sentences for people.
 * @param frames of its grid
 * @param pictures in its file
 */
function limitsPassed({ width, height }: Size, frames: number, pictures: number): string[] {
  const limits: readonly [isPassed: boolean, reason: string][] = [
    [frames < 2, t.still],
    [frames > MOST_FRAMES, t.tooLong(frames, MOST_FRAMES)],
    [frames > LONGEST_MEAN_HOLD * pictures, t.claimsTooMuch(frames, pictures)],
    [Math.min(width, height) < MIN_SIDE, t.tooSmall(width, height)],
    [width * height > MOST_PIXELS || Math.max(width, height) > MAX_SIDE, t.tooLarge(width, height)],
  ];
  return limits.flatMap(([isPassed, reason]) => (isPassed ? [reason] : []));
}

/**
 * Probes a file without decoding it.
 * @throws FilmError if it is no film that can be converted
 */
export async function probeFilm(file: string, name = basename(file)): Promise<FilmInfo> {
  const refuse = (reason: string) => new FilmError(`${name}: ${reason}`);
  const bytes = await stat(file).then(
    (s) => s.size,
    () => null,
  );
  if (bytes === null) throw refuse(t.noSuchFile);
  if (bytes === 0) throw refuse(t.empty);
  const json = await probe(file, ["-show_streams", "-show_format", "-of", "json"]).catch(async (error: unknown) => {
    if (!(error instanceof ToolError) || /could not be started/.test(error.message)) throw error;
    if (error.code === "STALLED") throw filmFailure(error, name);
    if (/moov atom not found/.test(error.said) && (await beginsLikeMovie(file))) {
      throw refuse(t.indexMissing);
    }
    throw refuse(t.notAFilm);
  });
  const found = Probe.parse(JSON.parse(json));
  const videos = found.streams.filter((s) => s.codec_type === "video" && !s.disposition?.attached_pic);
  const video = videos.find((s) => s.width && s.height);
  const { sounds, audio } = soundsOf(found.streams);
  if (!video) {
    throw refuse(audio ? t.onlySound : t.noPicture);
  }
  const codec = video.codec_name ?? "unknown";
  if (codec === "unknown") {
    const [tag = null] = /^[\x21-\x7e]{1,8}$/.exec(video.codec_tag_string ?? "") ?? [];
    throw refuse(t.unknownCodec(tag));
  }
  if (await isEncrypted(file)) {
    throw refuse(t.encrypted);
  }
  const container = found.format?.format_name ?? "unknown";
  const fileStart = seconds(found.format?.start_time);
  const { times, longestKeyGap, counted, breaks } = await pictureTimes(file);
  const claimed: PictureTimes = {
    times,
    declared: { base: parseRate(video.r_frame_rate ?? ""), average: parseRate(video.avg_frame_rate ?? "") },
    fileStart,
    durationSeconds: seconds(found.format?.duration) || null,
    // Matroska's duration is its last time stamp, wherever the first is.
    durationFromZero: container === "matroska,webm",
  };
  const { grid, cutOff } = await gridOfWhatIsThere(file, claimed, audio);
  if (!grid) {
    throw refuse(t.noFrames);
  }
  const { rate, frames, ...inFile } = grid;
  const ticks = parseRate(video.time_base ?? "");
  const timeBase = ticks ? framesPerSecond(ticks) : 0;
  // A picture is output once those that it waits for are decoded, with the time of the last of them.
  const late = counted ? (video.has_b_frames ?? 0) * timeBase : 0;
  const { picture, nonSquarePixels } = displaySize(video);
  const [beyond] = limitsPassed(picture, frames, times.length);
  if (beyond) throw refuse(beyond);
  return {
    picture,
    nonSquarePixels,
    fields: false,
    interlaced: INTERLACED.has(video.field_order ?? ""),
    rate,
    frames,
    cutOff,
    // Only streams that can be cut and joined anywhere have times that start over.
    timeBreaks: breaks && SEEKS_ROUGHLY.has(container),
    grid: {
      ...inFile,
      seekMargin: seekMarginIn(container, grid, longestKeyGap, late),
      timeBase,
      late,
    },
    audio,
    sounds,
    startTimecode:
      [video.tags, ...found.streams.map(({ tags }) => tags), found.format?.tags]
        .map((tags) => tag(tags, "timecode"))
        .find(Boolean) ?? null,
    colour: {
      transfer: video.color_transfer ?? "unknown",
      matrix: video.color_space ?? "unknown",
      range: video.color_range ?? "tv",
    },
    bitDepth: bitDepthOf(video.pix_fmt),
    videoCodec: codec,
    container,
    bytes,
  };
}
