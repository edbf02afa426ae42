import { existsSync } from "node:fs";
import { writeAside } from "~/disk/write-aside.server";
import type { FilmFile } from "./film-file";
import { FilmError, startFfmpeg, writing } from "./film-tool.server";
import { onGrid, readFrom, seekSecondsFor } from "./on-grid.server";
import { filmErrors } from "~/texts/film-errors";

/** Fits a picture of any aspect ratio into a square, by its displayed pixels. */
const SIZE = "scale=iw*sar:ih,scale=640:640:force_original_aspect_ratio=decrease:force_divisible_by=2";

/**
 * Writes one small picture of the film, from a third of its length, or from where it can be decoded.
 * @throws FilmError if nothing of the film can be decoded
 */
export async function makePoster(film: FilmFile, target: string, signal?: AbortSignal): Promise<void> {
  const { name, info } = film;
  await writeAside(target, async (aside) => {
    for (const frame of [Math.floor(info.frames / 3), 0]) {
      const tool = startFfmpeg(
        name,
        [
          ...["-y", ...readFrom(film, seekSecondsFor(info, frame)), "-map", "0:V:0", "-frames:v", "1"],
          ...["-vf", `${onGrid(info, { start: frame, end: frame + 1 })},${SIZE},setsar=1`],
          ...["-q:v", "4", writing(aside)],
        ],
        signal,
      );
      tool.stdin.end();
      tool.stdout.resume();
      await tool.done;
      // ffmpeg does not fail if it finds no picture.
      if (existsSync(aside)) return;
    }
    throw new FilmError(`${name}: ${filmErrors.decoding.nothingDecodes}`);
  });
}
