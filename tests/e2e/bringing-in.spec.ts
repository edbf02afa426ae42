import { execFileSync } from "node:child_process";
import { existsSync, mkdirSync, readdirSync, statSync } from "node:fs";
import { join } from "node:path";
import { expect, type Page, test } from "@playwright/test";
import { EVERY_TEST } from "../support/every-test";
import { LONG_WORK, TestServer } from "../support/server";

const server = new TestServer();
const media = join(server.data, "media");
const film = join(media, "tide pools.mkv");

// Each test goes on with the library as the one before has left it.
test.describe.configure({ mode: "serial" });

test.beforeAll(async () => {
  mkdirSync(media);
  const picture = "testsrc2=s=640x268:r=25:d=6,pad=640:360:0:46:black,format=yuv420p";
  const sounds = ["-f", "lavfi", "-i", "sine=300:duration=6", "-f", "lavfi", "-i", "sine=900:duration=6"];
  const tagged = ["-metadata:s:a:0", "language=eng", "-metadata:s:a:1", "language=deu"];
  execFileSync("ffmpeg", [
    ...["-v", "error", "-f", "lavfi", "-i", picture, ...sounds, "-map", "0", "-map", "1", "-map", "2"],
    ...["-c:v", "libx264", "-preset", "ultrafast", "-c:a", "aac", ...tagged, film],
  ]);
  await server.start({ GLAD_PAN_MEDIA: media });
});
test.afterAll(() => server.dispose());

/** Whether the desk's picture can be seen. */
const hasPicture = (page: Page) =>
  page.getByLabel("The whole picture").evaluate((video) => {
    const { readyState, seeking, videoWidth } = video as HTMLVideoElement;
    return readyState >= HTMLMediaElement.HAVE_CURRENT_DATA && !seeking && videoWidth > 0;
  });
const bar = (page: Page, side: string) => page.getByLabel(`${side} bar (px)`);

test("a film of this machine is linked, and its desk opens before its proxy is made", async ({ page }) => {
  await page.goto(server.url);
  await page.getByRole("button", { name: "From this machine" }).click();
  await page.getByRole("button", { name: "media" }).click();
  await page.getByRole("button", { name: "Add tide pools.mkv" }).click();
  await expect(page.getByRole("button", { name: "Add tide pools.mkv" })).toHaveText("Added");
  await page.keyboard.press("Escape");
  await page.getByRole("link", { name: "Open tide pools.mkv" }).click();
  await expect.poll(() => hasPicture(page)).toBe(true);
  const [id] = readdirSync(join(server.data, "films"));
  expect(readdirSync(join(server.data, "films", id!)).filter((name) => name.startsWith("source"))).toEqual([]);
});

// Only this finds that what is typed for bars does not reach the desk's picture; that they are found is a unit test's.
(EVERY_TEST ? test : test.skip)("its own bars are left out, shown, and corrected by hand", async ({ page }) => {
  await page.goto(server.url);
  await page.getByRole("link", { name: "Open tide pools.mkv" }).click();
  await expect(page.getByText("Letterbox left out")).toBeVisible({ timeout: LONG_WORK });
  const found = Number(await bar(page, "Top").inputValue());
  expect(found).toBeGreaterThanOrEqual(46);
  expect(found).toBeLessThanOrEqual(50);
  const centre = page.getByLabel("Centre y (px)");
  await bar(page, "Top").fill("80");
  await bar(page, "Top").press("Enter");
  const height = 360 - 80 - Number(await bar(page, "Bottom").inputValue());
  await expect(centre).toHaveValue(String(80 + height / 2));
  await page.getByRole("button", { name: /^Undo: Changed the picture area/ }).click();
  await expect(bar(page, "Top")).toHaveValue(String(found));
  await page.getByRole("button", { name: "No letterbox in this shot" }).click();
  await expect(page.getByText("No letterbox")).toBeVisible();
  await page.keyboard.press("Control+z");
  await expect(bar(page, "Top")).toHaveValue(String(found));
});

