import * as ort from "onnxruntime-node";
import type { FilmFile } from "./film-file";
import { loadModel } from "./detect/session.server";
import { startFfmpeg } from "./film-tool.server";
import { readFrom, soundOnGrid, soundSeekSecondsFor, soundStream } from "./on-grid.server";

const SAMPLE_RATE = 16000;
/** Samples that the model judges at a time, and samples of the piece before that it wants to see again. */
const PIECE = 512;
const CONTEXT = 64;
const STATE = [2, 1, 128];

export const SECONDS_PER_PIECE = PIECE / SAMPLE_RATE;

/** Decodes the sound to one channel, from the moment that a frame is shown on, in pieces; the last is filled up. */
async function* soundPieces(film: FilmFile, from: number, signal?: AbortSignal): AsyncGenerator<Float32Array> {
  const tool = startFfmpeg(
    film.name,
    [
      ...[...readFrom(film, soundSeekSecondsFor(film.info, from)), "-map", soundStream(0, film.info)],
      ...["-vn", "-sn", "-dn", "-af", soundOnGrid(film.info, { start: from, end: film.info.frames }, SAMPLE_RATE)],
      ...["-ac", "1", "-f", "f32le", "pipe:1"],
    ],
    signal,
  );
  tool.stdin.end();
  let piece = Buffer.alloc(PIECE * 4);
  let filled = 0;
  const samples = (buffer: Buffer) => new Float32Array(buffer.buffer, buffer.byteOffset, PIECE);
  try {
    for await (const chunk of tool.stdout as AsyncIterable<Buffer>) {
      for (let at = 0; at < chunk.length;) {
        const count = Math.min(piece.length - filled, chunk.length - at);
        chunk.copy(piece, filled, at, at + count);
        filled += count;
        at += count;
        if (filled < piece.length) continue;
        yield samples(piece);
        piece = Buffer.alloc(PIECE * 4);
        filled = 0;
      }
    }
    await tool.done;
    if (filled > 0) yield samples(piece);
  } finally {
    tool.kill();
  }
}

/**
 * Probability of speech, 0 to 255, in every piece of a film's sound, in order (Silero VAD). Nothing for a film without
 * sound.
 *
 * @param from the frame to begin with
 * @throws CancelledError if the signal is aborted
 */
export async function* listen(film: FilmFile, from: number, signal?: AbortSignal): AsyncGenerator<number> {
  if (!film.info.audio) return;
  const session = await loadModel("silero-vad");
  const rate = new ort.Tensor("int64", BigInt64Array.from([BigInt(SAMPLE_RATE)]), []);
  let state: ort.Tensor = new ort.Tensor("float32", new Float32Array(STATE.reduce((a, b) => a * b)), STATE);
  const input = new Float32Array(CONTEXT + PIECE);
  for await (const samples of soundPieces(film, from, signal)) {
    input.copyWithin(0, PIECE);
    input.set(samples, CONTEXT);
    const out = await session.run({ input: new ort.Tensor("float32", input, [1, input.length]), state, sr: rate });
    state = out.stateN!;
    yield Math.round(255 * (out.output!.data[0] as number));
  }
}
