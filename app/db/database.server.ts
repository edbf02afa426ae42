import { mkdirSync } from "node:fs";
import { dirname } from "node:path";
import Database from "better-sqlite3";
import { migration0001 } from "./migrations/0001-first";
import { migration0002 } from "./migrations/0002-reshape";
import { migration0003 } from "./migrations/0003-people";
import { migration0004 } from "./migrations/0004-framing";
import { migration0005 } from "./migrations/0005-moving";
import { migration0006 } from "./migrations/0006-active";
import { migration0007 } from "./migrations/0007-undecoded";
import { migration0008 } from "./migrations/0008-sentences";
import { migration0009 } from "./migrations/0009-trims";
import { migration0010 } from "./migrations/0010-library";
import { migration0011 } from "./migrations/0011-replaced";
import { migration0012 } from "./migrations/0012-passes";
import { migration0013 } from "./migrations/0013-clips";
import { migration0014 } from "./migrations/0014-panes";
import { migration0015 } from "./migrations/0015-layers";
import { migration0016 } from "./migrations/0016-named-states";
import { migration0017 } from "./migrations/0017-captions";
import { migration0018 } from "./migrations/0018-checks";
import { migration0019 } from "./migrations/0019-output";
import { migration0020 } from "./migrations/0020-attention";
import { migration0023 } from "./migrations/0023-words";
import { migration0024 } from "./migrations/0024-words";
import { migration0022 } from "./migrations/0022-checkpoints";
import { migration0021 } from "./migrations/0021-headway";

export type Db = Database.Database;

/**
 * The migrations to today's schema, in order; the database's `user_version` counts those that have run. Never change one
 * that has been released.
 */
export const MIGRATIONS = [
  migration0001,
  migration0002,
  migration0003,
  migration0004,
  migration0005,
  migration0006,
  migration0007,
  migration0008,
  migration0009,
  migration0010,
  migration0011,
  migration0012,
  migration0013,
  migration0014,
  migration0015,
  migration0016,
  migration0017,
  migration0018,
  migration0019,
  migration0020,
  migration0021,
  migration0022,
  migration0023,
  migration0024,
];

/**
 * Runs `work` in a transaction and returns its result. The lock for writing is taken at the start: a transaction that reads
 * first and asks for the lock later is refused at once, without waiting, when a worker has written in between
 * (https://sqlite.org/isolation.html).
 */
export const inTransaction = <T>(db: Db, work: () => T): T => db.transaction(work).immediate();

/** Number of migrations that have run, and of all. */
export const schemaOf = (db: Db): { done: number; all: number } => ({
  done: db.pragma("user_version", { simple: true }) as number,
  all: MIGRATIONS.length,
});

/** Migrates a database to the newest schema; each migration runs whole or not at all. */
function migrate(db: Db): void {
  const { done, all } = schemaOf(db);
  if (done > all) throw new Error("the database was written by a newer Glad Pan");
  MIGRATIONS.slice(done).forEach((sql, i) => {
    inTransaction(db, () => {
      db.exec(sql);
      db.pragma(`user_version = ${done + i + 1}`);
    });
  });
}

/** Makes a database prepare each statement once. SQLite itself prepares it again where the schema has changed. */
function prepareOnce(db: Db): void {
  const prepared = new Map<string, Database.Statement>();
  const prepare = db.prepare.bind(db);
  const once = (sql: string) => {
    const known = prepared.get(sql) ?? prepare(sql);
    prepared.set(sql, known);
    return known;
  };
  db.prepare = once as Db["prepare"];
}

/** Opens a database file (or ":memory:") with Glad Pan's settings and its present schema. */
export function connect(file: string): Db {
  const db = new Database(file);
  db.pragma("journal_mode = WAL");
  // A committed transaction is on the disk, and not only in the system's memory.
  db.pragma("synchronous = FULL");
  db.pragma("foreign_keys = ON");
  // The server and its workers write to one file; writers wait for each other.
  db.pragma("busy_timeout = 10000");
  prepareOnce(db);
  return db;
}

/** Opens a database file (or ":memory:"), creating and migrating it as needed. */
export function openDatabase(file: string): Db {
  if (file !== ":memory:") mkdirSync(dirname(file), { recursive: true });
  const db = connect(file);
  migrate(db);
  return db;
}
