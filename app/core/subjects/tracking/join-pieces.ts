/** Joins tracks that are parts of one moving thing: those that move side by side. */
import { type Box, boxArea, boxCentre, boxUnion } from "../../geometry/box";
import { boxAt, extentOf, type Track } from "./track";

/** Frames for which two must be seen together to be joined. */
const LEAST_TOGETHER = 6;
/**
 * Greatest distance between two parts, in sizes of the larger one, and share of their common time for which it must hold.
 */
const BESIDE = 0.4;
const BESIDE_SHARE = 0.8;
/** Greatest difference of their movements, relative to their lengths. */
const DISCORD = 0.5;

const sizeOf = (box: Box): number => Math.sqrt(boxArea(box));

/** Distance of two boxes at their nearest edges; 0 if they touch. */
function gapBetween(a: Box, b: Box): number {
  const across = Math.max(0, a.x - b.x - b.width, b.x - a.x - a.width);
  const down = Math.max(0, a.y - b.y - b.height, b.y - a.y - a.height);
  return Math.hypot(across, down);
}

/** Whether two tracks move side by side while both are seen. */
function goTogether(a: Track, b: Track): boolean {
  // What an arm moves goes along with the arm, and is not part of it.
  if (a.held || b.held) return false;
  const start = Math.max(a.start, b.start);
  const end = Math.min(extentOf(a).end, extentOf(b).end);
  const pairs: [Box, Box][] = [];
  for (let frame = start; frame < end; frame++) {
    const [p, q] = [boxAt(a, frame), boxAt(b, frame)];
    if (p && q) pairs.push([p, q]);
  }
  if (pairs.length < LEAST_TOGETHER) return false;
  const beside = pairs.filter(([p, q]) => gapBetween(p, q) <= BESIDE * Math.max(sizeOf(p), sizeOf(q)));
  if (beside.length < BESIDE_SHARE * pairs.length) return false;
  const [first, last] = [pairs[0]!, pairs.at(-1)!];
  const went = (k: 0 | 1) => {
    const [from, to] = [boxCentre(first[k]), boxCentre(last[k])];
    return { x: to.x - from.x, y: to.y - from.y };
  };
  const [u, v] = [went(0), went(1)];
  const far = Math.max(Math.hypot(u.x, u.y), Math.hypot(v.x, v.y), sizeOf(first[0]) / 4);
  return Math.hypot(u.x - v.x, u.y - v.y) <= DISCORD * far;
}

function join(a: Track, b: Track): Track {
  const start = Math.min(a.start, b.start);
  const end = Math.max(extentOf(a).end, extentOf(b).end);
  const boxes = Array.from({ length: end - start }, (_, i) => {
    const [p, q] = [boxAt(a, start + i), boxAt(b, start + i)];
    return p && q ? boxUnion([p, q]) : (p ?? q);
  });
  return { ...a, start, boxes };
}

/** The tracks, with parts joined, under the id of the first. */
export function joinPieces(tracks: readonly Track[]): Track[] {
  const joined: Track[] = [];
  for (const track of tracks) {
    const at = joined.findIndex((other) => goTogether(other, track));
    if (at < 0) joined.push(track);
    else joined[at] = join(joined[at]!, track);
  }
  return joined;
}
