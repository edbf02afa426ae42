import { execFileSync } from "node:child_process";

/** What ffprobe says of a file's picture and its number of sound streams. */
export function measure(file: string) {
  const args = ["-v", "error", "-count_frames", "-show_streams", "-of", "json", file];
  const { streams } = JSON.parse(execFileSync("ffprobe", args, { encoding: "utf8" })) as {
    streams: {
      codec_type: string;
      width: number;
      height: number;
      sample_aspect_ratio: string;
      nb_read_frames: string;
      r_frame_rate: string;
    }[];
  };
  const video = streams.find((s) => s.codec_type === "video")!;
  return {
    size: [video.width, video.height],
    pixels: video.sample_aspect_ratio,
    frames: Number(video.nb_read_frames),
    rate: video.r_frame_rate,
    sounds: streams.filter((s) => s.codec_type === "audio").length,
  };
}
