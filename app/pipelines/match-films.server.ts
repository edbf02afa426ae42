import { frameFeatures } from "~/core/shots/frame-features";
import { matchShots, settleMatches, type ShotMatch } from "~/core/shots/match-shots";
import { PictureStrip } from "~/core/shots/picture-strip";
import { type FrameRange, framesPerSecond } from "~/core/time/rate";
import { pieceCount } from "~/core/time/pieces";
import type { FilmFile } from "~/media/film-file";
import { missingPieces, pieceFile, pieceInfo } from "~/media/proxy.server";
import { decodeReduced } from "~/media/small-frames.server";
import { CancelledError } from "~/media/tool.server";

export interface MatchOptions {
  /**
   * Folder of the old film's proxy. A complete proxy is used: it is faster to decode, and still there when the film is not.
   */
  proxy?: string;
  /** Called with what is being done, and the share of the whole that is done, 0 to 1. */
  onProgress?: (step: string, share: number) => void;
  signal?: AbortSignal;
}

/** The files of a film: its own, or its proxy's. */
function filesOf(film: FilmFile, proxy: string | undefined): FilmFile[] {
  if (proxy === undefined || missingPieces(proxy, film.info, 0)) return [film];
  return Array.from({ length: pieceCount(film.info) }, (_, piece) => ({
    file: pieceFile(proxy, piece),
    name: film.name,
    info: pieceInfo(film.info, piece),
  }));
}

async function stripOf(
  films: readonly FilmFile[],
  onFrame: (frames: number) => void,
  signal?: AbortSignal,
): Promise<PictureStrip> {
  const strip = new PictureStrip();
  for (const film of films) {
    for await (const reduced of decodeReduced(film, { signal })) {
      strip.add(frameFeatures(reduced));
      onFrame(strip.frames);
    }
  }
  return strip;
}

/** Shares of the work: decoding each film, and finding the shots. */
const LOOKED = [0.4, 0.8] as const;

/**
 * Finds the shots of a film in a new export of it.
 * @throws FilmError if one of them cannot be decoded to its end; CancelledError if the signal is aborted
 */
export async function matchFilms(
  before: FilmFile,
  after: FilmFile,
  shots: readonly (FrameRange & { id: string })[],
  { proxy, onProgress, signal }: MatchOptions = {},
): Promise<ShotMatch[]> {
  const step = `Comparing with ${after.name}`;
  const old = await stripOf(
    filesOf(before, proxy),
    (frames) => onProgress?.(step, (LOOKED[0] * frames) / before.info.frames),
    signal,
  );
  const other = await stripOf(
    [after],
    (frames) => onProgress?.(step, LOOKED[0] + ((LOOKED[1] - LOOKED[0]) * frames) / after.info.frames),
    signal,
  );
  const ratio = framesPerSecond(after.info.rate) / framesPerSecond(before.info.rate);
  const matches: ShotMatch[] = [];
  for (const match of matchShots(shots, old, other, ratio)) {
    matches.push(match);
    onProgress?.(step, LOOKED[1] + ((1 - LOOKED[1]) * matches.length) / shots.length);
    // Lets a cancellation in between two shots.
    await new Promise(setImmediate);
    if (signal?.aborted) throw new CancelledError();
  }
  return settleMatches(matches);
}
