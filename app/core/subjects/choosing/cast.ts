import type { Size } from "../../geometry/box";
import type { FrameRange } from "../../time/rate";
import { letterOf } from "./people";
import { rankTracks, type SubjectTrack } from "./rank";
import type { Track } from "../tracking/track";

/** A person of the film, as far as the cast needs to know. */
export interface CastPerson {
  id: string;
  number: number;
  name: string | null;
}

/** A person or thing in a shot that can be followed. */
export interface CastMember {
  /** People keep a letter through the whole film, things have a number in their shot. */
  letter: string;
  name: string | null;
  /** Index of their colour. */
  colour: number;
  track: SubjectTrack;
  reason: string;
}

/** Number of colours that tell a cast apart. */
export const COLOURS = 6;

/**
 * The cast of a shot, the most prominent first. A person whose face is tracked is represented by the face and not listed
 * again.
 */
export function castOf(
  tracks: readonly Track[],
  shot: FrameRange,
  picture: Size,
  people: readonly CastPerson[],
): CastMember[] {
  const withFace = new Set(tracks.map((track) => track.personId).filter((id) => id !== undefined));
  const candidates = tracks.filter((track) => !withFace.has(track.id));
  const known = new Map(people.map((person) => [person.id, person]));
  const taken = new Set(
    candidates.flatMap(({ who }) => (who && known.has(who) ? [known.get(who)!.number % COLOURS] : [])),
  );
  // Things use the colours that the people of the shot leave.
  const free = Array.from({ length: COLOURS }, (_, colour) => colour).filter((colour) => !taken.has(colour));
  let things = 0;
  return rankTracks(candidates, shot, picture).map(({ track, reason }) => {
    const person = track.who === undefined ? undefined : known.get(track.who);
    if (person) {
      return { letter: letterOf(person.number), name: person.name, colour: person.number % COLOURS, track, reason };
    }
    const colour = free[things % Math.max(1, free.length)] ?? things % COLOURS;
    things++;
    return { letter: String(things), name: null, colour, track, reason };
  });
}
