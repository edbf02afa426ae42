/** Converts all films of a folder, resumes where it was stopped, and keeps a machine-readable log. */
import { createHash } from "node:crypto";
import { appendFileSync, existsSync, readFileSync } from "node:fs";
import { appendFile, mkdir, readdir, stat } from "node:fs/promises";
import { basename, join, resolve } from "node:path";
import { setTimeout as wait } from "node:timers/promises";
import { Command, InvalidArgumentError } from "commander";
import { z } from "zod";
import { identityOf } from "~/media/film-identity.server";
import { isFilmName } from "~/media/film-names";
import { CancelledError } from "~/media/tool.server";
import { convertFilm, NEEDS_A_LOOK } from "./convert-film";
import { addVersionOptions, ONE_FILM_NOTHING } from "./export";
import { outputOf, requireEncoder } from "./output-options";
import { type Running, runWithProgress } from "./progress-line";
import type { Target } from "./targets";
import type { Terminal } from "./terminal";
import { targetsIn, type VersionOptions } from "./version-targets";

interface BatchOptions extends VersionOptions {
  log?: string;
  watch?: number;
}

/** A line of the log: a file that was made, or why not. */
const Entry = z.object({
  at: z.string(),
  film: z.string(),
  /** Identity of the film's file, and the settings, as text. */
  source: z.string(),
  settings: z.string(),
  out: z.string(),
  state: z.enum(["done", "check-failed", "failed"]),
  seconds: z.number(),
  /** The fault, if any. */
  error: z.string().nullable(),
  bytes: z.number().nullable(),
});
type Entry = z.infer<typeof Entry>;

/** Milliseconds without changes after which a film is complete. */
const AT_REST_MS = 5000;
const FAILED = 1;

function parseSeconds(text: string): number {
  const seconds = Number(text);
  if (!(seconds >= 1 && seconds <= 86_400)) throw new InvalidArgumentError("It is a number of seconds, from 1 on.");
  return seconds;
}

/** Results of earlier runs; the last line about each file counts. */
function readLog(file: string): Map<string, Entry> {
  const entries = new Map<string, Entry>();
  if (!existsSync(file)) return entries;
  for (const line of readFileSync(file, "utf8").split("\n")) {
    if (line.trim() === "") continue;
    let value: unknown = null;
    try {
      value = JSON.parse(line);
    } catch {
      // A run that was killed may have left half a line.
    }
    const entry = Entry.safeParse(value);
    if (entry.success) entries.set(entry.data.out, entry.data);
  }
  return entries;
}

/** Settings of a target, as text. */
function settingsOf({ size, framing, limitSeconds, above }: Target, options: BatchOptions, out: string): string {
  const { versions, preset, out: folder, name, log, watch, parts, reports, ...said } = { ...framing, ...options };
  const output = outputOf(options, out, above.output);
  return createHash("sha256")
    .update(JSON.stringify([size, said, limitSeconds, above, output]))
    .digest("hex")
    .slice(0, 16);
}

class Batch {
  private readonly log: string;
  private readonly entries: Map<string, Entry>;
  private readonly taken = new Set<string>();
  private readonly targets = new Map<string, Target[]>();
  readonly results: Entry[] = [];

  constructor(
    private readonly folder: string,
    private readonly options: BatchOptions,
    private readonly command: Command,
  ) {
    this.log = options.log ?? join(options.out, "glad-pan-batch.jsonl");
    this.entries = readLog(this.log);
    // An incomplete line left by a killed run must not be the start of another.
    if (existsSync(this.log) && !readFileSync(this.log, "utf8").endsWith("\n")) appendFileSync(this.log, "\n");
  }

  /** The complete films of the folder, by name. */
  async films(): Promise<string[]> {
    const names = (await readdir(this.folder)).filter((name) => !name.startsWith(".") && isFilmName(name)).sort();
    const films: string[] = [];
    for (const name of names) {
      const file = join(this.folder, name);
      const { mtimeMs } = await stat(file);
      if (this.options.watch === undefined || Date.now() - mtimeMs > AT_REST_MS) films.push(file);
    }
    return films;
  }

  /** The targets of a film; their names stay the same through the run. */
  private targetsOf(file: string): Target[] {
    const known = this.targets.get(file);
    if (known) return known;
    const targets = targetsIn(file, this.options, this.command, this.taken);
    this.targets.set(file, targets);
    return targets;
  }

