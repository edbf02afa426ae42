/** Where a mark holds somebody or something that the detectors have followed already, their track leads the way. */
import { type Box, boxArea, boxAround, boxCentre, boxIou, type Size } from "../../geometry/box";
import type { Rate } from "../../time/rate";
import { type Mark, type Sweep, trackOfMarks, type Way, waysFrom } from "./follow-thing";
import type { MarkedThing } from "./marked-things";
import { boxAt, type Track } from "../tracking/track";

/** Where a marked thing is at a frame by a track that was found; null where the track does not say. */
export type Guide = (frame: number) => Box | null;

/** A mark and a box of a track that overlap by this much are of the same thing. */
const SAME = 0.5;
/** A face in this part of a mark, from its top, and near its middle is that of the person whom the mark holds. */
const HEAD_SHARE = 0.5;
const ASIDE = 0.3;
/** Anything smaller is a detail of a larger thing, or far away. */
const LEAST_FACE = 0.03;
/** A box this near the picture's left or right edge, as a share of its width, is on its way out. */
const AT_SIDE = 0.01;

/** Whether a mark holds a person with this face. */
function holdsFace({ box }: Mark, face: Box): boolean {
  const { x, y } = boxCentre(face);
  const aside = Math.abs(x - boxCentre(box).x) / box.width;
  const inside = y > box.y && y < box.y + HEAD_SHARE * box.height && boxArea(face) < boxArea(box);
  return inside && aside < ASIDE && boxArea(face) > LEAST_FACE * boxArea(box);
}

/** Whether a mark is of what a track follows: of the thing itself, or of the person with that face. */
function isOf(track: Track, mark: Mark): boolean {
  const found = boxAt(track, mark.frame);
  if (!found) return false;
  return boxIou(found, mark.box) >= SAME || (track.kind === "face" && holdsFace(mark, found));
}

/**
 * The track that a mark holds, with the mark's box in the same place and proportion to it all the time; null if it holds
 * none, or more than one. A face is known by more than a person is, and leads the whole person.
 *
 * @param until the mark up to which the way is to be led: a track that this one does not hold as well has gone astray
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
    // Its height says how near a thing has come: its width changes with every turn and every step.
    const growth = found.height / seen.height;
    const { x, y } = boxCentre(found);
    const centre = { x: x + growth * (to.x - from.x), y: y + growth * (to.y - from.y) };
    return boxAround(centre, { width: growth * mark.box.width, height: growth * mark.box.height });
  };
}

/** Whether somebody who was last seen in a box has gone out of the picture at its side. */
export const hasLeft = ({ x, width }: Box, picture: Size): boolean =>
  x < AT_SIDE * picture.width || x + width > (1 - AT_SIDE) * picture.width;

/** Where a thing is on a way from a mark, if its guide leads all of it. */
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

/** The track of a marked thing if what was found tells all of it, so that nothing need be looked at; otherwise null. */
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
