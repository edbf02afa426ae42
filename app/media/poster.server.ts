import { writeAside } from "~/disk/write-aside.server";
import type { FilmFile } from "./film-file";
import { startFfmpeg, writing } from "./film-tool.server";
import { onGrid, readFrom, seekSecondsFor } from "./on-grid.server";

/** Fits a picture of any shape into a square, by its pixels as they are displayed. */
const SIZE = "scale=iw*sar:ih,scale=640:640:force_original_aspect_ratio=decrease:force_divisible_by=2";

/** Writes one small picture of the film, from a third of its length. */
export async function makePoster(film: FilmFile, target: string, signal?: AbortSignal): Promise<void> {
  const { name, info } = film;
  const frame = Math.floor(info.frames / 3);
  await writeAside(target, async (aside) => {
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
  });
}
