/** Encodes drawn frames into a film file. */
import { spawn } from "node:child_process";
import { once } from "node:events";
import { writeAside } from "~/disk/write-aside.server";

export interface Encoding {
  size: { width: number; height: number };
  rate: { num: number; den: number };
  /** x264's constant rate factor. */
  crf: number;
  frames: number;
  /** A frame as RGBA; the buffer may be used again for the next. */
  draw: (frame: number) => Buffer;
  /** A wave file to go with the picture. */
  sound?: string;
}

/** Writes aside first, so that a file that bears its name is whole. */
export const encode = (film: Encoding, file: string): Promise<void> =>
  writeAside(file, (aside) => encodeTo(film, aside));

async function encodeTo({ size, rate, crf, frames, draw, sound }: Encoding, file: string): Promise<void> {
  const ffmpeg = spawn(
    "ffmpeg",
    [
      ...["-y", "-v", "error", "-f", "rawvideo", "-pix_fmt", "rgba", "-s", `${size.width}x${size.height}`],
      ...["-r", `${rate.num}/${rate.den}`, "-i", "pipe:0", ...(sound ? ["-i", sound, "-c:a", "aac", "-shortest"] : [])],
      ...["-vf", "scale=out_color_matrix=bt709:out_range=tv,format=yuv420p"],
      ...["-c:v", "libx264", "-preset", "veryfast", "-crf", `${crf}`, "-colorspace", "bt709", file],
    ],
    { stdio: ["pipe", "inherit", "inherit"] },
  );
  const closed = once(ffmpeg, "close");
  for (let frame = 0; frame < frames; frame++) {
    if (!ffmpeg.stdin.write(Buffer.from(draw(frame)))) await once(ffmpeg.stdin, "drain");
  }
  ffmpeg.stdin.end();
  const [code] = (await closed) as [number];
  if (code !== 0) throw new Error(`${file}: the encoder ended with ${code}`);
}
