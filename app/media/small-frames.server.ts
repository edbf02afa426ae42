import type { Size } from "~/core/geometry/box";
import type { RgbImage } from "~/core/image/rgb-image";
import { FEATURE_SIZE } from "~/core/shots/frame-features";
import type { FrameRange } from "~/core/time/rate";
import { decodeFrames, type DecodeOptions, stackedSize } from "./decode.server";
import type { FilmInfo } from "./probe.server";

/** Longer side, in pixels, of the frames that the analysis looks at. */
const LONG_SIDE = 640;

/** Size of the analysis's frames, and how many source pixels one of theirs is. */
export function smallFrames(picture: Size): { size: Size; scale: number } {
  const scale = Math.max(1, Math.max(picture.width, picture.height) / LONG_SIDE);
  const even = (value: number) => Math.max(2, Math.round(value / scale / 2) * 2);
  return { size: { width: even(picture.width), height: even(picture.height) }, scale };
}

export interface FilmFile {
  file: string;
  /** What the film is called in messages. */
  name: string;
  info: FilmInfo;
}

/** Decodes a range of a film to small images, with their frame numbers. */
export async function* decodeSmall(
  film: FilmFile,
  range: FrameRange,
  signal?: AbortSignal,
): AsyncGenerator<{ frame: number; image: RgbImage }> {
  const { size } = smallFrames(film.info.picture);
  let frame = range.start;
  const options: DecodeOptions = { size, pixelFormat: "rgb24", range, signal };
  for await (const data of decodeFrames(film.file, film.name, film.info, options)) {
    yield { frame: frame++, image: { ...size, data } };
  }
}

/** Cuts the leftmost columns out of rows of RGB. */
function cutRows(data: Buffer, stride: number, firstRow: number, { width, height }: Size): RgbImage {
  const out = new Uint8Array(width * height * 3);
  for (let row = 0; row < height; row++) {
    const from = (firstRow + row) * stride * 3;
    out.set(data.subarray(from, from + width * 3), row * width * 3);
  }
  return { width, height, data: out };
}

/** Like `decodeSmall`, with a copy of each frame reduced to the size that features are taken from. */
export async function* decodeForAnalysis(
  film: FilmFile,
  range: FrameRange,
  signal?: AbortSignal,
): AsyncGenerator<{ frame: number; image: RgbImage; reduced: RgbImage }> {
  const { size } = smallFrames(film.info.picture);
  const { width } = stackedSize(size, FEATURE_SIZE);
  let frame = range.start;
  const options: DecodeOptions = { size, copy: FEATURE_SIZE, pixelFormat: "rgb24", range, signal };
  for await (const data of decodeFrames(film.file, film.name, film.info, options)) {
    const whole = data.subarray(0, width * size.height * 3);
    const image = width === size.width ? { ...size, data: whole } : cutRows(data, width, 0, size);
    yield { frame: frame++, image, reduced: cutRows(data, width, size.height, FEATURE_SIZE) };
  }
}

/** Decodes nothing but what features are taken from. */
export async function* decodeReduced(film: FilmFile, signal?: AbortSignal): AsyncGenerator<RgbImage> {
  const range = { start: 0, end: film.info.frames };
  const { size } = smallFrames(film.info.picture);
  const options: DecodeOptions = { size, reduceTo: FEATURE_SIZE, pixelFormat: "rgb24", range, signal };
  for await (const data of decodeFrames(film.file, film.name, film.info, options)) yield { ...FEATURE_SIZE, data };
}
