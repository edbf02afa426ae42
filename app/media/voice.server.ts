import type { FilmFile } from "./film-file";
import { loadModel, SILERO_VAD } from "./detect/session.server";
import { startFfmpeg } from "./film-tool.server";
import { ort, type Ort } from "./onnx-runtime.server";
import { readFrom, soundOnGrid, soundSeekSecondsFor, soundStream } from "./on-grid.server";

const SAMPLE_RATE = 16000;
/** Samples per piece that the model judges, and samples of the piece before that it needs again. */
const PIECE = 512;
const CONTEXT = 64;
/** Pieces judged together: a second of sound. */
const AT_A_TIME = 32;
/** Size of each of the two parts of its state. */
const STATE = 128;

export const SECONDS_PER_PIECE = PIECE / SAMPLE_RATE;

/** Decodes the sound to mono, from the time of a frame on, in pieces; the last one is padded. */
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
 * @param from first frame
 * @throws CancelledError if the signal is aborted
 */
export async function* listen(film: FilmFile, from: number, signal?: AbortSignal): AsyncGenerator<number> {
  if (!film.info.audio) return;
  const session = await loadModel(SILERO_VAD);
  const nothing = new ort.Tensor("float32", new Float32Array(STATE), [1, 1, STATE]);
  let state: { hidden: Ort.Tensor; cell: Ort.Tensor } = { hidden: nothing, cell: nothing };
  const length = CONTEXT + PIECE;
  const input = new Float32Array(AT_A_TIME * length);
  let count = 0;
  let before: Float32Array = new Float32Array(PIECE);
  const judge = async (): Promise<number[]> => {
    const pieces = new ort.Tensor("float32", input.subarray(0, count * length), [count, 1, length]);
    const { output, hiddenN, cellN } = await session.run({ input: pieces, ...state });
    state = { hidden: hiddenN!, cell: cellN! };
    count = 0;
    return Array.from(output!.data as Float32Array, (probability) => Math.round(255 * probability));
  };
  for await (const samples of soundPieces(film, from, signal)) {
    input.set(before.subarray(PIECE - CONTEXT), count * length);
    input.set(samples, count * length + CONTEXT);
    before = samples;
    if (++count === AT_A_TIME) yield* await judge();
  }
  if (count > 0) yield* await judge();
}
