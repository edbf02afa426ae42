/** Only here is a desk in use while its film is still analysed: what arrives may disturb nothing that was done meanwhile. */
import { execFileSync } from "node:child_process";
import { join } from "node:path";
import { expect, type Page, test } from "@playwright/test";
import { goTo, rows } from "../support/desk";
import { measure } from "../support/measure";
import { LONG_WORK, TestServer } from "../support/server";

const server = new TestServer();
test.beforeAll(() => server.start());
test.afterAll(() => server.dispose());

const analysis = (page: Page) => page.getByRole("button", { name: /^Cancel: (Looking for shots|Analysis)/ });

test("a film is worked on at any frame before it is analysed, and what is done stays", async ({ page }) => {
  const problems: string[] = [];
  page.on("pageerror", (error) => problems.push(error.message));
  const film = join(server.data, "kite morning.mp4");
  const smaller = ["-vf", "scale=960:540", "-preset", "ultrafast"];
  execFileSync("ffmpeg", ["-v", "error", "-t", "19.5", "-i", "demo/ferrow-kite-day.mp4", ...smaller, film]);
  await page.goto(server.url);
  await page.getByLabel("Film files").setInputFiles(film);
  await expect(page.getByRole("link", { name: "Open kite morning.mp4" })).toBeVisible();
  server.makeVersionsSmall();
  await page.getByRole("link", { name: "Open kite morning.mp4" }).click();

  await test.step("a keyframe is placed and a switch made where nothing was looked at yet", async () => {
    await expect(rows(page)).toHaveCount(1);
    await expect(rows(page).first()).toContainText("not analysed");
    const wanted = page.waitForRequest(/\/wanted$/);
    await goTo(page, 520);
    expect((await wanted).postDataJSON()).toEqual({ frame: 520 });
    await page.getByLabel("Centre x (px)").fill("400");
    await page.getByLabel("Centre x (px)").press("Enter");
    await expect(rows(page).first()).toContainText("● 1");
    await goTo(page, 560);
    await page.keyboard.press("Shift+D");
    await expect(rows(page)).toHaveCount(2);
    await expect(analysis(page)).toBeVisible();
  });

  await test.step("what is analysed can be rendered while the rest is not", async () => {
    await expect.poll(() => rows(page).count(), { timeout: LONG_WORK }).toBeGreaterThan(2);
    await page.getByRole("button", { name: /^Export/ }).click();
    const render = page.getByRole("dialog").getByRole("button", { name: /^Export ./ });
    if (await analysis(page).isVisible()) await expect(render).toBeDisabled();
    await page.getByRole("button", { name: "Close" }).click();
    await goTo(page, 59);
    await page.keyboard.press("o");
    await page.getByRole("button", { name: /^Export/ }).click();
    await render.click();
    await expect(page.getByRole("link", { name: "Download" })).toBeVisible({ timeout: LONG_WORK });
    const download = page.waitForEvent("download");
    await page.getByRole("link", { name: "Download" }).click();
    const file = join(server.data, "part.mp4");
    await (await download).saveAs(file);
    expect(measure(file)).toMatchObject({ size: [270, 480], frames: 60 });
    await page.getByRole("button", { name: "Close" }).click();
    await page.keyboard.press("Control+z");
  });

  await test.step("all of it is there when the analysis is", async () => {
    await expect(analysis(page)).toBeHidden({ timeout: LONG_WORK });
    // Three shots that were found, and the last one's part after the switch.
    await expect(rows(page)).toHaveCount(4);
    await expect(rows(page).filter({ hasText: "not analysed" })).toHaveCount(0);
    await goTo(page, 520);
    await expect(page.getByLabel("Centre x (px)")).toHaveValue("400");
    await expect(rows(page).nth(2)).toContainText("● 1");
  });

  await test.step("undo takes back what was done, and leaves what was found", async () => {
    await page.keyboard.press("Control+z");
    await expect(rows(page)).toHaveCount(3);
    await page.keyboard.press("Control+z");
    await expect(rows(page).filter({ hasText: "●" })).toHaveCount(0);
  });

  expect(problems).toEqual([]);
});
