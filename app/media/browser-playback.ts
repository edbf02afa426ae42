import { framesPerSecond } from "~/core/time/rate";
import type { FilmInfo } from "./film-file";

/** Codecs that browsers decode, and the endings of files that they read. */
const CODECS = new Set(["h264", "vp8", "vp9", "av1"]);
const ENDINGS = /\.(mp4|m4v|mov|webm)$/i;

/**
 * Whether a browser is likely to play a film's own file with every frame where the film's grid has it, so that nobody
 * has to wait for a light copy.
 */
export function playsInBrowser(
  file: string,
  info: Pick<FilmInfo, "videoCodec" | "nonSquarePixels" | "interlaced" | "grid" | "rate">,
): boolean {
  const { grid } = info;
  const onGrid = grid.even && Math.abs(grid.origin - grid.fileStart) < 0.1 / framesPerSecond(info.rate);
  const asStored = !info.nonSquarePixels && !info.interlaced;
  return ENDINGS.test(file) && CODECS.has(info.videoCodec) && onGrid && asStored;
}
