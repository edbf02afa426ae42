import { createHash } from "node:crypto";
import { existsSync } from "node:fs";
import { basename, join } from "node:path";
import type { ClipWithFile } from "~/core/clips/clip";
import type { FilmInfo } from "~/core/film/film-info";
import { depthFor } from "~/core/image/bit-depth";
import { listClips } from "~/db/clips.server";
import type { Db } from "~/db/database.server";
import type { FilmRow } from "~/db/films.server";
import { requireSpace } from "~/disk/disk-space.server";
import { conform } from "~/media/conform.server";
import { estimatedBytes } from "~/media/estimated-size";
import { DATA_FOLDER, dataFolder, filmFolder, sourceFile } from "~/db/workplace.server";

/** Name of the file made for a clip; it changes with everything that affects the file. */
export function partName(
  { id, file, info, start, end, area }: ClipWithFile,
  { picture, rate, bitDepth }: FilmInfo,
): string {
  const basis = JSON.stringify([
    basename(file),
    info.bytes,
    end - start,
    area,
    picture,
    rate,
    // Parts made before other depths existed have 8 bits.
    ...(bitDepth > 8 ? [bitDepth] : []),
  ]);
  return `source-part-${id}-${createHash("sha256").update(basis).digest("hex").slice(0, 10)}.mov`;
}

/** Conforms all clips of a film that have not been to its grid. */
export async function conformClips(
  database: Db,
  film: FilmRow,
  { onProgress, signal }: { onProgress: (share: number) => void; signal: AbortSignal },
): Promise<void> {
  const clips = listClips(database, film.id);
  const parts = clips
    .map((clip) => ({ clip, file: join(filmFolder(film.id), partName(clip, film.info)) }))
    .filter(({ file }) => !existsSync(file));
  const frames = parts.reduce((sum, { clip }) => sum + clip.info.frames, 0);
  const { picture, rate, bitDepth } = film.info;
  requireSpace(dataFolder(), DATA_FOLDER, estimatedBytes("render", picture, frames, rate), film.name);
  let done = 0;
  for (const { clip, file } of parts) {
    const { name, info, start, end, area } = clip;
    const grid = { picture, rate, frames: end - start, area, depth: depthFor(bitDepth) };
    await conform({ file: sourceFile(clip), name, info }, grid, file, {
      signal,
      onProgress: (share) => onProgress((done + share * info.frames) / frames),
    });
    done += info.frames;
  }
}
