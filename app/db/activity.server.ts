import { type Activity, joinActivity, packActivity, unpackActivity } from "~/core/activity/activity";
import type { FrameRange } from "~/core/time/rate";
import type { Db } from "./database.server";

/** Stores the activity of a range of a film. */
export function saveActivity(db: Db, filmId: string, { start }: FrameRange, activity: Activity): void {
  db.prepare("INSERT OR REPLACE INTO activity (film_id, start_frame, samples) VALUES (?, ?, ?)").run(
    filmId,
    start,
    Buffer.from(packActivity(activity)),
  );
}

/**
 * Activity of a film, as far as it has been analysed.
 * @param frames of the film
 * @returns null if nothing is known yet
 */
export function readActivity(db: Db, filmId: string, frames: number): Activity | null {
  const rows = db
    .prepare<[string], { start: number; samples: Buffer }>(
      "SELECT start_frame AS start, samples FROM activity WHERE film_id = ? ORDER BY start_frame",
    )
    .all(filmId);
  if (rows.length === 0) return null;
  return joinActivity(
    rows.map(({ start, samples }) => ({ start, ...unpackActivity(samples) })),
    frames,
  );
}
