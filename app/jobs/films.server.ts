import { extname, join } from "node:path";
import { nanoid } from "nanoid";
import { inTransaction } from "~/db/database.server";
import { copyWhole, moveWhole } from "~/disk/write-aside.server";
import { insertFilm, listFilms } from "~/db/films.server";
import { insertJob } from "~/db/jobs.server";
import { insertVersion } from "~/db/versions.server";
import { probeFilm } from "~/media/probe.server";
import { db, filmFolder } from "./workplace.server";
import { wakeQueue } from "./queue.server";

/**
 * Takes a file into the library: looks into it, keeps it, and queues its proxy and its analysis. A first
 * version for phones is made at once.
 *
 * @throws FilmError if it is no film; the file then stays where it is
 */
export async function addFilm(file: string, name: string, how: "move" | "copy"): Promise<string> {
  const info = await probeFilm(file, name);
  const id = nanoid(10);
  const kept = join(filmFolder(id), `source${extname(name).toLowerCase()}`);
  await (how === "move" ? moveWhole(file, kept) : copyWhole(file, kept));
  inTransaction(db(), () => {
    insertFilm(db(), { id, name, file: kept, info });
    insertVersion(db(), id, { id: nanoid(10), name: "Vertical 9:16", width: 1080, height: 1920 });
    insertJob(db(), { id: nanoid(10), filmId: id, kind: "proxy" });
    insertJob(db(), { id: nanoid(10), filmId: id, kind: "analyse" });
  });
  wakeQueue();
  return id;
}

/** Adds a film that ships with the project unless the library has one of that name. */
export async function addDemoFilm(file: string, name: string): Promise<void> {
  if (listFilms(db()).some((film) => film.name === name)) return;
  await addFilm(file, name, "copy");
}
