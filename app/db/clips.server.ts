import { ClipWithFile } from "~/core/clips/clip";
import type { Db } from "./database.server";

interface RawClip {
  id: string;
  name: string;
  file: string;
  info: string;
  start_frame: number;
  end_frame: number;
  in_frame: number | null;
  out_frame: number | null;
  area: string;
}

/** The clips of a film, in order; none for a film that is one file. */
export const listClips = (db: Db, filmId: string): ClipWithFile[] =>
  db
    .prepare<[string], RawClip>("SELECT * FROM clips WHERE film_id = ? ORDER BY start_frame")
    .all(filmId)
    .map(({ id, name, file, info, start_frame, end_frame, in_frame, out_frame, area }) =>
      ClipWithFile.parse({
        id,
        name,
        file,
        info: JSON.parse(info),
        start: start_frame,
        end: end_frame,
        in: in_frame,
        out: out_frame,
        area: JSON.parse(area),
      }),
    );

/** Number of clips of a film; 0 for one that is one file. */
export const countClips = (db: Db, filmId: string): number =>
  db.prepare<[string], { count: number }>("SELECT COUNT(*) AS count FROM clips WHERE film_id = ?").get(filmId)!.count;

export const hasClips = (db: Db, filmId: string): boolean => countClips(db, filmId) > 0;

export function insertClip(db: Db, filmId: string, clip: ClipWithFile): void {
  db.prepare(
    `INSERT INTO clips (film_id, id, name, file, info, start_frame, end_frame, in_frame, out_frame, area)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
  ).run(
    filmId,
    clip.id,
    clip.name,
    clip.file,
    JSON.stringify(clip.info),
    clip.start,
    clip.end,
    clip.in,
    clip.out,
    JSON.stringify(clip.area),
  );
}

/** Sets a clip's in and out points. */
export const trimClip = (
  db: Db,
  filmId: string,
  { id, in: first, out }: Pick<ClipWithFile, "id" | "in" | "out">,
): void =>
  void db
    .prepare("UPDATE clips SET in_frame = ?, out_frame = ? WHERE film_id = ? AND id = ?")
    .run(first, out, filmId, id);
