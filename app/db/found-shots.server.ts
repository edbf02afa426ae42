import { carveDifference } from "~/core/edits/carve-difference";
import { Difference } from "~/core/edits/difference";
import { carveShots, type FoundShot } from "~/core/shots/found-shots";
import { shotId } from "~/core/shots/reshape";
import { freshShot, type Shot } from "~/core/shots/shot";
import { z } from "zod";
import type { Db } from "./database.server";
import { saveCheckpoint, listCheckpoints } from "./checkpoints.server";
import { listShots, saveShot } from "./shots.server";
import { copyShotInVersions } from "./versions.server";

const Restoring = z.object({ type: z.literal("restore"), difference: Difference });

/** Carves the inverses of earlier edits, and checkpoints, so that they leave shots cut as they were found since. */
function carveHistory(db: Db, filmId: string, carve: (difference: Difference) => Difference): void {
  const store = db.prepare("UPDATE edits SET inverse = ? WHERE film_id = ? AND sequence = ?");
  const edits = db
    .prepare<[string], { sequence: number; inverse: string }>("SELECT sequence, inverse FROM edits WHERE film_id = ?")
    .all(filmId);
  for (const { sequence, inverse } of edits) {
    // Those of an older Glad Pan already contain shots found by then.
    const read = Restoring.safeParse(JSON.parse(inverse));
    if (!read.success || !(read.data.difference.shots || read.data.difference.inVersions)) continue;
    store.run(JSON.stringify({ type: "restore", difference: carve(read.data.difference) }), filmId, sequence);
  }
  for (const { id, difference } of listCheckpoints(db, filmId)) saveCheckpoint(db, filmId, id, carve(difference));
}

/** Shots extended to the end of what was found: an older Glad Pan had none in parts not analysed yet. */
function covering(shots: readonly Shot[], found: readonly FoundShot[], newId: (start: number) => string): Shot[] {
  const start = shots.at(-1)?.end ?? 0;
  const end = found.at(-1)?.range.end ?? 0;
  return start < end ? [...shots, freshShot(newId(start), { start, end }, null)] : [...shots];
}

/**
 * Integrates found shots into a film, in which the editor may have placed boundaries and settings already. To be called in
 * a transaction.
 */
export function takeFoundShots(db: Db, filmId: string, found: readonly FoundShot[]): void {
  const before = listShots(db, filmId);
  const taken = new Set(before.map(({ id }) => id));
  const newId = (start: number) => shotId(filmId, start, taken);
  const { shots, partOf } = carveShots(covering(before, found, newId), found, newId);
  const unchanged = new Set(before.map((shot) => JSON.stringify(shot)));
  for (const shot of shots) if (!unchanged.has(JSON.stringify(shot))) saveShot(db, filmId, shot);
  for (const [part, whole] of partOf) copyShotInVersions(db, whole, part);
  if (partOf.size > 0) {
    carveHistory(db, filmId, (difference) => carveDifference(difference, found, partOf, newId));
  }
}
