/** A server that is killed at any moment: no change that was acknowledged is lost, no file is half, no tool goes on. */
import { join } from "node:path";
import { probeFilm } from "~/media/probe.server";
import { form, send } from "../../tests/support/raw-request";
import { seeded } from "../../demo/film/random";
import { Library } from "./library";
import { comesTrue, type Outcome, sleep } from "./outcome";

/** A tool may outlive its server by no more than this. */
const TOOLS_MS = 5000;

interface JobState {
  kind: string;
  state: string;
}

/** Sees to it that something is to be done: a render of a film that is ready, or else another film. */
async function giveWork(library: Library, round: number): Promise<string> {
  const films = library.query<{ id: string }>("SELECT id FROM films ORDER BY created_at");
  const unfinished = library.query<JobState>("SELECT kind, state FROM jobs WHERE state IN ('queued', 'running')");
  const [newest] = films.slice(-1);
  if (newest && unfinished.length > 0) return newest.id;
  if (newest && round % 2 === 0) {
    const versionId = library.versionOf(newest.id);
    await send(library.server.url, form(`/films/${newest.id}`, { intent: "export", versionId }));
    return newest.id;
  }
  return (await library.addFilm(`kite ${round}.mp4`)).id;
}

/** What is not as it should be after a kill and a new start. */
async function faultsAfter(
  library: Library,
  acknowledged: Map<string, { revision: number; x?: number }>,
  sent: ReadonlyMap<string, number>,
): Promise<string[]> {
  const faults: string[] = [];
  for (const [film, { revision, x }] of acknowledged) {
    const kept = { revision: library.revisionOf(film), x: library.keyOf(film) };
    acknowledged.set(film, kept);
    // The last change may have been kept although the answer did not come through.
    if (kept.revision < revision || (kept.x !== x && kept.x !== sent.get(film))) {
      faults.push(`revision ${revision} with x ${x} was acknowledged, ${kept.revision} with ${kept.x} is there`);
    }
  }
  const files = library.files();
  const half = files.filter((file) => file.includes(".part"));
  // A job that has been taken up may be at it already.
  const busy = library.query<JobState>("SELECT kind, state FROM jobs WHERE state = 'running'").length;
  if (half.length > busy) faults.push(`half files: ${half.join(", ")}`);
  for (const file of files.filter((name) => /(proxy|source|exports\/.*)\.mp4$/.test(name))) {
    await probeFilm(join(library.server.data, file)).catch((error: unknown) =>
      faults.push(`${file}: ${String(error)}`),
    );
  }
  const folders = new Set(files.flatMap((file) => /^films\/([^/]+)\//.exec(file)?.[1] ?? []));
  const known = new Set(library.query<{ id: string }>("SELECT id FROM films").map(({ id }) => id));
  for (const folder of folders) if (!known.has(folder)) faults.push(`the folder ${folder} has no film`);
  const uploads = files.filter((file) => file.startsWith("uploads/") && file.endsWith(".json"));
  for (const upload of uploads) {
    if (!files.includes(upload.replace(/\.json$/, ""))) faults.push(`${upload} is of no upload`);
  }
  return faults;
}

/** Lets all jobs come to their end; one that was given up, because it was killed too soon too often, is started again. */
async function finishAll(library: Library): Promise<string[]> {
  const idle = () => library.query("SELECT 1 FROM jobs WHERE state IN ('queued', 'running')").length === 0;
  await comesTrue(idle, 400_000);
  for (const { id } of library.query<{ id: string }>(
    "SELECT id FROM jobs WHERE error LIKE 'Glad Pan stopped 4 times%'",
  )) {
    await send(library.server.url, form("/?index", { intent: "retry", jobId: id }));
  }
  await comesTrue(idle, 400_000);
  const left = library.query<JobState & { error: string }>("SELECT kind, state, error FROM jobs WHERE state <> 'done'");
  return left.map(({ kind, state, error }) => `the job ${kind} is ${state}: ${error}`);
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
  const acknowledged = new Map<string, { revision: number; x?: number }>();
  const sent = new Map<string, number>();
  let edits = 0;
  try {
    await library.server.start();
    for (let round = 0; round < count; round++) {
      const film = await giveWork(library, round);
      let alive = true;
      const editing = (async () => {
        for (let revision = library.revisionOf(film); alive;) {
          const x = 400 + Math.floor(random() * 400);
          sent.set(film, x);
          const answer = await library.setKey(film, revision, x).catch(() => null);
          if (!answer || answer.status !== 200) break;
          edits++;
          revision = answer.revision;
          acknowledged.set(film, { revision, x });
          await sleep(10);
        }
      })();
      await sleep(100 + random() * 3500);
      await library.server.kill();
      alive = false;
      await editing;
      const gone = await comesTrue(() => library.tools().length === 0, TOOLS_MS);
      if (!gone) failures.push(`kill ${round}: still running: ${library.tools().join("; ")}`);
      await library.server.start();
      const faults = await faultsAfter(library, acknowledged, sent);
      failures.push(...faults.map((fault) => `kill ${round}: ${fault}`));
      onEach(`kill ${round}: ${faults[0] ?? "held"}`);
    }
    failures.push(...(await finishAll(library)));
    const jobs = library.query("SELECT 1 FROM jobs").length;
    return { what: `kills at a random moment (${edits} acknowledged edits, ${jobs} jobs)`, tried: count, failures };
  } finally {
    await library.server.dispose();
  }
}
