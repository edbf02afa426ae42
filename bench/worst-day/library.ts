/** A built server on a library of its own, as the worst day finds it. */
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import Database from "better-sqlite3";
import { json, send, upload } from "../../tests/support/raw-request";
import { TestServer } from "../../tests/support/server";

export const CLIP = readFileSync("demo/clips/two-shots.mp4");

export class Library {
  readonly server: TestServer;

  constructor(data?: string) {
    this.server = new TestServer(data);
  }

  query<T>(sql: string): T[] {
    const db = new Database(join(this.server.data, "glad-pan.db"), { readonly: true });
    try {
      return db.prepare<[], T>(sql).all();
    } finally {
      db.close();
    }
  }

  async addFilm(name: string): Promise<{ status: number; body: string; id: string }> {
    const { status, body, headers } = await send(this.server.url, upload(name, CLIP));
    return { status, body, id: String(headers["glad-pan-film"]) };
  }

  versionOf = (filmId: string): string =>
    this.query<{ id: string }>(`SELECT id FROM versions WHERE film_id = '${filmId}'`)[0]!.id;

  revisionOf = (filmId: string): number =>
    this.query<{ revision: number }>(`SELECT revision FROM films WHERE id = '${filmId}'`)[0]!.revision;

  /** Puts the key of a frame somewhere; the status, and the revision if it was acknowledged. */
  async setKey(
    filmId: string,
    revision: number,
    x: number,
  ): Promise<{ status: number; revision: number; body: string }> {
    const key = { pane: 0, frame: 5, x, y: 360, height: 720, easing: null };
    const command = { type: "set-key", versionId: this.versionOf(filmId), key };
    const answer = await send(this.server.url, json(`/films/${filmId}/edit`, { do: "edit", revision, command }));
    const body = answer.status === 200 ? (JSON.parse(answer.body) as { revision: number }) : { revision };
    return { status: answer.status, revision: body.revision, body: answer.body };
  }

  keyOf = (filmId: string): number | undefined =>
    this.query<{ x: number }>(`SELECT x FROM hand_keys WHERE version_id = '${this.versionOf(filmId)}'`)[0]?.x;

  /** Tools that still work on this library's files. */
  tools(): string[] {
    return readdirSync("/proc")
      .filter((name) => /^\d+$/.test(name))
      .flatMap((pid) => {
        try {
          const line = readFileSync(`/proc/${pid}/cmdline`, "utf8").replaceAll("\0", " ");
          return /ff(mpeg|probe)/.test(line) && line.includes(this.server.data) ? [`${pid} ${line}`] : [];
        } catch {
          return [];
        }
      });
  }

  /** Files of the library, from its folder on. */
  files = (): string[] =>
    readdirSync(this.server.data, { recursive: true, withFileTypes: true })
      .filter((entry) => entry.isFile())
      .map((entry) => join(entry.parentPath, entry.name).slice(this.server.data.length + 1));
}
