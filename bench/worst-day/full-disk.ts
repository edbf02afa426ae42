/** A disk that is full: the server lives on, says so, loses nothing, and can be started. */
import { execFileSync } from "node:child_process";
import { closeSync, mkdtempSync, openSync, rmSync, writeSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { form, goOnUpload, upload } from "../../tests/support/raw-request";
import { CLIP, Library, revisionIn } from "./library";
import { comesTrue, type Outcome } from "./outcome";
import { arrivedOf, nothingAcknowledged, uploadHalf } from "./work";

const DISK_MB = 96;
/** Whatever is waited for has come by then. */
const LONGEST_MS = 240_000;
const SENTENCE = /the disk is full: \d+ MB free in the data folder/i;

/** A small file system in memory; null where none can be mounted. */
function mountDisk(): string | null {
  const folder = mkdtempSync(join(tmpdir(), "glad-pan-disk-"));
  try {
    execFileSync("mount", ["-t", "tmpfs", "-o", `size=${DISK_MB}m`, "tmpfs", folder], { stdio: "ignore" });
    return folder;
  } catch {
    rmSync(folder, { recursive: true });
    return null;
  }
}

/** Writes until nothing more goes in. */
function fill(file: string): void {
  const handle = openSync(file, "w");
  try {
    for (const size of [2 ** 20, 4096]) {
      try {
        for (;;) writeSync(handle, Buffer.alloc(size, 1));
      } catch {
        // Full to within that size.
      }
    }
  } finally {
    closeSync(handle);
  }
}

/** Whether a small file system can be mounted here, without which this cannot be tried. */
export function canMount(): boolean {
  const disk = mountDisk();
  if (disk) unmount(disk);
  return disk !== null;
}

function unmount(disk: string): void {
  execFileSync("umount", ["-l", disk]);
  rmSync(disk, { recursive: true, force: true });
}

/** What was checked, and what did not hold. */
class Checks {
  tried = 0;
  readonly failures: string[] = [];

  that(what: string, holds: boolean, saw: unknown = ""): void {
    this.tried++;
    if (!holds) this.failures.push(`${what}: ${String(saw).slice(0, 300)}`);
  }
}

/** A library on a disk that is small, and what else lies there. */
class SmallDisk {
  readonly library: Library;
  private readonly ballast: string[] = [];

  constructor(private readonly disk: string) {
    this.library = new Library(join(disk, "data"));
  }

  fill(): void {
    const file = join(this.disk, `ballast-${this.ballast.length}`);
    this.ballast.push(file);
    fill(file);
  }

  free(): void {
    for (const file of this.ballast.splice(0)) rmSync(file, { force: true });
  }
}

/** Edits are refused with a sentence, the server goes on and starts anew, and what was acknowledged is there. */
async function edits(disk: SmallDisk, id: string, checks: Checks): Promise<void> {
  const { library } = disk;
  let revision = library.revisionOf(id);
  let kept = 0;
  const edit = async () => {
    const x = 60 + (revision % 200);
    const answer = await library.send(library.setKey(id, revision, x));
    if (answer.status === 200) [revision, kept] = [revisionIn(answer), x];
    return answer;
  };
  const page = () => library.send({ path: "/" });
  await edit();
  disk.fill();
  let answer = await edit();
  for (let i = 0; i < 3000 && answer.status === 200; i++) answer = await edit();
  checks.that("an edit is refused", answer.status === 507, answer.status);
  checks.that("with the sentence", SENTENCE.test(answer.body), answer.body);
  checks.that("the server lives on", library.server.isRunning, library.server.complaints);
  const full = await page();
  checks.that("its page opens", full.status === 200, full.status);
  checks.that("and says that the disk is full", /disk is full/.test(full.body), full.body.length);
  const uploaded = await library.send(upload("other.mp4", CLIP));
  checks.that("an upload is refused", uploaded.status === 507, `${uploaded.status} ${uploaded.body}`);
  checks.that("what was acknowledged is there", library.keyOf(id) === kept && library.revisionOf(id) === revision);
  for (const how of ["kill", "stop", "stop"] as const) {
    await library.server[how]();
    const started = await library.server.start().then(
      () => true,
      () => false,
    );
    checks.that(`it starts after a ${how}`, started, library.server.complaints);
    if (!started) break;
    checks.that("its page opens", (await page()).status === 200);
    checks.that("what was acknowledged is still there", library.keyOf(id) === kept, library.keyOf(id));
    disk.fill();
  }
  disk.free();
  if (!library.server.isRunning) await library.server.start();
  answer = await edit();
  checks.that("with room again, edits are taken", answer.status === 200, `${answer.status} ${answer.body}`);
}

/** The disk fills while a file is rendered: the export says so, leaves nothing half, and is made when there is room. */
async function duringExport(disk: SmallDisk, id: string, checks: Checks): Promise<void> {
  const { library } = disk;
  const [versionId] = library.versionsOf(id);
  const render = () => library.jobs().find(({ kind }) => kind === "render")!;
  await library.demand(200, form(`/films/${id}`, { intent: "export", versionIds: versionId! }));
  checks.that("an export begins", await comesTrue(() => library.tools().length > 0, LONGEST_MS));
  disk.fill();
  checks.that(
    "an export for which there is no room stops",
    await comesTrue(() => library.tools().length === 0, LONGEST_MS),
  );
  checks.that("the server lives on", library.server.isRunning, library.server.complaints);
  checks.that(
    "nothing half is left of it",
    await comesTrue(() => library.halves().length === 0, 5000),
    library.halves(),
  );
  // That it has failed can be written down when there is room again.
  disk.free();
  await comesTrue(() => render().state !== "running", LONGEST_MS);
  const { state, error } = render();
  checks.that("it has failed", state === "failed", state);
  checks.that("and says so", error !== null && SENTENCE.test(error), error);
  await library.demand(200, form("/?index", { intent: "retry", jobId: render().id }));
  const made = await comesTrue(() => render().state === "done", LONGEST_MS);
  checks.that("with room again, it is made", made, JSON.stringify(render()));
}

/** The disk fills while a film comes: what has come is kept, and goes on when there is room. */
async function duringUpload(disk: SmallDisk, checks: Checks): Promise<void> {
  const { library } = disk;
  const done = nothingAcknowledged();
  await uploadHalf(library, done, "late.mp4");
  const { location, taken } = done.upload!;
  disk.fill();
  const refused = await library.send(goOnUpload(location, taken, CLIP.subarray(taken)));
  checks.that("more of an upload is refused", refused.status === 507, `${refused.status} ${refused.body}`);
  checks.that("the server lives on", library.server.isRunning, library.server.complaints);
  disk.free();
  const offset = await arrivedOf(library, location);
  checks.that("what had come is there", offset >= taken, offset);
  const end = await library.send(goOnUpload(location, offset, CLIP.subarray(offset)));
  checks.that("with room again, it goes on", end.status === 204, `${end.status} ${end.body}`);
  const film = String(end.headers["glad-pan-film"]);
  checks.that("and is a film", library.films().includes(film), film);
}

/** @throws Error where no file system can be mounted: `canMount` tells beforehand */
export async function fullDisk(): Promise<Outcome> {
  const folder = mountDisk();
  if (!folder) throw new Error("a full disk cannot be tried here: no file system can be mounted");
  const checks = new Checks();
  const disk = new SmallDisk(folder);
  const { library } = disk;
  try {
    await library.server.start();
    const id = await library.addFilm("kite.mp4");
    checks.that("a film is worked with on a small disk", await comesTrue(library.isIdle, LONGEST_MS));
    await edits(disk, id, checks);
    await duringUpload(disk, checks);
    await comesTrue(library.isIdle, LONGEST_MS);
    await duringExport(disk, id, checks);
    checks.that("nothing half is there", library.halves().length === 0, library.halves());
  } finally {
    await library.server.kill();
    unmount(folder);
  }
  return { what: `a full disk of ${DISK_MB} MB`, tried: checks.tried, failures: checks.failures };
}
