import { existsSync } from "node:fs";
import { join } from "node:path";
import type { Size } from "~/core/geometry/box";
import { KEY_FRAME_INTERVAL, pieceCount, pieceRange } from "~/core/time/pieces";
import { pixelFormat } from "~/core/image/bit-depth";
import { type FrameRange, frameToSeconds } from "~/core/time/rate";
import { writeAside } from "~/disk/write-aside.server";
import { decodeFrames } from "./decode.server";
import type { FilmInfo } from "~/core/film/film-info";
import type { FilmFile } from "./film-file";
import { REC709_TAGS, pipedIn, startFfmpeg, writing } from "./film-tool.server";
import { readFrom, soundOnGrid, soundSeekSecondsFor, soundStream } from "./on-grid.server";
import { writeTo } from "./tool.server";

/** Larger side of a proxy, in pixels. */
const PROXY_SIDE = 960;
const SAMPLE_RATE = 48_000;

/** Size of a proxy's picture. */
export function proxyPicture({ picture: { width, height } }: Pick<FilmInfo, "picture">): Size {
  const scale = Math.min(1, PROXY_SIDE / Math.max(width, height));
  const even = (value: number) => Math.max(2, Math.round((value * scale) / 2) * 2);
  return { width: even(width), height: even(height) };
}

/** Facts about a piece of a film's proxy, without probing it: its frames have a grid of their own, from 0. */
export function pieceInfo(info: FilmInfo, piece: number): FilmInfo {
  const { start, end } = pieceRange(piece, info);
  const frames = end - start;
  return {
    ...info,
    picture: proxyPicture(info),
    frames,
    cutOff: 0,
    timeBreaks: false,
    nonSquarePixels: false,
    interlaced: false,
    fields: false,
    colour: { transfer: "bt709", matrix: "bt709", range: "tv" },
    grid: {
      origin: 0,
      fileStart: 0,
      lastPicture: frameToSeconds(frames - 1, info.rate),
      even: true,
      held: 0,
      longHolds: [],
      seekMargin: 0,
      timeBase: 0,
      late: 0,
    },
    audio: info.audio && { codec: "flac", index: 0, start: 0 },
    sounds: [],
    startTimecode: null,
  };
}

/** Path of a piece in the folder of a film's proxy. */
export const pieceFile = (folder: string, piece: number): string => join(folder, `${piece}.mp4`);

/** The first range of missing pieces, from a piece on; null if there are none. */
export function missingPieces(folder: string, info: FilmInfo, from = 0): FrameRange | null {
  const count = pieceCount(info);
  const isThere = (piece: number) => existsSync(pieceFile(folder, piece));
  let start = from;
  while (start < count && isThere(start)) start++;
  if (start === count) return null;
  let end = start + 1;
  while (end < count && !isThere(end)) end++;
  return { start, end };
}

/**
 * Encodes the next frames of a film as one piece: a fragmented file, which a page can append to its playback. The sound is
 * lossless: other codecs of browsers start with some milliseconds of their own, audible at every seam.
 */
async function encodePiece(
  film: FilmFile,
  range: FrameRange,
  frames: AsyncGenerator<Buffer>,
  target: string,
  signal?: AbortSignal,
): Promise<void> {
  const { info, name } = film;
  const sound = info.audio && {
    input: readFrom(film, soundSeekSecondsFor(info, range.start)),
    output: ["-map", soundStream(1, info), "-af", soundOnGrid(info, range, SAMPLE_RATE), "-c:a", "flac", "-ac", "2"],
  };
  const encoder = startFfmpeg(
    name,
    [
      ...["-y", ...pipedIn(proxyPicture(info), pixelFormat(8), info.rate), ...(sound?.input ?? []), "-map", "0:v:0"],
      ...["-c:v", "libx264", "-preset", "veryfast", "-crf", "24", "-g", String(KEY_FRAME_INTERVAL), "-bf", "0"],
      ...REC709_TAGS,
      ...(sound?.output ?? ["-an"]),
      ...["-movflags", "frag_keyframe+empty_moov+default_base_moof", "-strict", "-2", "-f", "mp4", writing(target)],
    ],
    signal,
  );
  encoder.stdout.resume();
  try {
    for (let frame = range.start; frame < range.end; frame++) {
      const { value, done } = await frames.next();
      if (done) break;
      await writeTo(encoder, value);
    }
    encoder.stdin.end();
    await encoder.done;
  } finally {
    encoder.kill();
  }
}

export interface PieceOptions {
  /** Called when a piece exists. */
  onPiece?: (piece: number) => void;
  signal?: AbortSignal;
}

/**
 * Makes pieces of a proxy for playback and seeking in a browser: same frames, same sound, fewer pixels. Stops at a piece
 * that was made otherwise meanwhile.
 * @param wanted pieces, from the first to before the last
 * @throws FilmError if the film cannot be decoded; CancelledError if the signal is aborted
 */
export async function makePieces(
  film: FilmFile,
  folder: string,
  wanted: FrameRange,
  { onPiece, signal }: PieceOptions = {},
): Promise<void> {
  const range = { start: pieceRange(wanted.start, film.info).start, end: pieceRange(wanted.end - 1, film.info).end };
  const frames = decodeFrames(film, { size: proxyPicture(film.info), colours: "Rec.709", range, signal });
  try {
    for (let piece = wanted.start; piece < wanted.end; piece++) {
      const file = pieceFile(folder, piece);
      if (existsSync(file)) return;
      await writeAside(file, (aside) => encodePiece(film, pieceRange(piece, film.info), frames, aside, signal));
      onPiece?.(piece);
    }
  } finally {
    await frames.return(undefined);
  }
}

/**
 * Makes all missing pieces, in order.
 * @param onProgress share of all pieces that exist, 0 to 1
 */
export async function makeProxy(
  film: FilmFile,
  folder: string,
  { onProgress, signal }: { onProgress?: (share: number) => void; signal?: AbortSignal } = {},
): Promise<void> {
  const count = pieceCount(film.info);
  let missing = missingPieces(folder, film.info);
  onProgress?.((missing?.start ?? count) / count);
  while (missing) {
    await makePieces(film, folder, missing, { signal, onPiece: (piece) => onProgress?.((piece + 1) / count) });
    missing = missingPieces(folder, film.info, missing.start);
  }
}
