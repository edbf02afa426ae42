import type { Size } from "~/core/geometry/box";
import { frameToSeconds } from "~/core/time/rate";
import { readProgress } from "./progress.server";
import type { FilmFile, FilmInfo } from "./film-file";
import { reading, readingToItsEnd, startFfmpeg, writing } from "./film-tool.server";
import { writeAside } from "~/disk/write-aside.server";

/** Larger side of a proxy, in pixels. */
const PROXY_SIDE = 960;
/** Frames between key frames: short, so that a seek is quick. */
const PROXY_GOP = 12;

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
  variableRate: false,
  nonSquarePixels: false,
  videoStart: 0,
});

/** Writes a light copy that a browser plays and seeks at once: same frames, same sound, fewer pixels. */
export async function makeProxy(film: FilmFile, target: string, options: StepOptions = {}): Promise<void> {
  const { name, info } = film;
  const { width, height } = proxySize(info.picture);
  const rate = `${info.rate.num}/${info.rate.den}`;
  await writeAside(target, async (aside) => {
    const tool = startFfmpeg(
      name,
      [
        ...["-y", "-progress", "pipe:1", ...readingToItsEnd(film), "-map", "0:v:0", "-map", "0:a:0?"],
        ...["-vf", `fps=${rate}:start_time=${info.videoStart},scale=${width}:${height},setsar=1,format=yuv420p`],
        ...["-frames:v", String(info.frames), "-t", String(frameToSeconds(info.frames, info.rate))],
        ...["-c:v", "libx264", "-preset", "veryfast", "-crf", "24", "-g", String(PROXY_GOP), "-bf", "0"],
        ...["-c:a", "aac", "-b:a", "128k", "-ac", "2", "-movflags", "+faststart", writing(aside)],
      ],
      options.signal,
    );
    tool.stdin.end();
    await readProgress(tool, info.frames, options.onProgress);
  });
}

/** Writes one small picture of the film, from a third of its length. */
export async function makePoster({ file, name, info }: FilmFile, target: string, signal?: AbortSignal): Promise<void> {
  await writeAside(target, async (aside) => {
    const at = frameToSeconds(Math.floor(info.frames / 3), info.rate) + info.videoStart;
    const tool = startFfmpeg(
      name,
      [
        ...["-y", "-ss", String(at), ...reading(file), "-frames:v", "1"],
        ...["-vf", "scale=640:640:force_original_aspect_ratio=decrease,setsar=1", "-q:v", "4", writing(aside)],
      ],
      signal,
    );
    tool.stdin.end();
    tool.stdout.resume();
    await tool.done;
  });
}
