import { newVersion } from "~/core/version/film-state";
import { freshShot } from "~/core/shots/shot";
import { hardTransition } from "~/core/shots/transition";
import { type Db, openDatabase } from "~/db/database.server";
import { insertFilm } from "~/db/films.server";
import { saveShot } from "~/db/shots.server";
import { saveVersion } from "~/db/versions.server";
import { INFO } from "./film-info";

/** A database, in memory unless a file is given, with the film "film", its version "tall", and its shots "one" and "two", cut at frame 100. */
export function twoShotFilm(file = ":memory:"): Db {
  const db = openDatabase(file);
  insertFilm(db, { id: "film", name: "Kite.mp4", file: "/kite.mp4", info: INFO });
  saveVersion(db, "film", newVersion({ id: "tall", name: "Tall", width: 1080, height: 1920 }));
  for (const shot of [
    freshShot("one", { start: 0, end: 100 }, null),
    freshShot("two", { start: 100, end: 300 }, hardTransition(100, "cut")),
  ])
    saveShot(db, "film", shot);
  return db;
}
