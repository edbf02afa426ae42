import { z } from "zod";
import type { Person } from "~/core/subjects/choosing/people";
import type { Db } from "./database.server";

/** A person recognised by the analysis, with the editor's changes. */
export interface PersonRow extends Person {
  name: string | null;
  /** The person into whom the editor has merged them, if any. */
  mergedInto: string | null;
}

const Signature = z.array(z.number());

interface RawPerson {
  id: string;
  number: number;
  signature: string | null;
  seen: number;
  name: string | null;
  merged_into: string | null;
}

const toPerson = (row: RawPerson): PersonRow => ({
  id: row.id,
  number: row.number,
  signature: row.signature === null ? null : Signature.parse(JSON.parse(row.signature)),
  seen: row.seen,
  name: row.name,
  mergedInto: row.merged_into,
});

/** Everybody in a film, in order of appearance. */
export const listPeople = (db: Db, filmId: string): PersonRow[] =>
  db.prepare<[string], RawPerson>("SELECT * FROM people WHERE film_id = ? ORDER BY number").all(filmId).map(toPerson);

/** Stores the people known to an analysis; the editor's changes stay. */
export function savePeople(db: Db, filmId: string, people: readonly Person[]): void {
  const save = db.prepare(
    `INSERT INTO people (film_id, id, number, signature, seen) VALUES (?, ?, ?, ?, ?)
     ON CONFLICT (film_id, id) DO UPDATE SET signature = excluded.signature, seen = excluded.seen`,
  );
  for (const { id, number, signature, seen } of people) {
    save.run(filmId, id, number, signature && JSON.stringify(signature), seen);
  }
}

export function changePerson(
  db: Db,
  filmId: string,
  { id, name, mergedInto }: Pick<PersonRow, "id" | "name" | "mergedInto">,
): void {
  db.prepare("UPDATE people SET name = ?, merged_into = ? WHERE film_id = ? AND id = ?").run(
    name,
    mergedInto,
    filmId,
    id,
  );
}
