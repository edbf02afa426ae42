/** Brings in the films that most tests share, and lets them be looked through, once for all of them. */
import { execFileSync } from "node:child_process";
import { copyFileSync, mkdirSync, mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { expect, test as prepare } from "@playwright/test";
import { type Prepared, PREPARED, type PreparedFilm, preparedFolder } from "../support/prepared";
import { send, upload } from "../support/raw-request";
import { LONG_WORK, TestServer } from "../support/server";

for (const name of Object.keys(PREPARED) as Prepared[]) {
  const film: PreparedFilm = PREPARED[name];
  prepare(name, async () => {
    const data = preparedFolder(name);
    rmSync(data, { recursive: true, force: true });
    mkdirSync(data, { recursive: true });
    const work = mkdtempSync(join(tmpdir(), "glad-pan-prepare-"));
    const server = new TestServer({ data });
    try {
      const file = join(work, film.name);
      if (film.args) execFileSync("ffmpeg", ["-v", "error", "-i", film.source, ...film.args, file]);
      else copyFileSync(film.source, file);
      await server.start();
      expect((await send(server.url, upload(film.name, readFileSync(file)))).status).toBe(201);
      const open = () => server.query("SELECT 1 FROM jobs WHERE state <> 'done'").length;
      await expect.poll(open, { timeout: LONG_WORK }).toBe(0);
      expect(await server.stop()).toBe(0);
      server.makeVersionsSmall(film.version);
    } finally {
      await server.kill();
      rmSync(work, { recursive: true });
    }
  });
}
