/** A built server on a library of its own, as the worst day finds it. */
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import type { Command } from "~/core/edits/command";
import { demand, json, type RawAnswer, type RawRequest, send, upload } from "../../tests/support/raw-request";
import { TestServer } from "../../tests/support/server";

/** Small, so that much is done to it in little time. */
export const CLIP = readFileSync("tests/fixtures/two-shots.mp4");
export const CLIP_FRAMES = 99;

/** What is known of a job. */
export interface JobState {
  id: string;
  filmId: string;
  kind: string;
  state: string;
  attempts: number;
  error: string | null;
  payload: string;
}

export class Library {
  readonly server: TestServer;

  constructor(data?: string) {
    this.server = new TestServer({ data });
  }

  jobs = (): JobState[] =>
    this.server.query<JobState>(
      "SELECT id, film_id AS filmId, kind, state, attempts, error, payload FROM jobs ORDER BY created_at, rowid",
    );

  /** Whether nothing waits and nothing runs. */
  isIdle = (): boolean => this.jobs().every(({ state }) => state !== "queued" && state !== "running");

  films = (): string[] =>
    this.server.query<{ id: string }>("SELECT id FROM films ORDER BY created_at, rowid").map(({ id }) => id);

  isAnalysed = (filmId: string): boolean =>
    this.jobs().some((job) => job.filmId === filmId && job.kind === "analyse" && job.state === "done");

  send = (request: RawRequest): Promise<RawAnswer> => send(this.server.url, request);
  demand = (status: number, request: RawRequest): Promise<RawAnswer> => demand(this.server.url, status, request);

  /** Adds the clip under a name, with a small version; the new film's id. */
  async addFilm(name: string): Promise<string> {
    const { headers } = await this.demand(201, upload(name, CLIP));
    this.server.makeVersionsSmall();
    return String(headers["glad-pan-film"]);
  }

  /** A film's versions, the first one first. */
  versionsOf = (filmId: string): string[] =>
    this.server
      .query<{ id: string }>(`SELECT id FROM versions WHERE film_id = '${filmId}' ORDER BY rowid`)
      .map(({ id }) => id);

  revisionOf = (filmId: string): number =>
    this.server.query<{ revision: number }>(`SELECT revision FROM films WHERE id = '${filmId}'`)[0]!.revision;

  /** A change to a film at a revision of it, as a request. */
  change = (filmId: string, revision: number, command: Command): RawRequest =>
    json(`/films/${filmId}/edit`, { do: "edit", revision, command });

  /** Puts the key of a frame somewhere, as a request. */
  setKey = (filmId: string, revision: number, x: number): RawRequest =>
    this.change(filmId, revision, {
      type: "set-key",
      versionId: this.versionsOf(filmId)[0]!,
      key: { pane: 0, frame: 5, x, y: 90, height: 180, easing: null },
    });

  keyOf = (filmId: string): number | undefined =>
    this.server.query<{ x: number }>(`SELECT x FROM hand_keys WHERE version_id = '${this.versionsOf(filmId)[0]!}'`)[0]
      ?.x;

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

  /** Those of them, and folders, that are not finished. */
  halves = (): string[] =>
    readdirSync(this.server.data, { recursive: true })
      .map(String)
      .filter((name) => name.includes(".part"));
}

/** The revision that an acknowledged change has led to. */
export const revisionIn = ({ body }: RawAnswer): number => (JSON.parse(body) as { revision: number }).revision;
