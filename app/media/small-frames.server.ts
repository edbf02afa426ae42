import type { Size } from "~/core/geometry/box";
import { cropYuv, type YuvImage, yuvImage } from "~/core/image/yuv-image";
import { FEATURE_SIZE } from "~/core/shots/frame-features";
import type { FrameRange } from "~/core/time/rate";
import { decodeFrames, type DecodeOptions, stackedSize } from "./decode.server";
import type { FilmFile } from "./film-file";

/** Longer side, in pixels, of the frames for analysis: the detectors' input, without padding. */
const LONG_SIDE = 448;

/** Frames buffered while the analysis is busy; two seconds of most films, and 10 MB. */
const WAITING = 60;

/** Size of a picture reduced to a longer side, and source pixels per reduced pixel. */
export function scaledFrames(picture: Size, longSide = LONG_SIDE): { size: Size; scale: number } {
  const scale = Math.max(1, Math.max(picture.width, picture.height) / longSide);
  const even = (value: number) => Math.max(2, Math.round(value / scale / 2) * 2);
  return { size: { width: even(picture.width), height: even(picture.height) }, scale };
}

/** Size of the frames for analysis, and source pixels per pixel of theirs. */
export const smallFrames = (picture: Size) => scaledFrames(picture);

/** Decodes a range of a film to small images, with their frame numbers. */
export async function* decodeSmall(
  film: FilmFile,
  range: FrameRange,
  signal?: AbortSignal,
  longSide?: number,
): AsyncGenerator<{ frame: number; image: YuvImage }> {
  const { size } = scaledFrames(film.info.picture, longSide);
  let frame = range.start;
  for await (const data of decodeFrames(film, { size, range, signal })) {
    yield { frame: frame++, image: yuvImage(data, size) };
  }
}

/** Like `decodeSmall`, with a copy of each frame, or of a part of it, reduced to the size for features. */
export async function* decodeForAnalysis(
  film: FilmFile,
  range: FrameRange,
  options: Pick<DecodeOptions, "area" | "onDecoded" | "signal">,
): AsyncGenerator<{ frame: number; image: YuvImage; reduced: YuvImage }> {
  const { size } = smallFrames(film.info.picture);
  const stacked = stackedSize(size, FEATURE_SIZE);
  let frame = range.start;
  const decoded = decodeFrames(film, {
    ...options,
    size,
    copy: FEATURE_SIZE,
    blocksMayShow: true,
    waiting: WAITING,
    range,
  });
  for await (const data of decoded) {
    const both = yuvImage(data, stacked);
    yield { frame: frame++, image: cropYuv(both, 0, size), reduced: cropYuv(both, size.height, FEATURE_SIZE) };
  }
}

/** Decodes only frames of the size for features; of the whole film if no range is given. */
export async function* decodeReduced(
  film: FilmFile,
  { area, signal, range = { start: 0, end: film.info.frames } }: Pick<DecodeOptions, "area" | "range" | "signal"> = {},
): AsyncGenerator<YuvImage> {
  const { size } = smallFrames(film.info.picture);
  const options = { size, reduceTo: FEATURE_SIZE, blocksMayShow: true, area, range, signal };
  for await (const data of decodeFrames(film, options)) yield yuvImage(data, FEATURE_SIZE);
}
