/** Integrates shots found by the analysis into a film that is being edited. */
import type { Box } from "../geometry/box";
import { type FrameRange, inRange } from "../time/rate";
import { carriesOver, freshShot, type Shot } from "./shot";
import type { Transition } from "./transition";

/** A shot as it was found. */
export interface FoundShot {
  range: FrameRange;
  /** Its transition; null for the film's first. */
  begins: Transition | null;
  active: Box | null;
}

/** A boundary found this close to one that the editor has placed is the same one, and stays where the editor has it. */
const SAME_FRAMES = 2;

/** A shot begins as it was found, unless the editor has placed a switch there. */
function beginning(shot: Shot, found: FoundShot | undefined): Shot {
  if (!found?.begins || shot.begins === "switch") return shot;
  const { kind, range } = found.begins;
  return { ...shot, begins: kind, mixed: range, carry: shot.carry || carriesOver(kind) };
}

/** The shots of a film, and which shot each new one was part of. */
export interface CarvedShots {
  shots: Shot[];
  /** By ids of the new ones. */
  partOf: Map<string, string>;
}

/**
 * Cuts shots at boundaries that were found. Boundaries placed by the editor stay; the settings of a shot apply to all of
 * its parts, of which the first keeps its id.
 * @param shots in order; they need not cover the film
 * @param found in order, without gaps
 * @param newId gives the id of a part that begins at a frame
 */
export function carveShots(
  shots: readonly Shot[],
  found: readonly FoundShot[],
  newId: (start: number) => string,
): CarvedShots {
  const placed = shots.map(({ start }) => start);
  const isPlaced = (frame: number) => placed.some((start) => Math.abs(start - frame) <= SAME_FRAMES);
  const foundAt = new Map(found.map((shot) => [shot.range.start, shot]));
  const boundaries = [...foundAt.keys()].filter((frame) => !isPlaced(frame));
  const last = found.at(-1)?.range.end;
  // Whatever its transition, the following shot begins there as well.
  if (last !== undefined && !isPlaced(last)) boundaries.push(last);
  const partOf = new Map<string, string>();
  const carved = shots.flatMap((shot) => {
    const starts = [shot.start, ...boundaries.filter((frame) => frame > shot.start && frame < shot.end)];
    return starts.map((start, i): Shot => {
      const end = starts[i + 1] ?? shot.end;
      const inside = found.find(({ range }) => inRange(start, range));
      const active = shot.active ?? inside?.active ?? null;
      if (i === 0) return beginning({ ...shot, end, active }, foundAt.get(start));
      const id = newId(start);
      partOf.set(id, shot.id);
      const fresh = freshShot(id, { start, end }, foundAt.get(start)?.begins ?? null, active);
      const { follow, excluded, protect } = shot;
      return { ...fresh, follow, excluded, protect };
    });
  });
  return { shots: carved, partOf };
}
