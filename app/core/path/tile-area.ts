/** In a picture made of several tiles, the window stays in one: across a seam it would show parts of two. */
import { type Box, boxArea, boxContains, intersectionArea } from "../geometry/box";
import { aspectRatio, windowBox } from "../geometry/crop-window";
import { boxAt, type Track } from "../subjects/tracking/track";
import { type FrameRange, inRange } from "../time/rate";
import { boxInside, from, to, trackInside } from "./active-area";
import type { ShotPath, ShotProblem } from "./solve-shot";

/** Share of several subjects followed together that must lie in a tile for them to belong to it. */
const BELONGS = 0.8;
/** Pixels by which a hand key's window may overlap a measured seam. */
const TOLERANCE = 2;

/** Share of a track, over all frames of a range, that lies in a box. */
function shareIn(track: Track, { start, end }: FrameRange, area: Box): number {
  let seen = 0;
  let inside = 0;
  for (let frame = start; frame < end; frame++) {
    const box = boxAt(track, frame);
    if (!box) continue;
    seen += boxArea(box);
    inside += intersectionArea(box, area);
  }
  return seen > 0 ? inside / seen : 0;
}

/**
 * The tile in which a part of a shot stays: that of its subject, or the largest where nothing is followed.
 * @returns null where there are no tiles, where subjects followed together are in several, and where the editor has put the
 *   window across a seam
 */
export function tileOf(
  { shot, subject, handKeys, target }: Omit<ShotProblem, "settings">,
  tracks: readonly Track[],
): Box | null {
  const tiles = tracks.filter(({ kind }) => kind === "tile").flatMap((track) => boxAt(track, shot.start) ?? []);
  const weights = tiles.map((area) => (subject ? shareIn(subject.track, shot, area) : boxArea(area)));
  const most = Math.max(...weights);
  const tile = tiles[weights.indexOf(most)];
  const isOne = !subject || tracks.some(({ id }) => id === subject.track.id);
  if (!tile || (!isOne && most < BELONGS)) return null;
  const aspect = aspectRatio(target);
  const isAcross = handKeys.some(
    (key) => inRange(key.frame, shot) && !boxContains(tile, windowBox(key, aspect), TOLERANCE),
  );
  return isAcross ? null : tile;
}

/** A shot's problem relative to a tile's corner, with the tile as its picture. */
export function insideTile(problem: ShotProblem, tile: Box): ShotProblem {
  const { subject, protect, texts, handKeys, startAt } = problem;
  const inside = (track: Track) => trackInside(track, tile);
  return {
    ...problem,
    picture: tile,
    subject: subject && { track: inside(subject.track), body: subject.body && inside(subject.body) },
    protect: protect && boxInside(protect, tile),
    texts: texts.map(inside),
    handKeys: handKeys.map((key) => from(key, tile)),
    startAt: startAt && from(startAt, tile),
  };
}

/** A path relative to a tile's corner, relative to the picture's. */
export const outOfTile = ({ keys, windows }: ShotPath, tile: Box): ShotPath => ({
  keys: keys.map((key) => to(key, tile)),
  windows: windows.map((window) => to(window, tile)),
});
