import { open, stat } from "node:fs/promises";
import { basename } from "node:path";
import { z } from "zod";
import type { Size } from "~/core/geometry/box";
import { framesPerSecond, parseRate, type Rate } from "~/core/time/rate";
import type { FilmInfo } from "./film-file";
import { FilmError, filmFailure, MAX_PIXELS, probe } from "./film-tool.server";
import { ToolError } from "./tool.server";

const Stream = z.object({
  codec_type: z.string().optional(),
  codec_name: z.string().optional(),
  width: z.number().optional(),
  height: z.number().optional(),
  sample_aspect_ratio: z.string().optional(),
  r_frame_rate: z.string().optional(),
  avg_frame_rate: z.string().optional(),
  nb_frames: z.string().optional(),
  duration: z.string().optional(),
  start_time: z.string().optional(),
  color_transfer: z.string().optional(),
  color_space: z.string().optional(),
  color_range: z.string().optional(),
  disposition: z.object({ attached_pic: z.number() }).partial().optional(),
  side_data_list: z.array(z.looseObject({ rotation: z.number().optional() })).optional(),
});
const Probe = z.object({
  streams: z.array(Stream).default([]),
  format: z
    .object({ format_name: z.string().optional(), duration: z.string().optional(), start_time: z.string().optional() })
    .optional(),
});
type VideoStream = z.infer<typeof Stream>;

const seconds = (text: string | undefined): number => {
  const value = Number(text);
  return Number.isFinite(value) ? value : 0;
};

/** Rates that cameras and editing programs use; a variable rate is put on the nearest of them. */
const COMMON_RATES: Rate[] = [
  { num: 24000, den: 1001 },
  { num: 24, den: 1 },
  { num: 25, den: 1 },
  { num: 30000, den: 1001 },
  { num: 30, den: 1 },
  { num: 50, den: 1 },
  { num: 60000, den: 1001 },
  { num: 60, den: 1 },
];

/** Pixels; there is nothing to crop in less, and the resampler counts on it. */
const MIN_SIDE = 32;
const MAX_SIDE = 16_384;
/** A day at 30 frames a second. */
const MAX_FRAMES = 24 * 3600 * 30;
/** Where there are fewer bytes to a frame than this, the pictures are counted. */
const SUSPICIOUS_BYTES = 256;
/** Frames for which a picture stands at the most, in the mean over a film of variable rate. */
const LONGEST_MEAN_HOLD = 900;

interface ChosenRate {
  rate: Rate;
  variable: boolean;
}

function chooseRate(video: VideoStream): ChosenRate | null {
  const average = parseRate(video.avg_frame_rate ?? "");
  const base = parseRate(video.r_frame_rate ?? "") ?? average;
  if (!base) return null;
  const fps = framesPerSecond(average ?? base);
  const steady = Math.abs(framesPerSecond(base) - fps) < 0.002 * fps && framesPerSecond(base) <= 240;
  if (steady) return { rate: base, variable: false };
  const distance = (rate: Rate) => Math.abs(Math.log(framesPerSecond(rate) / fps));
  return { rate: COMMON_RATES.reduce((a, b) => (distance(b) < distance(a) ? b : a)), variable: true };
}