// Only here does the choice of a sound go all the way from the dialog into a file that is heard.
(EVERY_TEST ? test : test.skip)("another of its sounds is played and exported", async ({ page }) => {
  server.makeVersionsSmall();
  await page.goto(server.url);
  await page.getByRole("link", { name: "Open tide pools.mkv" }).click();
  await page.getByRole("button", { name: "About tide pools.mkv" }).click();
  const choice = page.getByRole("combobox", { name: "Audio track" });
  await choice.click();
  await page.getByRole("option", { name: /deu/ }).click();
  await expect(choice).toContainText("deu");
  await page.keyboard.press("Escape");
  await expect.poll(() => hasPicture(page)).toBe(true);
  await page.getByRole("button", { name: /^Export/ }).click();
  await page.getByRole("button", { name: /^Export ./ }).click();
  const link = page.getByRole("link", { name: /Download/ }).first();
  await expect(link).toBeVisible({ timeout: LONG_WORK });
  const [file] = await Promise.all([page.waitForEvent("download"), link.click()]);
  const path = await file.path();
  // Crossings of zero in a second: twice the pitch, which is 900 here and 300 in the other.
  const samples = execFileSync("ffmpeg", [
    "-v",
    "error",
    "-i",
    path,
    "-t",
    "1",
    "-ac",
    "1",
    "-ar",
    "48000",
    "-f",
    "s16le",
    "-",
  ]);
  const wave = new Int16Array(samples.buffer, samples.byteOffset, samples.length >> 1);
  let crossings = 0;
  for (let i = 1; i < wave.length; i++) if (wave[i - 1]! < 0 !== wave[i]! < 0) crossings++;
  expect(crossings).toBeGreaterThan(1500);
});

test("an upload goes on in another page, and from where it was", async ({ page, context }) => {
  const long = join(server.data, "spray.mp4");
  const noise = "nullsrc=s=640x360:r=25:d=6,geq=random(1)*255:128:128";
  execFileSync("ffmpeg", [
    "-v",
    "error",
    "-f",
    "lavfi",
    "-i",
    noise,
    "-c:v",
    "libx264",
    "-preset",
    "ultrafast",
    "-qp",
    "4",
    long,
  ]);
  const { size } = statSync(long);
  expect(size).toBeGreaterThan(20e6);
  const uploads = join(server.data, "uploads");
  const arrived = () => readdirSync(uploads).filter((name) => !name.endsWith(".json"));

  await page.goto(server.url);
  let sent = 0;
  await page.route("**/uploads/*", (route) => {
    const isSecond = route.request().method() === "PATCH" && ++sent > 1;
    return isSecond ? route.abort() : route.continue();
  });
  await page.getByLabel("Film files").setInputFiles(long);
  await expect(page.getByRole("list", { name: "Uploads" })).toContainText("Connection lost");
  const [kept] = arrived();
  const before = statSync(join(uploads, kept!)).size;
  expect(before).toBeGreaterThan(10e6);
  await page.close();

  const next = await context.newPage();
  await next.goto(server.url);
  await expect(next.getByRole("region", { name: "Unfinished uploads" })).toContainText("spray.mp4");
  const asked: string[] = [];
  next.on("request", (request) => {
    if (request.url().includes("/uploads"))
      asked.push(`${request.method()} ${request.headers()["upload-offset"] ?? ""}`);
  });
  await next.getByLabel("Film files").setInputFiles(long);
  await expect(next.getByRole("link", { name: "Open spray.mp4" })).toBeVisible({ timeout: LONG_WORK });
  expect(asked).toContain(`PATCH ${before}`);
  expect(asked.some((request) => request.startsWith("POST"))).toBe(false);
  await expect(next.getByRole("region", { name: "Unfinished uploads" })).toBeHidden();
});

test("a film that is deleted stays where it lies", async ({ page }) => {
  await page.goto(server.url);
  const card = page.getByRole("listitem").filter({ hasText: "tide pools.mkv" });
  await card.getByRole("button", { name: "More for tide pools.mkv" }).click();
  await page.getByRole("menuitem", { name: "Delete" }).click();
  await expect(page.getByRole("alertdialog")).toContainText("The original stays where it is");
  await page.getByRole("button", { name: "Delete", exact: true }).click();
  await expect(page.getByRole("link", { name: "Open tide pools.mkv" })).toBeHidden();
  expect(existsSync(film)).toBe(true);
});

test("a desk whose server has ended stays, and says so", async ({ page }) => {
  await page.goto(server.url);
  await page.getByRole("link", { name: "Open spray.mp4" }).click();
  await expect.poll(() => hasPicture(page)).toBe(true);
  await expect(page.getByRole("button", { name: /^Cancel: / }).first()).toBeVisible();
  await server.kill();
  await expect(page.getByText("Glad Pan is not responding")).toBeVisible();
  await expect(page.getByLabel("The whole picture")).toBeVisible();
});
