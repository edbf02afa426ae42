import { type ChildProcess, spawn } from "node:child_process";
import { cpSync, mkdtempSync, rmSync } from "node:fs";
import { createServer } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import Database from "better-sqlite3";

/** Milliseconds that an analysis or a render may take on a slow machine. */
export const LONG_WORK = 400_000;

async function freePort(): Promise<number> {
  const server = createServer();
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  const { port } = server.address() as { port: number };
  await new Promise((resolve) => server.close(resolve));
  return port;
}

/** The built server with a data folder of its own, which can be killed and started again on the same data. */
export class TestServer {
  url = "";
  /** What it has said on its error output since it was started. */
  complaints = "";
  private child: ChildProcess | null = null;
  private folder: string | null;

  /** @param begin the data folder to work in, or a library of which it is to be a copy; an empty folder if left out */
  constructor(private readonly begin: { data?: string; copyOf?: string } = {}) {
    this.folder = begin.data ?? null;
  }

  /** The data folder; there is one as soon as it is asked for. */
  get data(): string {
    if (this.folder === null) {
      this.folder = mkdtempSync(join(tmpdir(), "glad-pan-e2e-"));
      if (this.begin.copyOf !== undefined) cpSync(this.begin.copyOf, this.folder, { recursive: true });
    }
    return this.folder;
  }

  /** Rows of its database, read past it. */
  query<Row>(sql: string): Row[] {
    return this.#withDatabase((db) => db.prepare<[], Row>(sql).all(), { readonly: true });
  }

  /** Writes into the database behind the server's back. */
  write(sql: string): void {
    this.#withDatabase((db) => db.exec(sql));
  }

  /** Makes all versions small: most that is rendered is only looked at for what it shows. */
  makeVersionsSmall({ width, height } = { width: 270, height: 480 }): void {
    this.write(`UPDATE versions SET width = ${width}, height = ${height}`);
  }

  #withDatabase<T>(use: (db: Database.Database) => T, options?: Database.Options): T {
    const db = new Database(join(this.data, "glad-pan.db"), options);
    try {
      return use(db);
    } finally {
      db.close();
    }
  }

  /** @param under a program that starts the server and watches it, with its arguments */
  async start(environment: Record<string, string> = {}, under: readonly string[] = []): Promise<void> {
    const port = await freePort();
    this.url = `http://127.0.0.1:${port}`;
    this.complaints = "";
    const [program, ...args] = [...under, "node", "server.js"];
    const child = spawn(program!, args, {
      env: { ...process.env, NODE_ENV: "production", PORT: String(port), GLAD_PAN_DATA: this.data, ...environment },
      stdio: ["ignore", "pipe", "pipe"],
    });
    this.child = child;
    child.stderr.setEncoding("utf8").on("data", (text: string) => {
      this.complaints += text;
    });
    await new Promise<void>((resolve, reject) => {
      child.stdout.setEncoding("utf8").on("data", (text: string) => text.includes("Glad Pan is ready") && resolve());
      child.once("exit", (code) => reject(new Error(`the server ended with ${code}: ${this.complaints}`)));
    });
  }

  get isRunning(): boolean {
    return this.child !== null && this.child.exitCode === null && this.child.signalCode === null;
  }

  /** Sends a signal and waits for the end; the exit code, or null if it was the signal that ended the server. */
  private async end(signal: NodeJS.Signals): Promise<number | null> {
    const { child } = this;
    if (!child || !this.isRunning) return child?.exitCode ?? null;
    const gone = new Promise<number | null>((resolve) => child.once("exit", resolve));
    child.kill(signal);
    return gone;
  }

  /** Ends the server at once, without a chance to tidy up. */
  async kill(): Promise<void> {
    await this.end("SIGKILL");
  }

  /** Asks the server to end; its exit code. */
  stop = (): Promise<number | null> => this.end("SIGTERM");

  async dispose(): Promise<void> {
    await this.kill();
    if (this.folder !== null) rmSync(this.folder, { recursive: true, force: true });
  }
}
