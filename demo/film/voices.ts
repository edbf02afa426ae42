/** What is said on the kite day, spoken by a speech synthesiser, and the sound of the wind. */
import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { seeded, tilingNoise } from "./random";

export const SAMPLE_RATE = 48000;

export interface Line {
  person: string;
  /** Frame of the film at which the line begins. */
  frame: number;
  text: string;
}
export interface Spoken extends Line {
  samples: Float32Array;
}

const VOICES: Record<string, { voice: string; speed: number; pitch: number }> = {
  nela: { voice: "en+f3", speed: 160, pitch: 52 },
  bram: { voice: "en+m3", speed: 150, pitch: 34 },
  ilse: { voice: "en+f2", speed: 150, pitch: 62 },
};

/** Samples of the first channel of a 16-bit PCM wave file, in [-1, 1]. */
function readWave(file: string): { rate: number; samples: Float32Array } {
  const bytes = readFileSync(file);
  const rate = bytes.readUInt32LE(24);
  const start = bytes.indexOf("data") + 8;
  const count = (bytes.length - start) >> 1;
  return { rate, samples: Float32Array.from({ length: count }, (_, i) => bytes.readInt16LE(start + i * 2) / 32768) };
}

function resample(samples: Float32Array, from: number, to: number): Float32Array {
  return Float32Array.from({ length: Math.floor((samples.length * to) / from) }, (_, i) => {
    const at = (i * from) / to;
    const k = Math.floor(at);
    const a = samples[k] ?? 0;
    return a + ((samples[k + 1] ?? 0) - a) * (at - k);
  });
}

export function speak(lines: Line[]): Spoken[] {
  const folder = mkdtempSync(join(tmpdir(), "kite-voices-"));
  try {
    return lines.map((line, i) => {
      const file = join(folder, `${i}.wav`);
      const { voice, speed, pitch } = VOICES[line.person]!;
      execFileSync("espeak-ng", ["-v", voice, "-s", `${speed}`, "-p", `${pitch}`, "-w", file, line.text]);
      const wave = readWave(file);
      return { ...line, samples: resample(wave.samples, wave.rate, SAMPLE_RATE) };
    });
  } finally {
    rmSync(folder, { recursive: true });
  }
}

/** How far a speaker's mouth is open at a frame, 0 to 1: the loudness of that frame's samples. */
export function mouthAt(spoken: Spoken[], person: string, frame: number, rate: number): number {
  for (const line of spoken) {
    if (line.person !== person || frame < line.frame) continue;
    const start = Math.floor(((frame - line.frame) / rate) * SAMPLE_RATE);
    if (start >= line.samples.length) continue;
    let sum = 0;
    const count = Math.floor(SAMPLE_RATE / rate);
    for (let i = 0; i < count; i++) sum += (line.samples[start + i] ?? 0) ** 2;
    return Math.min(0.7, Math.sqrt(sum / count) * 5);
  }
  return 0;
}

/** Wind in the grass, a soft chord below it, and the voices: 16-bit stereo PCM for the whole film. */
export function mix(spoken: Spoken[], frames: number, rate: number): Buffer {
  const count = Math.round((frames / rate) * SAMPLE_RATE);
  const sound = new Float32Array(count);
  const random = seeded(99);
  const gust = tilingNoise(3, 64);
  let low = 0;
  for (let i = 0; i < count; i++) {
    const time = i / SAMPLE_RATE;
    const strength = 0.25 + gust(time * 0.6, 0.5);
    low += (random() * 2 - 1 - low) * (0.015 + strength * 0.02);
    let chord = 0;
    for (const hz of [110, 164.81, 220, 277.18])
      chord += Math.sin(2 * Math.PI * hz * time) * (0.6 + 0.4 * Math.sin(time * 0.37 + hz));
    sound[i] = low * 0.22 * strength + chord * 0.008;
  }
  for (const line of spoken) {
    const start = Math.round((line.frame / rate) * SAMPLE_RATE);
    line.samples.forEach((value, i) => {
      if (start + i < count) sound[start + i]! += value * 0.7;
    });
  }
  const bytes = Buffer.alloc(count * 4);
  sound.forEach((value, i) => {
    const sample = Math.round(Math.max(-1, Math.min(1, value)) * 32000);
    bytes.writeInt16LE(sample, i * 4);
    bytes.writeInt16LE(sample, i * 4 + 2);
  });
  return bytes;
}
