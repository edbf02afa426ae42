import type { Size } from "~/core/geometry/box";
import { frameToSeconds } from "~/core/time/rate";
import { readProgress } from "./progress.server";
import type { FilmFile, FilmInfo } from "./film-file";
import { startFfmpeg, writing } from "./film-tool.server";
import { onGrid, readFrom, seekSecondsFor, soundOnGrid, soundStream } from "./on-grid.server";
import { writeAside } from "~/disk/write-aside.server";

/** Larger side of a proxy, in pixels. */
const PROXY_SIDE = 960;
/** Frames between key frames: short, so that a seek is quick. */
const PROXY_GOP = 12;
const SAMPLE_RATE = 48_000;
/** Fits a picture of any shape into a square, by its pixels as they are displayed. */
const POSTER_SIZE = "scale=iw*sar:ih,scale=640:640:force_original_aspect_ratio=decrease:force_divisible_by=2";

export interface StepOptions {
  /** 0 to 1. */
  onProgress?: (share: number) => void;
  signal?: AbortSignal;
}

function proxySize({ width, height }: Size): Size {
  const scale = Math.min(1, PROXY_SIDE / Math.max(width, height));
  const even = (value: number) => Math.max(2, Math.round((value * scale) / 2) * 2);
  return { width: even(width), height: even(height) };
}

/** What is known of a film's light copy without looking into it: its frames lie on the film's grid, from 0 on. */
export const proxyInfo = (info: FilmInfo): FilmInfo => ({
  ...info,
  picture: proxySize(info.picture),
  nonSquarePixels: false,
  interlaced: false,
  grid: {
    ...{ origin: 0, fileStart: 0, lastPicture: frameToSeconds(info.frames - 1, info.rate) },
    ...{ even: true, held: 0, longHolds: [], seekMargin: 0 },
  },
  audio: info.audio && { codec: "aac", index: 0, start: 0 },
});

/** Writes a light copy that a browser plays and seeks at once: same frames, same sound, fewer pixels. */
export async function makeProxy(film: FilmFile, target: string, options: StepOptions = {}): Promise<void> {
  const { name, info } = film;
  const { width, height } = proxySize(info.picture);
  const range = { start: 0, end: info.frames };
  const sound = [
    ...["-map", soundStream(0, info), "-af", soundOnGrid(info, range, SAMPLE_RATE)],
    ...["-c:a", "aac", "-b:a", "128k", "-ac", "2"],
  ];
  await writeAside(target, async (aside) => {
    const tool = startFfmpeg(
      name,
      [
        ...["-y", "-progress", "pipe:1", ...readFrom(film, 0), "-map", "0:V:0", "-sn", "-dn"],
        ...["-vf", `${onGrid(info, range)},setpts=N,scale=${width}:${height},setsar=1,format=yuv420p`],
        ...["-frames:v", String(info.frames), "-fps_mode", "passthrough"],
        ...["-c:v", "libx264", "-preset", "veryfast", "-crf", "24", "-g", String(PROXY_GOP), "-bf", "0"],
        ...[...(info.audio ? sound : ["-an"]), "-movflags", "+faststart", writing(aside)],
      ],
      options.signal,
    );
    tool.stdin.end();
    await readProgress(tool, info.frames, options.onProgress);
  });
}

/** Writes one small picture of the film, from a third of its length. */
export async function makePoster(film: FilmFile, target: string, signal?: AbortSignal): Promise<void> {
  const { name, info } = film;
  const frame = Math.floor(info.frames / 3);
  await writeAside(target, async (aside) => {
    const tool = startFfmpeg(
      name,
      [
        ...["-y", ...readFrom(film, seekSecondsFor(info, frame)), "-map", "0:V:0", "-frames:v", "1"],
        ...["-vf", `${onGrid(info, { start: frame, end: frame + 1 })},${POSTER_SIZE},setsar=1`],
        ...["-q:v", "4", writing(aside)],
      ],
      signal,
    );
    tool.stdin.end();
    tool.stdout.resume();
    await tool.done;
  });
}
