import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach, expect, test } from "@jest/globals";
import Database from "better-sqlite3";
import { newVersion } from "~/core/version/film-state";
import { INFO } from "../../tests/support/film-info";
import { freshShot } from "~/core/shots/shot";
import { MIGRATIONS, openDatabase } from "./database.server";
import { stepHistory } from "./edits.server";
import { listShots } from "./shots.server";
import { listShotsInVersion, listVersions } from "./versions.server";

let folder: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), "glad-pan-migrations-"));
});
afterEach(() => rmSync(folder, { recursive: true }));

/** A database after so many migrations, with a film. */
function withFilm(migrations: number): { old: Database.Database; file: string } {
  const file = join(folder, "films.db");
  const old = new Database(file);
  for (const sql of MIGRATIONS.slice(0, migrations)) old.exec(sql);
  old.pragma(`user_version = ${migrations}`);
  old
    .prepare("INSERT INTO films (id, name, file, info, created_at) VALUES ('film', 'Kite.mp4', '/kite.mp4', ?, 0)")
    .run(JSON.stringify(INFO));
  return { old, file };
}

test("switches, and ranges that are left out, go by their names of today, in what is undone as well", () => {
  const { old, file } = withFilm(23);
  const set = [{ frame: 100, trackIds: ["a"] }];
  old.exec(`
      INSERT INTO versions (id, film_id, name, width, height, position, drops)
        VALUES ('tall', 'film', 'Tall', 1080, 1920, 1, '[{"start":10,"end":20}]');
      INSERT INTO shots (id, film_id, start_frame, end_frame, begins, mixed_from, mixed_to, carry, subject, excluded)
        VALUES ('one', 'film', 0, 100, 'cut', 0, 0, 0, 'auto', 0),
          ('two', 'film', 100, 300, 'turn', 100, 100, 0, 'turns:${JSON.stringify(set)}', 0);`);
  const edit = (sequence: number, command: object, difference: object) =>
    old
      .prepare("INSERT INTO edits (film_id, sequence, command, inverse) VALUES ('film', ?, ?, ?)")
      .run(sequence, JSON.stringify(command), JSON.stringify({ type: "restore", difference }));
  const version = newVersion({ id: "tall", name: "Tall", width: 1080, height: 1920 });
  const { leftOut: drops, ...points } = version.trim;
  const before = { ...version, trim: { ...points, drops } };
  const dropped = { type: "drop-stretches", versionId: "tall", stretches: [{ start: 10, end: 20 }] };
  edit(1, dropped, { versions: { put: [before], order: ["tall"] } });
  const whole = freshShot("one", { start: 0, end: 300 }, null);
  edit(2, { type: "split-shot", frame: 100, kind: "turn" }, { shots: { removed: ["two"], put: [whole] } });
  old.close();

  const db = openDatabase(file);
  expect(listShots(db, "film").map(({ begins, follow }) => [begins, follow])).toEqual([
    ["cut", { kind: "auto" }],
    ["switch", { kind: "switches", switches: set }],
  ]);
  expect(listVersions(db, "film")[0]!.trim.leftOut).toEqual([{ start: 10, end: 20 }]);
  expect(stepHistory(db, "film", 0, "undo")?.sentence).toMatch(/^Added a switch/);
  expect(stepHistory(db, "film", 1, "undo")?.sentence).toMatch(/^Left .* out of “Tall”/);
  expect(listVersions(db, "film")[0]!.trim.leftOut).toEqual([]);
  for (const revision of [2, 3]) stepHistory(db, "film", revision, "redo");
  expect(listVersions(db, "film")[0]!.trim.leftOut).toEqual([{ start: 10, end: 20 }]);
  expect(listShots(db, "film").map(({ begins }) => begins)).toEqual(["cut", "switch"]);
  db.close();
});

test("movements and the changes of them that can be taken back live on among the other settings", () => {
  const { old, file } = withFilm(3);
  old.prepare("INSERT INTO versions VALUES ('tall', 'film', 'Tall', 1080, 1920, 1)").run();
  const shot: Record<string, unknown> = { ...freshShot("one", { start: 0, end: 300 }, null) };
  delete shot.protect;
  old
    .prepare(
      `INSERT INTO shots (id, film_id, start_frame, end_frame, begins, mixed_from, mixed_to, carry, subject, excluded)
         VALUES ('one', 'film', 0, 300, 'cut', 0, 0, 0, 'auto', 0)`,
    )
    .run();
  old.prepare("INSERT INTO shot_manners VALUES ('tall', 'one', 'chase')").run();
  const changed = { type: "set-manner", versionId: "tall", shotIds: ["one"], manner: "chase" };
  const before = {
    type: "restore-shots",
    remove: [],
    shots: [shot],
    manners: [{ versionId: "tall", shotId: "one", manner: "still" }],
  };
  old
    .prepare("INSERT INTO edits (film_id, sequence, command, inverse, created_at) VALUES ('film', 1, ?, ?, 0)")
    .run(JSON.stringify(changed), JSON.stringify(before));
  old.close();

  const db = openDatabase(file);
  expect(listVersions(db, "film")).toEqual([newVersion({ id: "tall", name: "Tall", width: 1080, height: 1920 })]);
  expect([...listShotsInVersion(db, "tall")]).toEqual([["one", { movement: "chase" }]]);
  expect(stepHistory(db, "film", 0, "undo")?.sentence).toBe("Changed the movement of shot 1 in “Tall”");
  expect([...listShotsInVersion(db, "tall")]).toEqual([["one", { movement: "still" }]]);
  expect(stepHistory(db, "film", 1, "redo")?.sentence).toBe("Changed the movement of shot 1 in “Tall”");
  expect([...listShotsInVersion(db, "tall")]).toEqual([["one", { movement: "chase" }]]);
  db.close();
});
