/** Only here are clips arranged from the desk; that the file has them frame by frame is tried in app/library/clips. */
import { join } from "node:path";
import { expect, type Page, test } from "@playwright/test";
import { goTo } from "../support/desk";
import { measure } from "../support/measure";
import { LONG_WORK, TestServer } from "../support/server";
import { moveUp } from "../support/sortable";

const server = new TestServer();
test.beforeAll(() => server.start());
test.afterAll(() => server.dispose());

const clips = (page: Page) => page.getByRole("list", { name: "Clips in order" }).getByRole("listitem");
const rows = (page: Page) => page.getByRole("listbox", { name: "Shots" }).getByRole("option");
const undo = (page: Page) => page.getByRole("button", { name: /^Undo:/ });
const length = (page: Page) => page.getByRole("button", { name: "Length of the version" });

async function prepared(page: Page): Promise<void> {
  await expect(page.getByText("Preparing the clips")).toBeHidden({ timeout: LONG_WORK });
  await expect(page.getByText("Clips: waiting")).toBeHidden({ timeout: LONG_WORK });
  await expect(page.getByRole("button", { name: /^Cancel: (Looking for shots|Analysis)/ })).toBeHidden({
    timeout: LONG_WORK,
  });
}

async function arrange(page: Page): Promise<void> {
  await page.getByRole("button", { name: "Arrange", exact: true }).click();
  await expect(page.getByRole("button", { name: "Arrange", exact: true })).toBeHidden({ timeout: LONG_WORK });
}

test("several clips become one film, and are moved, trimmed, added and taken out with their work", async ({ page }) => {
  const problems: string[] = [];
  page.on("pageerror", (error) => problems.push(error.message));
  await page.goto(server.url);
  const space = page.waitForResponse(/\/space/);
  await page
    .getByLabel("Film files")
    .setInputFiles(["two-shots.mp4", "upright-25.mp4"].map((name) => `tests/fixtures/${name}`));
  await space;
  await expect(page.getByRole("link", { name: "Open upright-25.mp4" })).toBeVisible();
  await expect(page.getByRole("link", { name: "Open two-shots.mp4" })).toBeVisible();

  await test.step("two films are joined, and stay in the library", async () => {
    await page.getByRole("button", { name: "More for two-shots.mp4" }).click();
    await page.getByRole("menuitem", { name: "Join with other films" }).click();
    const dialog = page.getByRole("dialog", { name: "Join films" });
    await expect(dialog.getByRole("button", { name: "Join", exact: true })).toBeDisabled();
    await dialog.getByRole("checkbox", { name: "upright-25.mp4" }).click();
    await dialog.getByRole("textbox", { name: "Name" }).fill("A day out");
    await dialog.getByRole("button", { name: "Join 2 films" }).click();
    await expect(page.getByRole("button", { name: "Open", exact: true })).toBeVisible();
    server.makeVersionsSmall();
    await page.getByRole("button", { name: "Open", exact: true }).click();
    await expect(page.getByRole("heading", { name: "A day out" })).toBeVisible();
    await prepared(page);
    await expect(rows(page)).toHaveCount(3);
    await expect(rows(page).last()).toContainText("upright-25.mp4");
    await expect(length(page)).toContainText("00:00:05:09");
  });

  await test.step("a keyframe is set in the first, which is trimmed", async () => {
    await goTo(page, 60);
    await page.getByLabel("Centre x (px)").fill("160");
    await page.getByLabel("Centre x (px)").press("Enter");
    await expect(rows(page).nth(1)).toContainText("● 1");
    await page.getByRole("button", { name: "Clips", exact: true }).click();
    await expect(clips(page)).toHaveCount(2);
    await goTo(page, 20);
    await clips(page).first().getByRole("button", { name: "Begin the clip at the playhead" }).click();
    await expect(length(page)).toContainText("00:00:04:19");
    await expect(undo(page)).toHaveAccessibleName("Undo: Set the in and out points of clip 1");
  });

  await test.step("they change places, by keyboard, and the keyframe goes along", async () => {
    await moveUp(page, page.getByRole("button", { name: "Move upright-25.mp4", exact: true }), 2, 1);
    await expect(clips(page).first()).toContainText("upright-25.mp4");
    await arrange(page);
    await expect(rows(page).first()).toContainText("upright-25.mp4");
    await expect(rows(page).nth(2)).toContainText("● 1");
    await expect(length(page)).toContainText("00:00:04:19");
    await expect(undo(page)).toHaveAccessibleName("Undo: Arranged the clips");
    await prepared(page);
    await page.getByRole("button", { name: "Close" }).click();
  });

  await test.step("what is rendered is all of them that is shown, without bars", async () => {
    await page.getByRole("button", { name: /^Export/ }).click();
    await page
      .getByRole("dialog")
      .getByRole("button", { name: /^Export ./ })
      .click();
    await expect(page.getByRole("link", { name: "Download" })).toBeVisible({ timeout: LONG_WORK });
    const download = page.waitForEvent("download");
    await page.getByRole("link", { name: "Download" }).click();
    const file = join(server.data, "clips.mp4");
    await (await download).saveAs(file);
    expect(measure(file)).toMatchObject({ size: [270, 480], frames: 139 });
    await page.getByRole("button", { name: "Close" }).click();
  });

  await test.step("one is taken out and another added, and each step is undone", async () => {
    await page.getByRole("button", { name: "Clips", exact: true }).click();
    await page.getByRole("button", { name: "Remove upright-25.mp4" }).click();
    await arrange(page);
    await expect(clips(page)).toHaveCount(1);
    await page.getByRole("button", { name: "Add clips" }).click();
    await page.getByRole("checkbox", { name: "upright-25.mp4" }).click();
    await page.getByRole("button", { name: "Add 1 clip" }).click();
    await expect(clips(page)).toHaveCount(2);
    await arrange(page);
    await expect(rows(page).nth(1)).toContainText("● 1", { timeout: LONG_WORK });
    await expect(length(page)).toContainText("00:00:04:19");
    for (const [text, count] of [
      ["00:00:02:19", 1],
      ["00:00:04:19", 2],
      ["00:00:04:19", 2],
    ] as const) {
      await expect(undo(page)).toHaveAccessibleName("Undo: Arranged the clips");
      await undo(page).click();
      await expect(length(page)).toContainText(text);
      await expect(clips(page)).toHaveCount(count);
    }
    await expect(clips(page).first()).toContainText("two-shots.mp4");
    await undo(page).click();
    await expect(length(page)).toContainText("00:00:05:09");
  });

  expect(problems).toEqual([]);
});
