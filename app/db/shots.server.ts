import { Shot } from "~/core/shots/shot";
import { readRule, writeRule } from "~/core/subjects/choosing/follow-rule";
import type { Db } from "./database.server";

interface RawShot {
  id: string;
  start_frame: number;
  end_frame: number;
  subject: string;
  begins: string;
  mixed_from: number;
  mixed_to: number;
  carry: number;
  name: string | null;
  excluded: number;
  protect: string | null;
  active: string | null;
}

const json = (text: string | null): unknown => (text === null ? null : JSON.parse(text));

const toShot = (row: RawShot): Shot =>
  Shot.parse({
    id: row.id,
    start: row.start_frame,
    end: row.end_frame,
    begins: row.begins,
    mixed: { start: row.mixed_from, end: row.mixed_to },
    carry: row.carry === 1,
    follow: readRule(row.subject),
    name: row.name,
    excluded: row.excluded === 1,
    protect: json(row.protect),
    active: json(row.active),
  });

export const listShots = (db: Db, filmId: string): Shot[] =>
  db.prepare<[string], RawShot>("SELECT * FROM shots WHERE film_id = ? ORDER BY start_frame").all(filmId).map(toShot);

export const countShots = (db: Db, filmId: string): number =>
  db.prepare<[string], { count: number }>("SELECT COUNT(*) AS count FROM shots WHERE film_id = ?").get(filmId)!.count;

/** Stores a shot, replacing the film's one with its id. */
export function saveShot(db: Db, filmId: string, shot: Shot): void {
  const { changes } = db
    .prepare(
      `INSERT INTO shots (id, film_id, start_frame, end_frame, begins, mixed_from, mixed_to, carry, subject, name, excluded,
       protect, active)
     VALUES (@id, @filmId, @start, @end, @begins, @mixedFrom, @mixedTo, @carry, @subject, @name, @excluded, @protect,
       @active)
     ON CONFLICT (id) DO UPDATE SET start_frame = @start, end_frame = @end, begins = @begins, mixed_from = @mixedFrom,
       mixed_to = @mixedTo, carry = @carry, subject = @subject, name = @name, excluded = @excluded,
       protect = @protect, active = @active
     WHERE film_id = @filmId`,
    )
    .run({
      id: shot.id,
      filmId,
      start: shot.start,
      end: shot.end,
      begins: shot.begins,
      mixedFrom: shot.mixed.start,
      mixedTo: shot.mixed.end,
      carry: shot.carry ? 1 : 0,
      subject: writeRule(shot.follow),
      name: shot.name,
      excluded: shot.excluded ? 1 : 0,
      protect: shot.protect && JSON.stringify(shot.protect),
      active: shot.active && JSON.stringify(shot.active),
    });
  if (changes === 0) throw new Error(`the shot ${shot.id} is another film's`);
}

export const deleteShot = (db: Db, id: string): void => void db.prepare("DELETE FROM shots WHERE id = ?").run(id);
