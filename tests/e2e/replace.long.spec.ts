/** Only here is a film replaced from its desk; what becomes of its work is tried in app/library/replace. */
import { execFileSync } from "node:child_process";
import { join } from "node:path";
import { expect, type Page, test } from "@playwright/test";
import { goTo } from "../support/desk";
import { LONG_WORK, TestServer } from "../support/server";

const server = new TestServer();
test.beforeAll(() => server.start());
test.afterAll(() => server.dispose());

const rows = (page: Page) => page.getByRole("listbox", { name: "Shots" }).getByRole("option");

async function home(page: Page): Promise<void> {
  const ready = page.waitForResponse(/\/space/);
  await page.goto(server.url);
  await ready;
}

async function selectItem(page: Page, item: string): Promise<void> {
  await page.getByRole("button", { name: "More for two-shots.mp4", exact: true }).click();
  await page.getByRole("menuitem", { name: item, exact: true }).click();
}

test("a new export takes a film's place with all work on it, and the earlier file is put back in one step", async ({
  page,
}) => {
  const problems: string[] = [];
  page.on("pageerror", (error) => problems.push(error.message));
  await home(page);
  await page.getByLabel("Film files").setInputFiles("tests/fixtures/two-shots.mp4");
  await expect(page.getByText("2 shots found")).toBeVisible({ timeout: LONG_WORK });

  await test.step("a keyframe and a name are set", async () => {
    await page.getByRole("link", { name: "Open two-shots.mp4" }).click();
    await expect(rows(page)).toHaveCount(2);
    await goTo(page, 70);
    await page.getByLabel("Name of the shot").fill("The run");
    await page.keyboard.press("Enter");
    await page.getByLabel("Centre x (px)").fill("140");
    await page.getByLabel("Centre x (px)").press("Enter");
    await expect(rows(page).nth(1)).toContainText("● 1");
  });

  await test.step("the editor is shown what matches before anything happens", async () => {
    // The second half of the first shot, after half a second of black.
    const graph =
      "[0:v]trim=start_frame=20,setpts=PTS-STARTPTS[film];" +
      "color=black:s=320x180:r=30,trim=end_frame=15,format=yuv420p[head];[head][film]concat=n=2:v=1[out]";
    const file = join(server.data, "new cut.mp4");
    const args = [
      "-y",
      "-v",
      "error",
      "-i",
      "tests/fixtures/two-shots.mp4",
      "-filter_complex",
      graph,
      "-map",
      "[out]",
      file,
    ];
    execFileSync("ffmpeg", args);
    await home(page);
    await selectItem(page, "Replace its file");
    const dialog = page.getByRole("dialog", { name: "Replace the file of two-shots.mp4" });
    await dialog.getByLabel("New export").setInputFiles("package.json");
    await expect(dialog.getByRole("alert")).toContainText("package.json");
    await dialog.getByLabel("New export").setInputFiles(file);
    await expect(dialog).toContainText("1 of 2 shots are the same.", { timeout: LONG_WORK });
    await expect(dialog).toContainText("0.5 s of it is new.");
    await expect(dialog.getByRole("region", { name: "Shots to review" })).toContainText("56% of it is there");
    await dialog.getByRole("button", { name: "Replace the file" }).click();
  });

  await test.step("the work is where its frames are", async () => {
    await page.getByRole("link", { name: "Open two-shots.mp4" }).click();
    await expect(rows(page).filter({ hasText: "The run" })).toContainText("● 1");
    await expect(rows(page).filter({ hasText: "not analysed" })).toHaveCount(0, { timeout: LONG_WORK });
    await goTo(page, 65);
    await expect(page.getByLabel("Centre x (px)")).toHaveValue("140");
    // The film is as long as the new file; in a narrow window this is not shown.
    await expect(page.getByText("of 00:00:03:04")).toBeAttached();
  });

  await test.step("the earlier file is back, with the history of then", async () => {
    await page.keyboard.press("Control+z");
    await expect(page.getByText("of 00:00:03:09")).toBeAttached();
    await expect(rows(page)).toHaveCount(2);
    await expect(rows(page).nth(1)).toContainText("● 1");
    await page.keyboard.press("Control+z");
    await expect(rows(page).filter({ hasText: "●" })).toHaveCount(0);
  });

  expect(problems).toEqual([]);
});
