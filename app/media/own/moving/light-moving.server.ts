/** The proxy of a moving picture for the browser: the same frames with fewer pixels, and their alpha. */
import { frameToSeconds } from "~/core/time/rate";
import { inputMatrix } from "../../decode.server";
import { REC709_TAGS, startFfmpeg, writing } from "../../film-tool.server";
import { onGrid, readFrom, soundOnGrid, soundStream } from "../../on-grid.server";
import { proxyPicture } from "../../proxy.server";
import type { MovingFile } from "./moving-file.server";

const SAMPLE_RATE = 48_000;
/** Frames between key frames. */
const KEY_INTERVAL = 12;

const H264 = ["-c:v", "libx264", "-preset", "veryfast", "-crf", "24", "-bf", "0", "-movflags", "+faststart"];
const VP9 = [
  "-c:v",
  "libvpx-vp9",
  "-deadline",
  "realtime",
  "-cpu-used",
  "8",
  "-row-mt",
  "1",
  "-crf",
  "28",
  "-b:v",
  "0",
];

/** Format of a proxy: WebM with alpha, otherwise MP4. */
export const lightType = ({ hasAlpha }: Pick<MovingFile, "hasAlpha">): { extension: string; type: string } =>
  hasAlpha ? { extension: ".webm", type: "video/webm" } : { extension: ".mp4", type: "video/mp4" };

/** Makes the proxy of a moving picture. */
export async function makeLight(moving: MovingFile, target: string): Promise<void> {
  const { info, decoder, name, hasAlpha } = moving;
  const { width, height } = proxyPicture(info);
  const whole = { start: 0, end: info.frames };
  const scaled = `scale=${width}:${height}:flags=bicubic:${inputMatrix(info)}:out_color_matrix=bt709:out_range=tv`;
  const picture = [onGrid(info, whole), scaled, `format=${hasAlpha ? "yuva420p" : "yuv420p"}`].join(",");
  const sound = info.audio
    ? [...["-map", soundStream(0, info), "-af", soundOnGrid(info, whole, SAMPLE_RATE), "-ac", "2"]]
    : ["-an"];
  const tool = startFfmpeg(name, [
    ...[
      "-y",
      ...decoder,
      ...readFrom(moving, 0),
      "-map",
      "0:V:0",
      "-vf",
      `${picture},setpts=N/(${info.rate.num}/${info.rate.den})/TB`,
    ],
    ...["-r", `${info.rate.num}/${info.rate.den}`, ...(hasAlpha ? VP9 : H264), "-g", String(KEY_INTERVAL)],
    ...(hasAlpha ? ["-auto-alt-ref", "0"] : []),
    ...REC709_TAGS,
    ...sound,
    ...(info.audio ? ["-c:a", hasAlpha ? "libopus" : "aac"] : []),
    ...["-t", String(frameToSeconds(info.frames, info.rate)), "-f", hasAlpha ? "webm" : "mp4", writing(target)],
  ]);
  tool.stdin.end();
  tool.stdout.resume();
  await tool.done;
}

/** Makes a PNG of the first frame of a moving picture. */
export async function makePoster(moving: MovingFile, target: string): Promise<void> {
  const { info, decoder, name } = moving;
  const { width, height } = proxyPicture(info);
  const first = onGrid(info, { start: 0, end: 1 });
  const scaled = `scale=${width}:${height}:flags=bicubic:${inputMatrix(info)}`;
  const tool = startFfmpeg(name, [
    ...["-y", ...decoder, ...readFrom(moving, 0), "-map", "0:V:0", "-vf", `${first},${scaled},format=rgba`],
    ...["-frames:v", "1", "-c:v", "png", "-f", "image2", "-update", "1", writing(target)],
  ]);
  tool.stdin.end();
  tool.stdout.resume();
  await tool.done;
}
