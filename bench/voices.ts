/** Voices of a speech synthesiser, for what is said in a benchmark. */
import { execFileSync } from "node:child_process";
import { readFileSync, writeFileSync } from "node:fs";

/** Samples a second. */
export const SPOKEN_RATE = 22050;

/** What a voice of espeak-ng says, in samples. */
export function say(voice: string, text: string, file: string, speed = 155): Int16Array {
  execFileSync("espeak-ng", ["-v", voice, "-s", `${speed}`, "-w", file, text]);
  const bytes = readFileSync(file);
  const start = bytes.indexOf("data") + 8;
  return new Int16Array(
    bytes.buffer.slice(bytes.byteOffset + start, bytes.byteOffset + bytes.length - (bytes.length % 2)),
  );
}

/** Writes samples as a wave file of one channel. */
export function writeWave(file: string, samples: Int16Array): void {
  const header = Buffer.alloc(44);
  header.write("RIFF", 0);
  header.writeUInt32LE(36 + samples.byteLength, 4);
  header.write("WAVEfmt ", 8);
  header.writeUInt32LE(16, 16);
  header.writeUInt16LE(1, 20);
  header.writeUInt16LE(1, 22);
  header.writeUInt32LE(SPOKEN_RATE, 24);
  header.writeUInt32LE(SPOKEN_RATE * 2, 28);
  header.writeUInt16LE(2, 32);
  header.writeUInt16LE(16, 34);
  header.write("data", 36);
  header.writeUInt32LE(samples.byteLength, 40);
  writeFileSync(file, Buffer.concat([header, Buffer.from(samples.buffer)]));
}
