import { existsSync } from "node:fs";
import { yuvImage } from "~/core/image/yuv-image";
import { pieceAt, pieceRange } from "~/core/time/pieces";
import { decodeFrames } from "./decode.server";
import { pieceFile, pieceInfo } from "./proxy.server";
import { type decodeSmall, scaledFrames } from "./small-frames.server";

/** Decodes small frames as `decodeSmall` does, but from existing pieces of the film's proxy, which is faster. */
export const decodeLight = (folder: string): typeof decodeSmall =>
  async function* (film, range, signal, longSide) {
    const { size } = scaledFrames(film.info.picture, longSide);
    for (let frame = range.start; frame < range.end;) {
      const piece = pieceAt(frame, film.info.rate);
      const { start, end } = pieceRange(piece, film.info);
      const part = { start: frame, end: Math.min(end, range.end) };
      const file = pieceFile(folder, piece);
      const frames = existsSync(file)
        ? decodeFrames(
            { file, name: film.name, info: pieceInfo(film.info, piece) },
            { size, range: { start: part.start - start, end: part.end - start }, signal },
          )
        : decodeFrames(film, { size, range: part, signal });
      for await (const data of frames) yield { frame: frame++, image: yuvImage(data, size) };
    }
  };
