import { expect, type Page, test } from "@playwright/test";
import { EVERY_TEST } from "../support/every-test";
import { measure } from "../support/measure";
import { renderVersion } from "../support/render-version";
import { serverWith } from "../support/prepared";
import { goTo, openTwoShots, rows, timecode } from "../support/desk";
import { LONG_WORK } from "../support/server";

const server = serverWith("two-shots");
test.beforeAll(() => server.start());
test.afterAll(() => server.dispose());

const versions = (page: Page) => page.getByRole("navigation", { name: "Versions" }).getByRole("link");
const length = (page: Page) => page.getByRole("button", { name: "Length of the version" });
const undo = (page: Page) => page.keyboard.press("Control+z");

test("versions are made in any shape, changed, duplicated, trimmed, removed, and each step is undone", async ({
  page,
}) => {
  const problems: string[] = [];
  page.on("pageerror", (error) => problems.push(error.message));
  await openTwoShots(page, server);

  await test.step("a size is typed in, with the ratio locked and free, and swapped", async () => {
    await page.getByRole("button", { name: "Add a version" }).click();
    const dialog = page.getByRole("dialog", { name: "New version" });
    await expect(dialog.getByRole("note")).toContainText("scale 267%");
    await dialog.getByRole("radio", { name: "Wide 16:9" }).click();
    await dialog.getByRole("button", { name: "1280 × 720" }).click();
    await expect(dialog.getByRole("note")).toContainText("scale 100%");
    await dialog.getByLabel("Width (px)").fill("640");
    await dialog.getByLabel("Width (px)").press("Enter");
    await expect(dialog.getByLabel("Height (px)")).toHaveValue("360");
    await dialog.getByRole("button", { name: /^The ratio is locked/ }).click();
    await dialog.getByLabel("Height (px)").fill("500");
    await dialog.getByLabel("Height (px)").press("Enter");
    await dialog.getByRole("button", { name: "Swap width and height" }).click();
    await expect(dialog.getByLabel("Width (px)")).toHaveValue("500");
    await expect(dialog.getByLabel("Name")).toHaveValue("500 × 640");
    await dialog.getByLabel("Name").fill("Poster");
    await dialog.getByRole("button", { name: "Add version" }).click();
    await expect(versions(page)).toHaveText(["Vertical 9:16", "Poster"]);
    await expect(page.getByRole("img", { name: "What “Poster” shows" })).toBeVisible();
  });

  await test.step("it is changed, duplicated with its keyframes, and removed", async () => {
    await goTo(page, 20);
    await page.keyboard.press("a");
    await expect(rows(page).first()).toContainText("● 1");
    await page.getByRole("button", { name: "More for Poster" }).click();
    await page.getByRole("menuitem", { name: "Settings" }).click();
    await page.getByRole("dialog").getByRole("radio", { name: "Square 1:1" }).click();
    await page.getByRole("button", { name: "Save" }).click();
    await page.getByRole("button", { name: "More for Poster" }).click();
    await page.getByRole("menuitem", { name: "Duplicate" }).click();
    await expect(versions(page)).toHaveText(["Vertical 9:16", "Poster", "Poster, copy"]);
    await expect(rows(page).first()).toContainText("● 1");
    await page.getByRole("button", { name: "More for Poster, copy" }).click();
    await page.getByRole("menuitem", { name: "Remove" }).click();
    await expect(versions(page)).toHaveCount(2);
    await undo(page);
    await expect(versions(page)).toHaveText(["Vertical 9:16", "Poster", "Poster, copy"]);
    await undo(page);
    await expect(versions(page)).toHaveCount(2);
    await undo(page);
    await versions(page).last().click();
    await expect(page.getByRole("button", { name: "More for Poster" })).toBeVisible();
    await page.getByRole("button", { name: /^Export/ }).click();
    await expect(page.getByRole("dialog")).toContainText("500 × 640");
    await page.getByRole("button", { name: "Close" }).click();
  });

  await test.step("in and out points, and a range that is left out", async () => {
    await versions(page).first().click();
    await expect(length(page)).toContainText("00:00:03:09");
    await goTo(page, 10);
    await page.keyboard.press("i");
    await expect(length(page)).toContainText("00:00:02:29");
    await goTo(page, 79);
    await page.keyboard.press("o");
    await expect(length(page)).toContainText("00:00:02:10");
    await goTo(page, 20);
    await page.keyboard.press(",");
    await goTo(page, 34);
    await page.keyboard.press(".");
    await page.getByRole("group", { name: "Range" }).getByRole("button", { name: "Leave out this range" }).click();
    await expect(length(page)).toContainText("00:00:01:25");
    await expect(rows(page).first().getByLabel("Partly left out")).toBeVisible();
    // What a drop makes is a cut.
    await goTo(page, 15);
    await page.keyboard.press("PageDown");
    await expect(timecode(page)).toHaveValue("00:00:01:05");
  });

  await test.step("playback passes over what is left out, and ends at the out point", async () => {
    await goTo(page, 12);
    await page.keyboard.press("Space");
    await expect(page.getByRole("button", { name: "Play" })).toBeVisible({ timeout: 30_000 });
    await expect(timecode(page)).toHaveValue("00:00:02:19");
  });

  await test.step("a limit is a warning, and every step is undone", async () => {
    await length(page).click();
    await page.getByRole("combobox", { name: "Length limit" }).click();
    await page.getByRole("option", { name: "Another length" }).click();
    await page.getByLabel("At most (seconds)").fill("1");
    await page.getByLabel("At most (seconds)").press("Enter");
    await expect(length(page)).toContainText("0.8 s too long");
    await page.getByRole("button", { name: "Bring back 00:00:00:20" }).click();
    await expect(length(page)).toContainText("1.3 s too long");
    await page.getByRole("dialog").getByRole("button", { name: "Close" }).click();
    await undo(page);
    await expect(length(page)).toContainText("0.8 s too long");
  });

  await test.step("the file holds what is kept, and nothing else", async () => {
    const file = await renderVersion(page, "Vertical 9:16", server.data);
    expect(measure(file)).toMatchObject({ size: [270, 480], frames: 55, sounds: 1 });
  });

  await test.step("whole shots, the range and both points come back", async () => {
    for (const shown of ["00:00:01:25", "00:00:02:10", "00:00:02:29", "00:00:03:09"]) {
      await undo(page);
      await expect(length(page)).toContainText(shown);
    }
  });

  expect(problems).toEqual([]);
});

// Only here is a dialog seen to offer a wide size for a film that is upright.
(EVERY_TEST ? test : test.skip)("a vertical film fills a wide version", async ({ page }) => {
  await page.goto(server.url);
  await page.getByLabel("Film files").setInputFiles("tests/fixtures/upright-25.mp4");
  await expect(page.getByRole("listitem").filter({ hasText: "upright-25" })).toContainText("1 shot found", {
    timeout: LONG_WORK,
  });
  await page.getByRole("link", { name: "Open upright-25.mp4" }).click();
  await expect(rows(page)).toHaveCount(1);
  await page.getByRole("button", { name: "Add a version" }).click();
  await page.getByRole("radio", { name: "Cinema 21:9" }).click();
  await page.getByLabel("Width (px)").fill("420");
  await page.getByLabel("Width (px)").press("Enter");
  await page.getByRole("button", { name: "Add version" }).click();
  const file = await renderVersion(page, "Cinema 21:9", server.data);
  expect(measure(file)).toMatchObject({ size: [420, 180], frames: 50 });
});
