/** Where a mark is on a person or thing that has a track already, that track guides it. */
import { type Box, boxArea, boxAround, boxCentre, boxIou, type Size } from "../../geometry/box";
import type { Rate } from "../../time/rate";
import { type Mark, type Sweep, trackOfMarks, type Way, waysFrom } from "./follow-thing";
import type { MarkedThing } from "./marked-things";
import { boxAt, type Track } from "../tracking/track";

/** Box of a marked thing at a frame by an existing track; null where the track has none. */
export type Guide = (frame: number) => Box | null;

/** Overlap of a mark and a track's box above which they are of the same thing. */
const SAME = 0.5;
/** A face in this upper share of a mark, near its vertical axis, belongs to the person in the mark. */
const HEAD_SHARE = 0.5;
const ASIDE = 0.3;
/** Share of a mark below which a face is a detail of a larger thing, or far away. */
const LEAST_FACE = 0.03;
/** Distance from the picture's left or right edge, as a share of its width, within which a box is leaving. */
const AT_SIDE = 0.01;

/** Whether a mark is around the person with this face. */
function holdsFace({ box }: Mark, face: Box): boolean {
  const { x, y } = boxCentre(face);
  const aside = Math.abs(x - boxCentre(box).x) / box.width;
  const inside = y > box.y && y < box.y + HEAD_SHARE * box.height && boxArea(face) < boxArea(box);
  return inside && aside < ASIDE && boxArea(face) > LEAST_FACE * boxArea(box);
}

/** Whether a mark is on a track's subject: the thing itself, or the person with that face. */
function isOf(track: Track, mark: Mark): boolean {
  const found = boxAt(track, mark.frame);
  if (!found) return false;
  return boxIou(found, mark.box) >= SAME || (track.kind === "face" && holdsFace(mark, found));
}

/**
 * The guide for a mark from the one track on which it is, with the mark's box at constant place and proportion relative to
 * it; null if there is no such track, or several. A face is recognised more reliably than a body, and guides the whole
 * person.
 * @param until the mark up to which it guides: a track that is not on this one as well has gone astray
 */
export function guideOf(mark: Mark, until: Mark | undefined, tracks: readonly Track[]): Guide | null {
  const held = tracks.filter((track) => isOf(track, mark) && (!until || isOf(track, until)));
  const faces = held.filter(({ kind }) => kind === "face");
  const [track, ...others] = faces.length > 0 ? faces : held.filter(({ kind }) => kind === "object");
  if (!track || others.length > 0) return null;
  const seen = boxAt(track, mark.frame)!;
  const [from, to] = [boxCentre(seen), boxCentre(mark.box)];
  return (frame) => {
    const found = boxAt(track, frame);
    if (!found) return null;
    // Its height tells a thing's distance: its width changes with every turn and step.
    const growth = found.height / seen.height;
    const { x, y } = boxCentre(found);
    const centre = { x: x + growth * (to.x - from.x), y: y + growth * (to.y - from.y) };
    return boxAround(centre, { width: growth * mark.box.width, height: growth * mark.box.height });
  };
}

/** Whether somebody last seen in a box has left the picture at its side. */
export const hasLeft = ({ x, width }: Box, picture: Size): boolean =>
  x < AT_SIDE * picture.width || x + width > (1 - AT_SIDE) * picture.width;

/** Sightings of a thing from a mark on, if its guide covers all of them. */
function ledSweep({ mark, until, end }: Way, tracks: readonly Track[], picture: Size): Sweep | null {
  const guide = guideOf(mark, until, tracks);
  const found: Sweep = new Map();
  let last = mark.box;
  const step = Math.sign(end - mark.frame);
  for (let frame = mark.frame + step; frame !== end; frame += step) {
    const led = guide?.(frame) ?? null;
    if (!led && (last === mark.box || !hasLeft(last, picture))) return null;
    if (led) last = led;
    found.set(frame, led);
  }
  return found;
}

/**
 * The track of a marked thing if existing tracks determine all of it, so that nothing has to be analysed; otherwise null.
 */
export function ledTrack(
  { id, shot, marks }: Pick<MarkedThing, "id" | "shot" | "marks">,
  tracks: readonly Track[],
  picture: Size,
  rate: Rate,
): Track | null {
  const ways = waysFrom(marks, shot);
  const sweep = (way: Way) => ledSweep(way, tracks, picture);
  const [forwards, backwards] = [ways.forwards.map(sweep), ways.backwards.map(sweep)];
  const complete = (sweeps: (Sweep | null)[]): sweeps is Sweep[] => sweeps.every((sweep) => sweep !== null);
  if (!complete(forwards) || !complete(backwards)) return null;
  return trackOfMarks(id, marks, forwards, backwards, shot, picture, rate);
}
