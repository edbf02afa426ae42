import { readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { expect, test } from "@playwright/test";
import { serverWith } from "../support/prepared";
import { goTo, openTwoShots, rows, timecode } from "../support/desk";
import { LONG_WORK } from "../support/server";

const server = serverWith("two-shots");
test.beforeAll(() => server.start());
test.afterAll(() => server.dispose());

test("shots are split, trimmed, joined, named, left out and cut anew from a list", async ({ page }) => {
  const problems: string[] = [];
  page.on("pageerror", (error) => problems.push(error.message));
  await openTwoShots(page, server);

  await test.step("a keyframe splits at the playhead, and joins again", async () => {
    await goTo(page, 20);
    await page.keyboard.press("d");
    await expect(rows(page)).toHaveCount(3);
    await expect(page.getByRole("heading", { name: "Shot 2" })).toBeVisible();
    await page.keyboard.press("BracketRight");
    await expect(timecode(page)).toHaveValue("00:00:00:21");
    await expect(page.getByRole("button", { name: /^Undo: Moved the cut/ })).toBeEnabled();
    await page.getByRole("button", { name: "Ten frames later" }).click();
    await expect(timecode(page)).toHaveValue("00:00:01:01");
    await page.keyboard.press("Control+z");
    await page.keyboard.press("Control+z");
    await expect(page.getByRole("button", { name: /^Undo: Split shot/ })).toBeEnabled();
    await page.keyboard.press("PageUp");
    await page.keyboard.press("u");
    await expect(rows(page)).toHaveCount(2);
    await page.keyboard.press("Control+z");
    await expect(rows(page)).toHaveCount(3);
  });

  await test.step("several are set at once", async () => {
    await rows(page).nth(0).click();
    await rows(page)
      .nth(1)
      .click({ modifiers: ["Shift"] });
    await expect(page.getByRole("heading", { name: "2 shots", exact: true })).toHaveCount(1);
    await page.getByRole("radio", { name: "Still" }).click();
    await expect(rows(page).nth(1)).toContainText("Still");
    await expect(rows(page).nth(2)).toContainText("Chase");
    await page.getByRole("button", { name: "Leave out" }).click();
    await expect(rows(page).nth(0)).toContainText("left out");
    await page.keyboard.press("Control+z");
    await expect(rows(page).nth(0)).not.toContainText("left out");
    await rows(page).nth(0).click();
  });

  await test.step("a name is kept, and the list can be narrowed", async () => {
    await page.getByLabel("Name of the shot").fill("Nela at the meadow");
    await page.keyboard.press("Enter");
    await expect(rows(page).nth(0)).toContainText("Nela at the meadow");
    await goTo(page, 0);
    await page.keyboard.press("x");
    await expect(rows(page).nth(0)).toContainText("left out");
    await page.getByRole("button", { name: "Show: All shots" }).click();
    await page.getByRole("menuitemradio", { name: /Left out/ }).click();
    await expect(rows(page)).toHaveCount(1);
    await page.getByRole("button", { name: "Show: Left out" }).click();
    await page.getByRole("menuitemradio", { name: /All shots/ }).click();
    await expect(rows(page)).toHaveCount(3);
  });

  await test.step("what is left out is not rendered", async () => {
    await page.getByRole("button", { name: /^Export/ }).click();
    await page.getByRole("button", { name: /^Export ./ }).click();
    await expect(page.getByText(/270 × 480 · 79 frames at 30 fps/)).toBeVisible({ timeout: LONG_WORK });
    await page.getByRole("button", { name: "Close" }).click();
  });

  await test.step("cuts are taken along, compared with a list, and brought in", async () => {
    await page.getByRole("button", { name: "Cuts: sensitivity, import and export" }).click();
    const downloading = page.waitForEvent("download");
    await page.getByRole("link", { name: "EDL" }).click();
    const edl = join(server.data, "cuts.edl");
    await (await downloading).saveAs(edl);
    expect(readFileSync(edl, "utf8")).toContain("00:00:01:15 00:00:03:09 00:00:01:15 00:00:03:09");
    const wrong = join(server.data, "wrong.csv");
    writeFileSync(wrong, "start_frame\n0\n400\n");
    await page.getByLabel("List of cuts").setInputFiles(wrong);
    await expect(page.getByRole("alert")).toContainText("beyond the film's 99 frames");
    const list = join(server.data, "list.csv");
    writeFileSync(list, "start_frame\n0\n45\n70\n");
    await page.getByLabel("List of cuts").setInputFiles(list);
    await expect(page.getByText("1 cut is the same")).toBeVisible();
    await expect(page.getByText("1 only in the list")).toBeVisible();
    await page.getByRole("button", { name: "Use these cuts" }).click();
    await goTo(page, 70);
    await expect(page.getByRole("heading", { name: "Shot 3" })).toBeVisible();
  });

  await test.step("sensitivity decides again, and everything can be taken back after a restart", async () => {
    await page.getByRole("button", { name: "Cuts: sensitivity, import and export" }).click();
    await page.getByRole("slider").press("End");
    await expect(page.getByText(/100 · 2 shots now/)).toBeVisible();
    await page.keyboard.press("Escape");
    await server.kill();
    await server.start();
    await page.goto(server.url);
    await page.getByRole("link", { name: "Open two-shots.mp4" }).click();
    await expect(rows(page)).toHaveCount(2);
    await page.getByRole("button", { name: /^Undo: Set the cut sensitivity/ }).click();
    await expect(rows(page)).toHaveCount(3);
  });
  expect(problems).toEqual([]);
});
