import type { Composition } from "~/core/composition/composition";
import type { Size } from "~/core/geometry/box";
import { pixelFormat } from "~/core/image/bit-depth";
import { decodeFrames } from "~/media/decode.server";
import type { FilmFile } from "~/media/film-file";
import { bytesFromFfmpeg, pipedIn } from "~/media/film-tool.server";
import { FrameMaker } from "~/media/frame-maker.server";
import { toRgb } from "~/media/render/encode.server";
import type { OwnContents } from "~/media/own/load-pictures.server";

/**
 * One frame of a version, rendered from the original.
 * @returns a PNG; null where the film cannot be decoded there
 */
export async function renderFrame(
  film: FilmFile,
  frame: number,
  target: Size,
  composition: Composition,
  own: OwnContents,
  signal?: AbortSignal,
): Promise<Buffer | null> {
  const maker = await FrameMaker.open(film.info.picture, target, own);
  try {
    for await (const data of decodeFrames(film, { range: { start: frame, end: frame + 1 }, signal })) {
      const made = await maker.make(data, composition);
      const input = pipedIn(target, pixelFormat(maker.depth));
      const picture = ["-frames:v", "1", "-vf", toRgb(maker.depth), "-c:v", "png", "-pred", "sub"];
      const output = [...picture, "-f", "image2pipe", "pipe:1"];
      return await bytesFromFfmpeg(film.name, [...input, ...output], made, signal);
    }
    return null;
  } finally {
    await maker.close();
  }
}
