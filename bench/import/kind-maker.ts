import { execFileSync } from "node:child_process";
import { join } from "node:path";
import { TONE_AT, writeNumbered } from "./numbered";

export interface Kind {
  name: string;
  file: string;
  /** Frames a second of the grid. */
  fps: number;
  /** Length in frames; null where nobody can say beforehand. */
  frames: number | null;
  /** The number of the picture at each frame. */
  expected: number[];
  /** Seconds at which the tone begins; null without sound. */
  tone: number | null;
  /** Whether its half pictures are to be frames of their own. */
  fields: boolean;
  /** Frames whose pictures cannot be decoded; null where nobody can say beforehand. */
  undecoded: number | null;
}

export const FRAMES = 96;
export const LOSSLESS = ["-c:v", "libx264", "-preset", "ultrafast", "-qp", "4", "-pix_fmt", "yuv420p"];
export const WITH_B = [
  "-c:v",
  "libx264",
  "-preset",
  "veryfast",
  "-bf",
  "3",
  "-g",
  "24",
  "-crf",
  "14",
  "-pix_fmt",
  "yuv420p",
];
export const AAC = ["-c:a", "aac", "-b:a", "128k"];

export const upTo = (count: number): number[] => Array.from({ length: count }, (_, i) => i);
export const value = (rate: string): number => {
  const [num, den = "1"] = rate.split("/");
  return Number(num) / Number(den);
};

/** Makes films in a folder, and notes what belongs at each of their frames. */
export class KindMaker {
  readonly all: Kind[] = [];

  constructor(private readonly folder: string) {}

  protected path = (name: string) => join(this.folder, name);
  protected ffmpeg = (...args: string[]) => execFileSync("ffmpeg", ["-y", "-v", "error", "-nostdin", ...args]);

  protected source(rate: string, frames = FRAMES, soundSeconds: number | null = frames / value(rate)): string {
    const file = this.path(`source-${rate.replace("/", "-")}-${frames}-${soundSeconds}.mkv`);
    writeNumbered(file, frames, rate, soundSeconds);
    return file;
  }

  /** @param lead frames before the first picture: a player's clock begins with the sound, which encoders begin early */
  protected add(
    name: string,
    file: string,
    rate: string,
    pictures: number[],
    {
      tone = TONE_AT,
      lead = 0,
      undecoded = 0,
      fields = false,
    }: { tone?: number | null; lead?: number; undecoded?: number | null; fields?: boolean } = {},
  ): void {
    const expected = [...Array.from({ length: lead }, () => 0), ...pictures];
    const frames = pictures.length > 0 ? expected.length : null;
    const fps = value(rate);
    const toneAt = tone === null ? null : tone + lead / fps;
    this.all.push({
      name,
      file: this.path(file),
      fps,
      frames,
      expected: frames === null ? [] : expected,
      tone: toneAt,
      undecoded,
      fields,
    });
  }
}
