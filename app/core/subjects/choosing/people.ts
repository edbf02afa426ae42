/** Recognises people across the shots of a film, by their appearance. */
import { munkres } from "munkres";
import { likeness, meanSignature } from "../detecting/signature";
import { seenTogether, type Track } from "../tracking/track";

/** A person in a film. */
export interface Person {
  id: string;
  /** Order in which people appeared, from 0; their letter follows from it. */
  number: number;
  /** Mean signature, over the shots in which they were seen. */
  signature: number[] | null;
  /** Number of shots in the mean. */
  seen: number;
}

/** Likeness of two signatures that may be of one person. */
const SAME_PERSON = 0.78;
const FORBIDDEN = 1e6;
/** Most shots in the mean, so that it can follow a change of light. */
const LONGEST_MEMORY = 6;

/** A, B, … Z, A2, … */
export const letterOf = (number: number): string =>
  String.fromCharCode(65 + (number % 26)) + (number >= 26 ? String(Math.floor(number / 26) + 1) : "");

/** The number of a letter, in either case; null where it is none. */
export function numberOfLetter(letter: string): number | null {
  const [, first, round = "1"] = /^([a-z])([1-9]\d{0,3})?$/i.exec(letter) ?? [];
  return first === undefined ? null : first.toUpperCase().charCodeAt(0) - 65 + 26 * (Number(round) - 1);
}

/** Id of a person in tracks. */
export const personId = (number: number): string => `p${number + 1}`;

/** The letter of a person, from their id in tracks. */
export const letterOfId = (id: string): string => letterOf(Number(id.slice(1)) - 1);

const isPerson = ({ kind }: Track): boolean => kind === "face" || kind === "person";

/** Groups the tracks of a shot by person: a body, and the faces that belong to it. */
function figures(tracks: readonly Track[]): Track[][] {
  const persons = tracks.filter(({ kind }) => kind === "person");
  const lone = tracks.filter(({ kind, personId }) => kind === "face" && !persons.some(({ id }) => id === personId));
  const withFaces = persons.map((person) => [
    ...tracks.filter(({ kind, personId }) => kind === "face" && personId === person.id),
    person,
  ]);
  return [...withFaces, ...lone.map((face) => [face])].sort((a, b) => a[0]!.start - b[0]!.start);
}

/** Signature of a person: the chest below a face is more surely theirs than the middle of a body's box. */
function appearanceOf(group: readonly Track[]): number[] | null {
  const seen = group.filter(({ signature }) => signature);
  const faces = seen.filter(({ kind }) => kind === "face");
  return meanSignature((faces.length > 0 ? faces : seen).map(({ signature }) => signature!));
}

/**
 * Recognises the people of the next shot among those of the shots before, makes new people of the others, and writes the
 * person's id to each track. Two tracks seen at the same time are not one person.
 * @returns everybody known now; the given people are not changed
 */
export function recognise(known: readonly Person[], tracks: Track[]): Person[] {
  const groups = figures(tracks.filter(isPerson));
  const looks = groups.map(appearanceOf);
  const people = known.map((person) => ({ ...person }));
  const taken = new Map<Person, Track[][]>();
  if (groups.length > 0 && people.length > 0) {
    const costs = looks.map((look) =>
      people.map(({ signature }) => {
        const alike = look && signature ? likeness(look, signature) : 0;
        return alike >= SAME_PERSON ? 1 - alike : FORBIDDEN;
      }),
    );
    for (const [row, column] of munkres(costs)) {
      if (costs[row]![column]! < FORBIDDEN) taken.set(people[column]!, [groups[row]!]);
    }
  }
  groups.forEach((group, i) => {
    let person = people.find((other) => taken.get(other)?.includes(group));
    // Somebody who leaves the picture and returns is not a new person.
    person ??= people.find((other) => {
      const alike = looks[i] && other.signature ? likeness(looks[i], other.signature) : 0;
      const apart = taken.get(other)?.every((others) => !others.some((a) => group.some((b) => seenTogether(a, b))));
      return alike >= SAME_PERSON && apart;
    });
    if (!person) {
      const number = people.length;
      person = { id: personId(number), number, signature: null, seen: 0 };
      people.push(person);
    }
    if (!taken.get(person)?.includes(group)) taken.set(person, [...(taken.get(person) ?? []), group]);
    for (const track of group) track.who = person.id;
    const look = looks[i];
    if (!look) return;
    const memory = Math.min(person.seen, LONGEST_MEMORY);
    const old = person.signature;
    person.signature = old ? look.map((value, k) => Math.round((old[k]! * memory + value) / (memory + 1))) : look;
    person.seen++;
  });
  return people;
}
