/** Exports: several versions in one go, the queue, what is done with the files, and what a change costs. */
import { existsSync, mkdirSync, readdirSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { expect, type Page, test } from "@playwright/test";
import { openTwoShots } from "../support/desk";
import { EVERY_TEST } from "../support/every-test";
import { measure } from "../support/measure";
import { serverWith } from "../support/prepared";
import { LONG_WORK } from "../support/server";
import { moveUp } from "../support/sortable";

const server = serverWith("two-shots");
const out = join(server.data, "delivered");
test.beforeAll(async () => {
  mkdirSync(out);
  writeFileSync(join(out, "two-shots Square 1-1.mp4"), "somebody else's");
  await server.start({ GLAD_PAN_OUT: out });
});
test.afterAll(() => server.dispose());

interface Job {
  state: string;
  payload: string;
  result: string | null;
}
const renders = () =>
  server.query<Job>("SELECT state, payload, result FROM jobs WHERE kind = 'render' ORDER BY rowid").map((job) => ({
    state: job.state,
    fileName: (JSON.parse(job.payload) as { fileName: string }).fileName,
    result: job.result === null ? null : (JSON.parse(job.result) as { made: number; parts: number }),
  }));
const dialog = (page: Page) => page.getByRole("dialog", { name: "Export", exact: true });
const version = (page: Page, name: string) =>
  dialog(page).getByRole("list", { name: "Versions" }).getByRole("listitem").filter({ hasText: name });
const openExport = (page: Page) => page.getByRole("button", { name: /^Export/ }).click();

async function addVersion(page: Page, shape: RegExp, width: string): Promise<void> {
  await page.getByRole("button", { name: "Add a version" }).click();
  await page.getByRole("radio", { name: shape }).click();
  await page.getByLabel("Width (px)").fill(width);
  await page.getByLabel("Width (px)").press("Enter");
  await page.getByRole("button", { name: "Add version", exact: true }).click();
}

async function selectItem(page: Page, menu: string, option: RegExp): Promise<void> {
  await page.getByRole("combobox", { name: menu, exact: true }).click();
  await page.getByRole("option", { name: option }).click();
}

// Only this finds a button of the queue that does not do what the queue, which has its own tests, can do.
(EVERY_TEST ? test : test.skip)(
  "three versions in one go, each as it is set; one is cancelled, done again, paused and put first",
  async ({ page }) => {
    await openTwoShots(page, server);
    await addVersion(page, /Square/, "256");
    await addVersion(page, /Portrait|4:5/, "256");

    await test.step("settings are each version's own, and names follow a pattern", async () => {
      await openExport(page);
      for (const name of ["Vertical 9:16", "Square 1:1", "Portrait 4:5"]) {
        await version(page, name).getByRole("checkbox").first().check();
      }
      await version(page, "Square 1:1")
        .getByRole("button", { name: /^Settings:/ })
        .click();
      await selectItem(page, "Save to", /delivered/);
      await page.getByRole("radio", { name: "Small" }).click();
      await expect(version(page, "Square 1:1")).toContainText("Settings: MP4 (H.264), small");
      await page.getByRole("textbox", { name: "File name" }).fill("{film} {version}");
      await expect(dialog(page)).toContainText("“two-shots Vertical 9-16.mp4”");
      await dialog(page).getByRole("button", { name: "Export 3 versions" }).click();
      await expect.poll(() => renders().length).toBe(3);
    });

    await test.step("on the page of all exports one is paused, another put before it, and one cancelled", async () => {
      await dialog(page).getByRole("link", { name: "All exports" }).click();
      const queue = page.getByRole("region", { name: "In the queue" });
      const names = () => queue.locator("li").allInnerTexts();
      await expect(queue.getByRole("button", { name: "Pause all" })).toBeVisible();
      await queue.getByRole("button", { name: "Pause all" }).click();
      await expect(queue.getByRole("button", { name: "Resume all" })).toBeVisible({ timeout: LONG_WORK });
      await expect.poll(() => renders().map(({ state }) => state)).toEqual(["queued", "queued", "queued"]);
      // The last one is moved to the top by keyboard.
      const grips = queue.getByRole("button", { name: /^Move / });
      await expect(grips).toHaveCount(3);
      await moveUp(page, grips.nth(2), 3, 1);
      await expect.poll(async () => (await names())[0]).toContain("Portrait");
      await queue.locator("li").filter({ hasText: "Vertical" }).getByRole("button", { name: "Cancel" }).click();
      await expect.poll(() => renders().map(({ state }) => state)).toContain("cancelled");
      await queue.getByRole("button", { name: "Resume all" }).click();
      const files = page.getByRole("region", { name: "Files" });
      await files.locator("li").filter({ hasText: "Vertical" }).getByRole("button", { name: "Render again" }).click();
      await expect(files.getByRole("link", { name: "Download" })).toHaveCount(3, { timeout: LONG_WORK });
    });

    await test.step("each file is what was asked for, and nothing is overwritten", async () => {
      const ready = renders();
      expect(ready.every(({ state }) => state === "done")).toBe(true);
      expect(readdirSync(out).sort()).toEqual(["two-shots Square 1-1 (2).mp4", "two-shots Square 1-1.mp4"]);
      expect(measure(join(out, "two-shots Square 1-1 (2).mp4"))).toMatchObject({ size: [256, 256], frames: 99 });
      const [film] = readdirSync(join(server.data, "films"));
      const exports = join(server.data, "films", film!, "exports");
      expect(readdirSync(exports)).toHaveLength(2);
      expect(measure(join(exports, "two-shots Vertical 9-16.mp4"))).toMatchObject({ size: [270, 480], frames: 99 });
      await page.getByText("What was checked").first().click();
      await expect(page.getByText(/frames show what the desk shows/).first()).toBeVisible();
    });

    await test.step("after a change the file is told to be older, and another takes only the shot that has changed", async () => {
      await page.getByRole("link", { name: /two-shots.mp4 · Vertical/ }).click();
      await page.getByRole("radio", { name: "Keyframes" }).click();
      await page.keyboard.press("a");
      await expect.poll(() => server.query("SELECT 1 FROM hand_keys")).toHaveLength(1);
      await page.getByRole("textbox", { name: /^x at/ }).first().fill("500");
      await page.keyboard.press("Enter");
      await openExport(page);
      const files = dialog(page).getByRole("list", { name: "Files of this film" });
      const old = files.locator(":scope > li").filter({ hasText: "Vertical 9-16.mp4" });
      await expect(old).toContainText("Changed since");
      await expect(files.locator(":scope > li").filter({ hasText: "Square" })).not.toContainText("Changed since");
      await old.getByRole("button", { name: "Export again" }).click();
      await expect(files.getByRole("link", { name: "Download" })).toHaveCount(4, { timeout: LONG_WORK });
      expect(renders().at(-1)!.fileName).toBe("two-shots 270x480.mp4");
    });

    await test.step("a file is deleted", async () => {
      await page.goto(`${server.url}/exports`);
      await page.getByRole("button", { name: "Delete two-shots Square 1-1 (2).mp4" }).click();
      await expect.poll(() => existsSync(join(out, "two-shots Square 1-1 (2).mp4"))).toBe(false);
      expect(existsSync(join(out, "two-shots Square 1-1.mp4"))).toBe(true);
      await expect(page.getByText("two-shots Square 1-1 (2).mp4", { exact: true })).toHaveCount(0);
    });
  },
);

test("versions of films in one go, from the page of exports", async ({ page }) => {
  await openTwoShots(page, server);
  const before = renders().length;
  await page.goto(`${server.url}/exports`);
  await page.getByRole("button", { name: "Export films" }).click();
  const films = page.getByRole("dialog", { name: "Export films" });
  await films.getByLabel(/^Vertical 9:16/).check();
  await films.getByRole("button", { name: "Export 1 version" }).click();
  await expect.poll(() => renders().length).toBe(before + 1);
  await expect(page.getByText(renders().at(-1)!.fileName, { exact: true })).toBeVisible();
});