/** Size as displayed, from the stored size, the rotation in the side data and the pixel's aspect ratio. */
function displaySize(video: VideoStream): { picture: Size; nonSquarePixels: boolean } {
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

/**
 * Whether the film's last frames can be read: a file that was cut off says one length and holds another. With
 * uneven frames the last one may stand for long, so there it is enough that something can be read at the end.
 */
async function endIsThere(file: string, end: number, { rate, variable }: ChosenRate): Promise<boolean> {
  const from = Math.max(0, end - 3);
  const packets = await probe(file, [
    ...["-select_streams", "v:0", "-read_intervals", `${from.toFixed(3)}%`],
    ...["-show_entries", "packet=pts_time", "-of", "csv=p=0"],
  ]).catch(() => "");
  const last = Math.max(...packets.split("\n").map(Number.parseFloat).filter(Number.isFinite));
  return variable ? Number.isFinite(last) : last >= end - 0.1 - 4 / framesPerSecond(rate);
}

/** Refuses a film that claims to have many more pictures than its file holds. */
async function requirePictures(
  file: string,
  frames: number,
  { variable }: ChosenRate,
  refuse: (reason: string) => FilmError,
): Promise<void> {
  const packets = await probe(file, ["-select_streams", "v:0", "-show_entries", "packet=size", "-of", "csv=p=0"]);
  const pictures = packets.match(/\d+/g)?.length ?? 0;
  // At a variable rate a picture may stand for a while, though hardly for half a minute all the way through.
  const expected = variable ? frames / LONGEST_MEAN_HOLD : 0.9 * frames;
  if (pictures >= expected) return;
  throw refuse(`it claims to have ${frames} frames, and holds ${pictures}; it is damaged. Copy or export it again.`);
}

/**
 * Looks into a file without decoding it.
 *
 * @throws FilmError if it is no film that can be converted
 */
export async function probeFilm(file: string, name = basename(file)): Promise<FilmInfo> {
  const refuse = (reason: string) => new FilmError(`${name}: ${reason}`);
  const bytes = await stat(file).then(
    (s) => s.size,
    () => null,
  );
  if (bytes === null) throw refuse("there is no such file. Check the name and the folder.");
  if (bytes === 0) throw refuse("the file is empty. Copy or export it again.");
  const json = await probe(file, ["-show_streams", "-show_format", "-of", "json"]).catch(async (error: unknown) => {
    if (!(error instanceof ToolError) || /could not be started/.test(error.message)) throw error;
    if (error.code === "STALLED") throw filmFailure(error, name);
    if (/moov atom not found/.test(error.said) && (await beginsLikeMovie(file))) {
      throw refuse("the file is cut off (its index is missing). Copy or export it again.");
    }
    throw refuse("this is not a film, or it is damaged. Choose a video file such as MP4, MOV, MKV or WebM.");
  });
  const found = Probe.parse(JSON.parse(json));
  const videos = found.streams.filter((s) => s.codec_type === "video" && !s.disposition?.attached_pic);
  const video = videos.find((s) => s.width && s.height);
  const audio = found.streams.find((s) => s.codec_type === "audio");
  if (!video) {
    throw refuse(
      audio
        ? "there is sound in this file but no picture. Choose a video file."
        : "this is not a film: there is no picture in it. Choose a video file such as MP4, MOV, MKV or WebM.",
    );
  }
  const rate = chooseRate(video);
  const duration = seconds(video.duration) || seconds(found.format?.duration);
  if (!rate || duration <= 0) {
    throw refuse("this is not a film: it has no running time. Choose a video file such as MP4, MOV, MKV or WebM.");
  }
  const counted = Number(video.nb_frames);
  const frames =
    !rate.variable && counted > 0 ? counted : Math.max(1, Math.round(duration * framesPerSecond(rate.rate)));
  if (frames < 2) throw refuse("this is a still picture. Choose a film of two frames or more.");
  if (frames > MAX_FRAMES) {
    throw refuse(`it has ${frames} frames, more than the ${MAX_FRAMES} that can be worked with. Export it in parts.`);
  }
  if (bytes < SUSPICIOUS_BYTES * frames) await requirePictures(file, frames, rate, refuse);
  const start = seconds(video.start_time);
  if (!(await endIsThere(file, start + duration, rate))) {
    throw refuse("the file is cut off: its last seconds are missing. Copy or export it again.");
  }
  const { picture, nonSquarePixels } = displaySize(video);
  const { width, height } = picture;
  if (Math.min(width, height) < MIN_SIDE) {
    throw refuse(`the picture is only ${width} × ${height} pixels, too small to crop.`);
  }
  if (width * height > MAX_PIXELS || Math.max(width, height) > MAX_SIDE) {
    throw refuse(
      `the picture is ${width} × ${height} pixels, larger than can be worked with. Export it in 8K or less.`,
    );
  }
  return {
    picture,
    nonSquarePixels,
    rate: rate.rate,
    frames,
    variableRate: rate.variable,
    videoStart: Math.max(0, start - seconds(found.format?.start_time)),
    audio: audio ? { codec: audio.codec_name ?? "unknown" } : null,
    colour: {
      transfer: video.color_transfer ?? "unknown",
      matrix: video.color_space ?? "unknown",
      range: video.color_range ?? "tv",
    },
    videoCodec: video.codec_name ?? "unknown",
    container: found.format?.format_name ?? "unknown",
    bytes,
  };
}
