/** A server that is killed at any moment: nothing that was acknowledged is lost, no file is half, no tool goes on. */
import { statSync } from "node:fs";
import { join as joinPath } from "node:path";
import { probeFilm } from "~/media/probe.server";
import { median } from "~/core/numbers/median";
import { fixed } from "~/texts/numbers";
import { form } from "../../tests/support/raw-request";
import { seeded } from "../../demo/film/random";
import { Library, revisionIn } from "./library";
import { comesTrue, type Outcome, sleep } from "./outcome";
import {
  type Acknowledged,
  addFilm,
  exportAll,
  finishUpload,
  join,
  nothingAcknowledged,
  timeText,
  uploadHalf,
} from "./work";

/** A tool may outlive its server by no more than this. */
const TOOLS_MS = 5000;
/** What a killed server left is tidied up by then. */
const TIDY_MS = 10_000;
/** All that is to be done is done by then. */
const IDLE_MS = 400_000;
/** Films that whoever looks at the library can play: originals, what clips are joined to, pieces of proxies, exports. */
const PLAYABLE = /^films\/[^/]+\/(source[\w-]*\.\w+|proxy\/\d+\.mp4|exports\/.+|joined[\w-]*\.\w+)$/;

/** Sees to it that something is to be done: in turn an upload, exports, a join, a timing, half an upload. */
async function giveWork(library: Library, done: Acknowledged, round: number): Promise<string> {
  const ready = [...done.films].filter(library.isAnalysed);
  const newest = ready.at(-1);
  if (newest === undefined || round % 5 === 0) {
    await addFilm(library, done, `kite ${round}.mp4`);
    return "a film";
  }
  if (round % 5 === 1) {
    await exportAll(library, done, newest);
    return "exports of two versions";
  }
  if (round % 5 === 2 && ready.length > 1) {
    await join(library, done, ready.slice(-2), `joined ${round}`);
    return "a join";
  }
  if (round % 5 === 3) {
    await timeText(library, done, newest);
    await exportAll(library, done, newest);
    return "captions, and exports of two versions";
  }
  await uploadHalf(library, done, `half ${round}.mp4`);
  return "half an upload";
}

/** What is not as it should be after a kill and a new start. */
class Faults {
  private readonly known = new Set<string>();

  constructor(
    private readonly library: Library,
    private readonly done: Acknowledged,
  ) {}

  /**
   * @param sent the last change of each film that was sent
   * @param halves what was not finished when the server was killed
   */
  async found(sent: ReadonlyMap<string, number>, halves: readonly string[]): Promise<string[]> {
    // The server is ready before it has tidied up.
    await comesTrue(() => [...this.left(halves), ...this.strays()].length === 0, TIDY_MS);
    return [...this.lost(sent), ...this.left(halves), ...(await this.broken()), ...this.strays()];
  }

  /** What was acknowledged and is not there. */
  private lost(sent: ReadonlyMap<string, number>): string[] {
    const { library, done } = this;
    const faults: string[] = [];
    const films = new Set(library.films());
    for (const film of done.films) if (!films.has(film)) faults.push(`the film ${film} is gone`);
    for (const [film, { revision, x }] of done.edits) {
      const kept = { revision: library.revisionOf(film), x: library.keyOf(film) };
      done.edits.set(film, kept);
      // The last change may have been kept although the answer did not come through.
      if (kept.revision < revision || (kept.x !== x && kept.x !== sent.get(film))) {
        faults.push(`revision ${revision} with x ${x} was acknowledged, ${kept.revision} with ${kept.x} is there`);
      }
    }
    for (const [film, texts] of done.captions) {
      const kept = library.server.query<{ text: string }>(
        `SELECT text FROM captions WHERE film_id = '${film}' ORDER BY start`,
      );
      if (kept.map(({ text }) => text).join() !== texts.join())
        faults.push(`captions of ${film}: ${JSON.stringify(kept)}`);
    }
    const renders = library.jobs().filter(({ kind }) => kind === "render").length;
    if (renders < done.exports) faults.push(`${done.exports} exports were acknowledged, ${renders} are there`);
    return faults;
  }

  /** What was half when the server was killed, and still is: every half has a name that no other has. */
  private left(halves: readonly string[]): string[] {
    const now = new Set(this.library.halves());
    return halves.filter((half) => now.has(half)).map((half) => `${half} is left half`);
  }

  /** Films that cannot be read to their end. */
  private async broken(): Promise<string[]> {
    const faults: string[] = [];
    // What clips are joined to grows until it is done; nothing is shown of it before.
    const growing = new Set(
      this.library.jobs().flatMap(({ kind, state, filmId }) => (kind === "join" && state !== "done" ? filmId : [])),
    );
    const isPlayable = (file: string) =>
      PLAYABLE.test(file) && !file.includes(".part") && !growing.has(file.split("/")[1]!);
    for (const name of this.library.files().filter(isPlayable)) {
      const file = joinPath(this.library.server.data, name);
      const { size, mtimeMs } = statSync(file);
      const print = `${name} ${size} ${mtimeMs}`;
      if (this.known.has(print)) continue;
      this.known.add(print);
      const info = await probeFilm(file).catch((error: unknown) => String(error));
      if (typeof info === "string") faults.push(`${name}: ${info}`);
      else if (info.cutOff > 0) faults.push(`${name}: ${info.cutOff} frames are missing at its end`);
    }
    return faults;
  }

