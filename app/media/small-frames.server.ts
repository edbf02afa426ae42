import type { Size } from "~/core/geometry/box";
import type { RgbImage } from "~/core/image/rgb-image";
import type { FrameRange } from "~/core/time/rate";
import { decodeFrames } from "./decode.server";
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
  for await (const data of decodeFrames(film.file, film.name, film.info, {
    size,
    pixelFormat: "rgb24",
    range,
    signal,
  })) {
    yield { frame: frame++, image: { ...size, data } };
  }
}
