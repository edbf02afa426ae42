/** A disk that is full: the server lives on, says so, loses nothing, and can be started. */
import { execFileSync } from "node:child_process";
import { closeSync, mkdtempSync, openSync, rmSync, writeSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { send } from "../../tests/support/raw-request";
import { Library } from "./library";
import { comesTrue, type Outcome } from "./outcome";

const DISK_MB = 96;
const SENTENCE = /the disk is full: \d+ MB free in the data folder/;

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

export async function fullDisk(): Promise<Outcome> {
  const disk = mountDisk();
  if (!disk) return { what: "a full disk (none could be mounted here: not tried)", tried: 0, failures: [] };
  const failures: string[] = [];
  let tried = 0;
  const check = (what: string, holds: boolean, saw: unknown = "") => {
    tried++;
    if (!holds) failures.push(`${what}: ${String(saw).slice(0, 300)}`);
  };
  const library = new Library(join(disk, "data"));
  const ballast = join(disk, "ballast");
  try {
    await library.server.start();
    const { id } = await library.addFilm("kite.mp4");
    const open = () => library.query("SELECT 1 FROM jobs WHERE state IN ('queued', 'running')").length;
    check("a film is worked with on a small disk", await comesTrue(() => open() === 0, 300_000));
    let revision = library.revisionOf(id);
    let kept = 0;
    const edit = async () => {
      const x = 400 + (revision % 400);
      const answer = await library.setKey(id, revision, x);
      if (answer.status === 200) [revision, kept] = [answer.revision, x];
      return answer;
    };
    const page = async () => send(library.server.url, { path: "/" });
    await edit();
    fill(ballast);
    let answer = await edit();
    for (let i = 0; i < 3000 && answer.status === 200; i++) answer = await edit();
    check("an edit is refused", answer.status === 507, answer.status);
    check("with the sentence", SENTENCE.test(answer.body), answer.body);
    check("the server lives on", library.server.isRunning, library.server.complaints);
    const full = await page();
    check("its page opens", full.status === 200, full.status);
    check("and says that the disk is full", /disk is full/.test(full.body), full.body.length);
    const uploaded = await library.addFilm("other.mp4");
    check("an upload is refused", uploaded.status === 507, `${uploaded.status} ${uploaded.body}`);
    check("what was acknowledged is there", library.keyOf(id) === kept && library.revisionOf(id) === revision);
    for (const how of ["kill", "stop", "stop"] as const) {
      await library.server[how]();
      const started = await library.server.start().then(
        () => true,
        () => false,
      );
      check(`it starts after a ${how}`, started, library.server.complaints);
      if (!started) break;
      check("its page opens", (await page()).status === 200);
      check("what was acknowledged is still there", library.keyOf(id) === kept, library.keyOf(id));
      fill(ballast.concat(how));
    }
    for (const file of [ballast, `${ballast}kill`, `${ballast}stop`]) rmSync(file, { force: true });
    if (!library.server.isRunning) await library.server.start();
    answer = await edit();
    check("with room again, edits are taken", answer.status === 200, `${answer.status} ${answer.body}`);
    check("and nothing half is there", !library.files().some((file) => file.includes(".part")), library.files());
  } finally {
    await library.server.kill();
    execFileSync("umount", ["-l", disk]);
    rmSync(disk, { recursive: true, force: true });
  }
  return { what: `a full disk of ${DISK_MB} MB`, tried, failures };
}
