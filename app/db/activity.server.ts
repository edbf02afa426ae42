import { type Activity, joinActivity, packActivity, unpackActivity } from "~/core/activity/activity";
import type { FrameRange } from "~/core/time/rate";
import type { Db } from "./database.server";

/** Keeps what goes on in a stretch of a film. */
export function saveActivity(db: Db, filmId: string, { start }: FrameRange, activity: Activity): void {
  db.prepare("INSERT OR REPLACE INTO activity (film_id, start_frame, samples) VALUES (?, ?, ?)").run(
    filmId,
    start,
    Buffer.from(packActivity(activity)),
  );
}

/** What goes on in a film, from its first frame as far as it has been looked through; of no frame where that is unknown. */
export const readActivity = (db: Db, filmId: string): Activity =>
  joinActivity(
    db
      .prepare<[string], { samples: Buffer }>("SELECT samples FROM activity WHERE film_id = ? ORDER BY start_frame")
      .all(filmId)
      .map(({ samples }) => unpackActivity(samples)),
  );
