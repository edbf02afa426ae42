import { framesPerSecond } from "~/core/time/rate";
import type { FilmFile } from "./film-file";
import { startFfmpeg } from "./film-tool.server";
import { readFrom, soundOnGrid, soundStream } from "./on-grid.server";

const SAMPLE_RATE = 8000;
const BYTES = 2;
const FULL_SCALE = 32768;

/**
 * Loudness of a film's sound in each of its frames: the largest sample of all channels mixed, 0 to 255 of full scale.
 * @throws CancelledError if the signal is aborted
 */
export async function waveformOf(film: FilmFile, signal?: AbortSignal): Promise<Uint8Array> {
  const { info } = film;
  const peaks = new Uint8Array(info.frames);
  if (!info.audio) return peaks;
  const whole = { start: 0, end: info.frames };
  const tool = startFfmpeg(
    film.name,
    [
      ...[...readFrom(film, 0), "-map", soundStream(0, info), "-vn", "-sn", "-dn"],
      ...["-af", soundOnGrid(info, whole, SAMPLE_RATE), "-ac", "1", "-f", "s16le", "pipe:1"],
    ],
    signal,
  );
  tool.stdin.end();
  const framesPerSample = framesPerSecond(info.rate) / SAMPLE_RATE;
  let sample = 0;
  let rest: Buffer = Buffer.alloc(0);
  try {
    for await (const chunk of tool.stdout as AsyncIterable<Buffer>) {
      const data = rest.length > 0 ? Buffer.concat([rest, chunk]) : chunk;
      const count = Math.floor(data.length / BYTES);
      for (let i = 0; i < count; i++, sample++) {
        const frame = Math.floor(sample * framesPerSample);
        const loud = Math.min(255, Math.round((255 * Math.abs(data.readInt16LE(i * BYTES))) / FULL_SCALE));
        if (frame < peaks.length && loud > peaks[frame]!) peaks[frame] = loud;
      }
      rest = data.subarray(count * BYTES);
    }
    await tool.done;
    return peaks;
  } finally {
    tool.kill();
  }
}
