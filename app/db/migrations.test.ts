import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { expect, test } from "@jest/globals";
import Database from "better-sqlite3";
import { newVersion } from "~/core/version/film-state";
import { INFO } from "../../tests/support/film-info";
import { freshShot } from "~/core/shots/shot";
import { openDatabase } from "./database.server";
import { stepHistory } from "./edits.server";
import { migration0001 } from "./migrations/0001-first";
import { migration0002 } from "./migrations/0002-reshape";
import { migration0003 } from "./migrations/0003-people";
import { listShotsInVersion, listVersions } from "./versions.server";

test("movements and the changes of them that can be taken back live on among the other settings", () => {
  const folder = mkdtempSync(join(tmpdir(), "glad-pan-migrations-"));
  const file = join(folder, "films.db");
  try {
    const old = new Database(file);
    for (const sql of [migration0001, migration0002, migration0003]) old.exec(sql);
    old.pragma("user_version = 3");
    old
      .prepare("INSERT INTO films (id, name, file, info, created_at) VALUES ('film', 'Kite.mp4', '/kite.mp4', ?, 0)")
      .run(JSON.stringify(INFO));
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
  } finally {
    rmSync(folder, { recursive: true });
  }
});