  private isDone(file: string, target: Target): boolean {
    const entry = this.entries.get(target.out);
    return (
      entry !== undefined &&
      entry.state !== "failed" &&
      entry.source === identityOf({ file }) &&
      entry.settings === settingsOf(target, this.options, target.out) &&
      existsSync(target.out)
    );
  }

  private async note(entry: Entry): Promise<void> {
    this.entries.set(entry.out, entry);
    this.results.push(entry);
    await appendFile(this.log, `${JSON.stringify(entry)}\n`);
  }

  /** Converts what has not been converted yet; a film that cannot be is reported and skipped. */
  async run(running: Running): Promise<void> {
    const { terminal, signal } = running;
    for (const file of await this.films()) {
      const targets = this.targetsOf(file).filter((target) => !this.isDone(file, target));
      if (targets.length === 0) continue;
      for (const { out, above } of targets) await requireEncoder(outputOf(this.options, out, above.output));
      const began = Date.now();
      const entry = (target: Target, rest: Pick<Entry, "state" | "error" | "bytes">): Entry => ({
        at: new Date().toISOString(),
        film: basename(file),
        source: identityOf({ file }),
        settings: settingsOf(target, this.options, target.out),
        out: target.out,
        seconds: (Date.now() - began) / 1000,
        ...rest,
      });
      terminal.tell(`${basename(file)}:`);
      try {
        const done = await convertFilm(file, { ...this.options, ...ONE_FILM_NOTHING }, targets, running);
        for (const [i, { faults, figures }] of done.entries()) {
          const state = faults.length > 0 ? "check-failed" : "done";
          await this.note(entry(targets[i]!, { state, error: faults.join("; ") || null, bytes: figures.bytes }));
        }
      } catch (error) {
        if (error instanceof CancelledError || signal.aborted) throw error;
        const why = error instanceof Error ? error.message : String(error);
        terminal.tell(why);
        for (const target of targets) await this.note(entry(target, { state: "failed", error: why, bytes: null }));
      }
    }
  }
}

const WORDS = { done: "done", "check-failed": "check failed", failed: "failed" } as const;

/** A table of the results, in columns. */
function tableOf(results: readonly Entry[]): string {
  const rows = results.map(({ film, out, state, seconds, bytes }) => [
    film,
    basename(out),
    WORDS[state],
    `${seconds.toFixed(0)} s`,
    bytes === null ? "" : `${(bytes / 1e6).toFixed(1)} MB`,
  ]);
  const widths = [0, 1, 2, 3, 4].map((column) => Math.max(...rows.map((row) => row[column]!.length)));
  return rows
    .map((row) =>
      row
        .map((cell, i) => cell.padEnd(widths[i]!))
        .join("  ")
        .trimEnd(),
    )
    .join("\n");
}

async function runBatch(folder: string, options: BatchOptions, command: Command, terminal: Terminal): Promise<void> {
  if (resolve(folder) === resolve(options.out)) {
    throw new InvalidArgumentError("--out must be another folder than that of the films.");
  }
  await mkdir(options.out, { recursive: true });
  const batch = new Batch(folder, { ...options, ...ONE_FILM_NOTHING }, command);
  await runWithProgress(terminal, async (running) => {
    const { signal } = running;
    await batch.run(running);
    while (options.watch !== undefined && !signal.aborted) {
      await wait(1000 * options.watch, null, { signal }).catch(() => null);
      if (!signal.aborted) await batch.run(running);
    }
  });
  const { results } = batch;
  terminal.print(results.length > 0 ? tableOf(results) : "Nothing to do: every film has been converted.");
  if (results.some(({ state }) => state === "failed")) terminal.status = FAILED;
  else if (results.some(({ state }) => state === "check-failed")) terminal.status = NEEDS_A_LOOK;
}

export const batchCommand = (terminal: Terminal): Command =>
  addVersionOptions(
    new Command("batch")
      .description("convert all films of a folder to several versions each; goes on where it was stopped")
      .argument("<folder>", "the folder of the films"),
  )
    .option("--log <file>", "the log, a JSON object a line; in the folder of the results if left out")
    .option("--watch <seconds>", "look for new films every so many seconds, until it is stopped", parseSeconds)
    .action((folder: string, options: BatchOptions, command: Command) => runBatch(folder, options, command, terminal));