  /** Folders and uploads that belong to nothing. */
  private strays(): string[] {
    const files = this.library.files();
    const films = new Set(this.library.films());
    const folders = new Set(files.flatMap((file) => /^films\/([^/]+)\//.exec(file)?.[1] ?? []));
    const uploads = files.filter((file) => file.startsWith("uploads/") && file.endsWith(".json"));
    return [
      ...[...folders].filter((folder) => !films.has(folder)).map((folder) => `the folder ${folder} has no film`),
      ...uploads
        .filter((upload) => !files.includes(upload.replace(/\.json$/, "")))
        .map((upload) => `${upload} is of no upload`),
    ];
  }
}

/** Lets all jobs come to their end; one that was given up, because it was killed too soon too often, is started again. */
async function finishAll(library: Library): Promise<string[]> {
  await comesTrue(library.isIdle, IDLE_MS);
  for (const { id, error } of library.jobs()) {
    if (error?.startsWith("Glad Pan stopped ")) {
      await library.demand(200, form("/?index", { intent: "retry", jobId: id }));
    }
  }
  await comesTrue(library.isIdle, IDLE_MS);
  const left = library.jobs().filter(({ state }) => state !== "done");
  return left.map(({ kind, state, error }) => `the job ${kind} is ${state}: ${error}`);
}

/** Exports that have no file. */
function missingExports(library: Library): string[] {
  const files = new Set(library.files());
  return library.jobs().flatMap(({ kind, filmId, payload }) => {
    if (kind !== "render") return [];
    const { fileName } = JSON.parse(payload) as { fileName: string };
    return files.has(`films/${filmId}/exports/${fileName}`) ? [] : [`the export ${fileName} is not there`];
  });
}

/** Changes a film until the server is gone. */
async function keepEditing(library: Library, done: Acknowledged, sent: Map<string, number>, random: () => number) {
  const film = library.films().at(-1);
  if (film === undefined) return 0;
  let made = 0;
  for (let revision = library.revisionOf(film); ; made++) {
    const x = Math.round(60 + random() * 200);
    sent.set(film, x);
    const answer = await library.send(library.setKey(film, revision, x)).catch(() => null);
    // Gone; or somebody else's change came first, as captions do.
    if (!answer) return made;
    if (answer.status === 409) revision = library.revisionOf(film);
    else if (answer.status !== 200) throw new Error(`an edit was answered with ${answer.status}: ${answer.body}`);
    else {
      revision = revisionIn(answer);
      done.edits.set(film, { revision, x });
    }
    await sleep(10);
  }
}

/** Starts the server; the seconds until it is ready. */
async function start(library: Library): Promise<number> {
  const begun = performance.now();
  await library.server.start();
  return (performance.now() - begun) / 1000;
}

/** @param count how often the server is killed */
export async function killedServers(
  count: number,
  seed = 1,
  onEach: (text: string) => void = () => {},
): Promise<Outcome> {
  const library = new Library();
  const random = seeded(seed);
  const failures: string[] = [];
  const done = nothingAcknowledged();
  const sent = new Map<string, number>();
  const faults = new Faults(library, done);
  const starts: number[] = [];
  let edits = 0;
  try {
    const first = await start(library);
    // Something to render and to join is there from the first kill on.
    for (const name of ["first.mp4", "second.mp4"]) await addFilm(library, done, name);
    await comesTrue(library.isIdle, IDLE_MS);
    for (let round = 0; round < count; round++) {
      const work = await giveWork(library, done, round);
      const editing = keepEditing(library, done, sent, random);
      await sleep(100 + random() * 3500);
      await library.server.kill();
      edits += await editing;
      const halves = library.halves();
      const gone = await comesTrue(() => library.tools().length === 0, TOOLS_MS);
      if (!gone) failures.push(`kill ${round}: still running: ${library.tools().join("; ")}`);
      starts.push(await start(library));
      const lost = await finishUpload(library, done);
      const found = [...(lost === null ? [] : [lost]), ...(await faults.found(sent, halves))];
      failures.push(...found.map((fault) => `kill ${round}, during ${work}: ${fault}`));
      onEach(`kill ${round}, during ${work}, ${halves.length} half files: ${found[0] ?? "held"}`);
      // Work that piles up is never finished; every third start is left alone until it is.
      if (round % 3 === 2) await comesTrue(library.isIdle, IDLE_MS);
    }
    failures.push(...(await finishAll(library)), ...missingExports(library), ...(await faults.found(sent, [])));
    const jobs = library.jobs();
    const of = (kind: string) => jobs.filter((job) => job.kind === kind).length;
    const ready = `ready after ${fixed(median(starts) / first, 2)} times as long as at first, at most ${fixed(Math.max(...starts) / first, 2)}`;
    const what = `kills at a random moment (${edits} acknowledged edits, ${of("render")} renders, ${of("join")} joins, ${done.films.size} films; ${ready})`;
    return { what, tried: count, failures };
  } finally {
    await library.server.dispose();
  }
}
