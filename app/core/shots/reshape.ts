import { boxIntersection } from "../geometry/box";
import { Refusal } from "../basics/refusal";
import { carriesOver, freshShot, type Shot } from "./shot";
import { hardTransition, shotsBetween, type Transition } from "./transition";
import { refusalsTexts } from "../../texts/refusals";

const t = refusalsTexts.reshape;

/** Id of a shot that begins at a frame: the same each time, and not one in use. */
export function shotId(filmId: string, start: number, taken: ReadonlySet<string>): string {
  let id = `${filmId}.${start}`;
  while (taken.has(id)) id += "'";
  return id;
}

/**
 * The index of a shot in the list.
 * @throws Refusal if it is not there
 */
export function requireShot(shots: readonly Shot[], id: string): number {
  const index = shots.findIndex((shot) => shot.id === id);
  if (index < 0) throw new Refusal(t.shotGone);
  return index;
}

/** The part of a range of frames inside bounds; empty at its start where there is none. */
function clipMixed({ mixed, start }: Shot, end: number): Shot["mixed"] {
  return mixed.start >= end || mixed.end <= mixed.start
    ? { start, end: start }
    : { start: mixed.start, end: Math.min(mixed.end, end) };
}

/** Splits the shot that contains `frame`, which becomes the first frame of a new shot with the same settings. */
export function splitShot(
  shots: readonly Shot[],
  frame: number,
  kind: "cut" | "jump" | "switch",
  newId: string,
): Shot[] {
  const index = shots.findIndex((shot) => frame > shot.start && frame < shot.end);
  const shot = shots[index];
  if (!shot) throw new Refusal(t.shotBeginsHere);
  const first = { ...shot, end: frame, mixed: clipMixed(shot, frame) };
  const { range } = hardTransition(frame, kind);
  const second: Shot = {
    ...shot,
    id: newId,
    start: frame,
    begins: kind,
    mixed: range,
    carry: carriesOver(kind),
    name: null,
  };
  return [...shots.slice(0, index), first, second, ...shots.slice(index + 1)];
}

/** The picture area that several shots share. */
function commonArea(shots: readonly Shot[]): Shot["active"] {
  const areas = shots.flatMap(({ active }) => active ?? []);
  return areas.length === 0 ? null : areas.reduce(boxIntersection);
}

/** Joins consecutive shots into the first of them, which keeps its settings. */
export function joinShots(shots: readonly Shot[], ids: readonly string[]): Shot[] {
  const indices = ids.map((id) => requireShot(shots, id)).sort((a, b) => a - b);
  const [first] = indices;
  if (first === undefined || indices.length < 2) throw new Refusal(t.needsTwoShots);
  if (indices.some((index, i) => index !== first + i)) {
    throw new Refusal(t.onlyNeighbours);
  }
  const last = first + indices.length - 1;
  const parts = shots.slice(first, last + 1);
  const joined = { ...shots[first]!, end: shots[last]!.end, active: commonArea(parts) };
  return [...shots.slice(0, first), joined, ...shots.slice(last + 1)];
}

/** Moves the start of a shot, and with it the end of the one before. A mixture moves along. */
export function moveCut(shots: readonly Shot[], id: string, frame: number): Shot[] {
  const index = requireShot(shots, id);
  const shot = shots[index]!;
  const before = shots[index - 1];
  if (!before) throw new Refusal(t.firstShotFixed);
  if (frame <= before.start || frame >= shot.end) {
    throw new Refusal(t.needsOneFrame);
  }
  const by = frame - shot.start;
  const mixed = { start: shot.mixed.start + by, end: Math.min(shot.mixed.end + by, shot.end) };
  const moved = { ...shot, start: frame, mixed: mixed.start < before.start ? { start: frame, end: frame } : mixed };
  return [...shots.slice(0, index - 1), { ...before, end: frame }, moved, ...shots.slice(index + 1)];
}

/**
 * Cuts the film anew. A shot takes over the settings of the earlier one that it overlaps most, and its id unless another
 * has it; switches made by the editor stay where they are still inside a shot.
 */
export function recut(
  shots: readonly Shot[],
  transitions: readonly Transition[],
  frames: number,
  filmId: string,
): Shot[] {
  const found = new Map(transitions.map((transition) => [transition.frame, transition]));
  for (const { start, begins } of shots) {
    if (begins === "switch" && !found.has(start)) found.set(start, hardTransition(start, "switch"));
  }
  const all = [...found.values()].sort((a, b) => a.frame - b.frame);
  const overlap = (shot: Shot, start: number, end: number) => Math.min(shot.end, end) - Math.max(shot.start, start);
  const taken = new Set<string>();
  const known = new Set(shots.map(({ id }) => id));
  return shotsBetween(all, { start: 0, end: frames }).map((range) => {
    const { start, end } = range;
    const likest = shots.reduce<Shot | null>(
      (best, shot) => (overlap(shot, start, end) > (best ? overlap(best, start, end) : 0) ? shot : best),
      null,
    );
    const keepsId = likest !== null && !taken.has(likest.id);
    const id = keepsId ? likest.id : shotId(filmId, start, new Set([...taken, ...known]));
    taken.add(id);
    const fresh = freshShot(id, range, found.get(start) ?? null);
    if (!likest) return fresh;
    const { follow, name, excluded, protect, active } = likest;
    const carry = likest.begins === fresh.begins ? likest.carry : fresh.carry;
    return { ...fresh, follow, excluded, protect, active, carry, name: keepsId ? name : null };
  });
}
