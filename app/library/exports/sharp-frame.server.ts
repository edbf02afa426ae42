import { compose, type ShownAt } from "~/core/composition/composition";
import { layOut } from "~/core/composition/layout";
import { requireVersion } from "~/core/version/find";
import { settledShot, shotSettings } from "~/core/version/shot-settings";
import { withAbove } from "~/core/version/lay";
import { keptRanges } from "~/core/version/trim";
import type { CropWindow } from "~/core/geometry/crop-window";
import { Refusal } from "~/core/basics/refusal";
import { activeArea } from "~/core/shots/shot";
import { framesPerSecond, inRange } from "~/core/time/rate";
import { loadState } from "~/db/film-state.server";
import type { FilmRow } from "~/db/films.server";
import { renderFrame } from "~/pipelines/render-frame.server";
import { libraryFiles } from "../own/own-files.server";
import { requireSource } from "~/library/films/require-source.server";
import { db, sourceFile } from "~/db/workplace.server";
import { libraryErrors } from "~/texts/library-errors";

const t = libraryErrors.exports;

/**
 * A frame of a version as it will be in the file, for the desk, which has laid the path already.
 * @param windows shown on the desk in each pane
 * @param places of captions in the safe area, by their ids
 * @returns a PNG; null where the film cannot be decoded
 * @throws Refusal if there is no such version, no such frame, or another number of panes
 */
export async function sharpFrame(
  film: FilmRow,
  versionId: string,
  frame: number,
  windows: readonly CropWindow[],
  places: ReadonlyMap<string, number>,
  signal?: AbortSignal,
): Promise<Buffer | null> {
  requireSource(film);
  const state = loadState(db(), film);
  const version = requireVersion(state, versionId);
  const set = shotSettings(state, version).find(({ shot }) => inRange(frame, shot));
  if (!set) throw new Refusal(t.noSuchFrame, 404);
  const { info } = film;
  const target = { width: version.width, height: version.height };
  const laidOut = layOut(settledShot(set).settings, activeArea(set.shot, info.picture), target);
  if (laidOut.panes.length !== windows.length) throw new Refusal(t.otherLayout, 409);
  const fps = framesPerSecond(info.rate);
  const bare: ShownAt = (at) =>
    compose(windows, laidOut, target, { film: at / fps, shot: (at - set.shot.start) / fps });
  const ranges = keptRanges(version.trim, info.frames, state);
  const shown = withAbove({ film: info, target, shots: [], ranges, bare }, version, state.captions, places);
  const file = { file: sourceFile(film), name: film.name, info };
  return renderFrame(file, frame, target, shown(frame), libraryFiles(version), signal);
}
