/** Films whose pictures carry their own number, so that it can be told which picture one sees. */
import { spawnSync } from "node:child_process";
import { writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { YuvImage } from "~/core/image/yuv-image";

export const SIZE = { width: 320, height: 180 };
const BITS = 10;
const SOUND_RATE = 48_000;
/** Seconds after the film's first picture at which the tone begins. */
export const TONE_AT = 1;

/** A picture with a number in black and white cells, and once more the other way round below. */
function picture(number: number): Buffer {
  const rgb = Buffer.alloc(3 * SIZE.width * SIZE.height);
  const cell = SIZE.width / BITS;
  for (let y = 0; y < SIZE.height; y++) {
    for (let x = 0; x < SIZE.width; x++) {
      const bit = (number >> Math.floor(x / cell)) & 1;
      const white = y < SIZE.height / 2 ? bit === 1 : bit === 0;
      rgb.fill(white ? 220 : 30, 3 * (y * SIZE.width + x), 3 * (y * SIZE.width + x) + 3);
    }
  }
  return rgb;
}

/** The number that a picture carries; -1 if it cannot be read. */
export function numberIn({ luma, width, height }: YuvImage): number {
  /** Mean brightness around a place given as shares of the picture. */
  const around = (left: number, top: number): number => {
    let [sum, count] = [0, 0];
    for (let dy = -3; dy <= 3; dy++) {
      for (let dx = -2; dx <= 2; dx++) {
        sum += luma[(Math.round(top * height) + dy) * width + Math.round(left * width) + dx]!;
        count++;
      }
    }
    return sum / count;
  };
  let number = 0;
  for (let bit = 0; bit < BITS; bit++) {
    const left = (bit + 0.5) / BITS;
    const difference = around(left, 0.25) - around(left, 0.75);
    if (Math.abs(difference) < 50) return -1;
    if (difference > 0) number |= 1 << bit;
  }
  return number;
}

/** A tone that begins at once after silence. */
function tone(seconds: number): Buffer {
  const samples = new Int16Array(Math.round(seconds * SOUND_RATE));
  for (let i = TONE_AT * SOUND_RATE; i < samples.length; i++) {
    samples[i] = Math.round(16_000 * Math.sin((2 * Math.PI * 1000 * (i - TONE_AT * SOUND_RATE)) / SOUND_RATE));
  }
  return Buffer.from(samples.buffer);
}

/** Writes a film of so many numbered pictures, as good as lossless, with a tone that begins with the picture of TONE_AT. */
export function writeNumbered(file: string, frames: number, rate: string, soundSeconds: number | null): void {
  const sound = join(tmpdir(), `glad-pan-tone-${process.pid}.raw`);
  writeFileSync(sound, tone(soundSeconds ?? 0));
  const input = Buffer.concat(Array.from({ length: frames }, (_, i) => picture(i)));
  const args = [
    ...["-y", "-v", "error", "-f", "rawvideo", "-pix_fmt", "rgb24", "-s", `${SIZE.width}x${SIZE.height}`],
    ...["-r", rate, "-i", "pipe:0"],
    ...(soundSeconds === null ? [] : ["-f", "s16le", "-ar", String(SOUND_RATE), "-ac", "1", "-i", sound]),
    ...["-c:v", "ffv1", "-c:a", "pcm_s16le", file],
  ];
  const { status, stderr } = spawnSync("ffmpeg", args, { input, maxBuffer: 2 ** 30 });
  if (status !== 0) throw new Error(String(stderr));
}

/** Seconds of a file at which the tone begins, from its first picture on; null if there is none. */
export function toneBegins(file: string): number | null {
  // By its time stamps: what is copied may have gaps that a player keeps.
  const filled = `aresample=${SOUND_RATE}:async=1:min_hard_comp=0.01:first_pts=0`;
  const args = ["-v", "error", "-i", file, "-map", "0:a:0", "-ac", "1", "-af", filled, "-f", "s16le", "-"];
  const { stdout } = spawnSync("ffmpeg", args, { maxBuffer: 2 ** 30 });
  const samples = new Int16Array(stdout.buffer, stdout.byteOffset, stdout.length >> 1);
  const first = samples.findIndex((sample) => Math.abs(sample) > 4000);
  return first < 0 ? null : first / SOUND_RATE;
}
