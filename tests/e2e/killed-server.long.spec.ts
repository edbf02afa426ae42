/** Only here is it seen that an analysis goes on from the very chunk that was kept, and a render from the parts that it has. */
import { execFileSync } from "node:child_process";
import { existsSync, readdirSync } from "node:fs";
import { join } from "node:path";
import { expect, test } from "@playwright/test";
import { LONG_WORK, TestServer } from "../support/server";

const FRAMES = 600;

const server = new TestServer();
test.afterAll(() => server.dispose());

interface Job {
  kind: string;
  state: string;
  progress: number;
  attempts: number;
  result: string | null;
}

/** The jobs of the only film, read past the server. */
const jobs = () =>
  server.query<Job>("SELECT kind, state, progress, attempts, result FROM jobs ORDER BY created_at, rowid");
const job = (kind: string) => jobs().find((other) => other.kind === kind)!;

/** Looked-at ranges that the analysis has kept. */
const chunks = () => server.query<{ n: number }>("SELECT count(*) AS n FROM analysis_chunks")[0]!.n;

test("a server killed in the middle of the analysis and of a render takes both up again", async ({ page }) => {
  // The first third of the demo film: long enough to be interrupted.
  const film = join(server.data, "kite-morning.mp4");
  const copy = ["-v", "error", "-i", "demo/ferrow-kite-day.mp4", "-t", String(FRAMES / 30), "-c", "copy", film];
  execFileSync("ffmpeg", copy);
  await server.start();
  await page.goto(server.url);
  await page.getByLabel("Film files").setInputFiles(film);
  await expect.poll(() => chunks(), { intervals: [200], timeout: LONG_WORK }).toBeGreaterThan(0);
  expect(job("analyse").state).toBe("running");
  const kept = chunks();
  await server.kill();

  await server.start();
  await expect.poll(() => job("analyse").progress, { intervals: [200], timeout: LONG_WORK }).toBeGreaterThan(0);
  // It goes on from what was kept, and not from the beginning.
  expect(chunks()).toBeGreaterThanOrEqual(kept);
  expect(job("analyse").progress).toBeGreaterThan((0.9 * kept * 240) / FRAMES - 0.01);
  await expect.poll(() => job("analyse").state, { timeout: LONG_WORK }).toBe("done");
  await expect.poll(() => job("proxy").state, { timeout: LONG_WORK }).toBe("done");
  // It got somewhere each time, so that no start counts against it.
  expect(job("analyse").attempts).toBe(0);

  await page.goto(server.url);
  await page.getByRole("link", { name: /^Open/ }).click();
  await page.getByRole("button", { name: "Add a version" }).click();
  await page.getByRole("radio", { name: /Square/ }).click();
  await page.getByRole("button", { name: "Add version", exact: true }).click();
  await expect(page.getByRole("link", { name: "Square 1:1" })).toBeVisible();
  await page.getByRole("button", { name: /^Export/ }).click();
  await page.getByRole("button", { name: "Export Square 1:1" }).click();
  await expect.poll(() => job("render")?.progress ?? 0, { intervals: [200], timeout: LONG_WORK }).toBeGreaterThan(0.35);
  const films = join(server.data, "films");
  const exports = join(films, readdirSync(films)[0]!, "exports");
  await server.kill();
  expect(existsSync(join(exports, "kite-morning 1080x1080.mp4"))).toBe(false);
  const parts = readdirSync(join(exports, "..", "parts")).filter((name) => name.endsWith(".nut") && name[0] !== ".");
  expect(parts.length).toBeGreaterThan(0);

  await server.start();
  await expect.poll(() => job("render").state, { timeout: LONG_WORK }).toBe("done");
  expect(job("render").attempts).toBe(0);
  // The shots that were finished are not rendered again.
  const result = JSON.parse(job("render").result!) as { made: number; parts: number };
  expect(result.parts - result.made).toBe(parts.length);
  expect(readdirSync(exports)).toEqual(["kite-morning 1080x1080.mp4"]);
});
