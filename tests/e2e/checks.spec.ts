/** Flags: their page, what counts, what was seen, and the way from one to the next. */
import { readFileSync } from "node:fs";
import { expect, type Page, test } from "@playwright/test";
import { openTwoShots } from "../support/desk";
import { serverWith } from "../support/prepared";

const server = serverWith("two-shots");
test.beforeAll(() => server.start());
test.afterAll(() => server.dispose());

const open = (page: Page) => page.getByRole("button", { name: /^Flags/ }).click();
const table = (page: Page) => page.getByRole("table", { name: "Flags" });
const rows = (page: Page) =>
  table(page)
    .getByRole("row")
    .filter({ has: page.getByRole("checkbox") });
const seen = () =>
  JSON.parse(
    server.query<{ reviewed_flags: string }>("SELECT reviewed_flags FROM versions")[0]!.reviewed_flags,
  ) as string[];
const playhead = (page: Page) => page.getByLabel(/^Timecode/);

test("every range is a row, is gone to, is marked as reviewed until something in it changes, and is saved as a list", async ({
  page,
}) => {
  await openTwoShots(page, server);

  await test.step("a window beside its subject is told, with how long", async () => {
    // The first shot's window is put to the right edge, where nobody is.
    await page.keyboard.press("a");
    const x = page.getByRole("textbox", { name: /^x at/ }).first();
    await page.getByRole("radio", { name: "Keyframes" }).click();
    await x.fill("1070");
    await x.press("Enter");
    await open(page);
    await expect(rows(page).filter({ hasText: /Face cut off for \d\.\d s/ })).toHaveCount(1);
    await expect(page.getByText(/flags? left to review/)).toBeVisible();
  });

  await test.step("it has a picture of the film with the window, and one of the version", async () => {
    const row = rows(page).filter({ hasText: "Face cut off" });
    await expect(row.getByRole("img", { name: /^Film at/ })).toBeVisible();
    await expect(row.getByRole("img", { name: /^Version at/ })).toBeVisible();
    const pictures = await row.getByRole("img").evaluateAll((all) => all.map((each) => (each as HTMLImageElement).src));
    expect(new Set(pictures).size).toBe(2);
  });

  await test.step("it is gone to on the desk, and the next follows by a key", async () => {
    await rows(page)
      .filter({ hasText: "Face cut off" })
      .getByRole("button", { name: /^Face cut off/ })
      .click();
    await expect(table(page)).toBeHidden();
    const current = page.getByRole("list", { name: "Flags" });
    await expect(current).toContainText("Face cut off");
    await page.keyboard.press("v");
    await expect(table(page)).toBeVisible();
    await page.keyboard.press("Escape");
    await expect(table(page)).toBeHidden();
  });

  await test.step("marked as seen it is counted no more, also after a reload, and undone like any change", async () => {
    await open(page);
    const before = await rows(page).count();
    await rows(page).filter({ hasText: "Face cut off" }).getByRole("checkbox").click();
    await expect(rows(page)).toHaveCount(before - 1);
    await expect.poll(seen).toHaveLength(1);
    await page.reload();
    await open(page);
    await expect(rows(page)).toHaveCount(before - 1);
    await page.getByLabel("Show reviewed").click();
    await expect(rows(page)).toHaveCount(before);
    await page.getByRole("button", { name: /^Undo: Changed which flags/ }).click();
    await expect.poll(seen).toEqual([]);
    await page.getByRole("button", { name: /^Redo/ }).click();
    await expect.poll(seen).toHaveLength(1);
  });

  await test.step("when the window moves in that range it is to be seen again", async () => {
    await page.getByRole("button", { name: "Back to the desk" }).click();
    await page.getByRole("radio", { name: "Keyframes" }).click();
    const x = page.getByRole("textbox", { name: /^x at/ }).first();
    await x.fill("1000");
    await x.press("Enter");
    await open(page);
    await page.getByLabel("Show reviewed").click();
    await expect(rows(page).filter({ hasText: "Face cut off" })).toHaveCount(1);
  });

  await test.step("what counts is set for the version", async () => {
    await page.getByRole("button", { name: "Thresholds" }).click();
    const cut = page.getByRole("textbox", { name: /^Cut off for/ });
    await cut.fill("20");
    await cut.press("Enter");
    await expect(rows(page).filter({ hasText: "Face cut off" })).toHaveCount(0);
    await page.getByRole("button", { name: "Reset to defaults" }).click();
    await expect(rows(page).filter({ hasText: "Face cut off" })).toHaveCount(1);
  });

  await test.step("the list is saved as CSV and JSON, and a contact sheet as PNG and PDF", async () => {
    const saved = async (name: RegExp) => {
      const downloading = page.waitForEvent("download");
      await page.getByRole("button", { name: "Save", exact: true }).click();
      await page.getByRole("menuitem", { name }).click();
      return readFileSync(await (await downloading).path());
    };
    expect((await saved(/CSV/)).toString()).toMatch(/^shot,kind,.*\n(.*\n)*1,subject-cut,/);
    const list = JSON.parse((await saved(/As JSON/)).toString()) as { flags: { kind: string; reviewed: boolean }[] };
    expect(list.flags).toContainEqual(expect.objectContaining({ kind: "subject-cut", reviewed: false }));
    expect((await saved(/PNG/)).subarray(1, 4).toString()).toBe("PNG");
    expect((await saved(/PDF/)).subarray(0, 5).toString()).toBe("%PDF-");
  });

  await test.step("a range that is dragged over in a chart is gone to", async () => {
    const chart = page.getByRole("figure").filter({ hasText: "Subject inside" });
    await chart.scrollIntoViewIfNeeded();
    const box = (await chart.boundingBox())!;
    await page.mouse.move(box.x + 0.6 * box.width, box.y + 0.6 * box.height);
    await page.mouse.down();
    await page.mouse.move(box.x + 0.7 * box.width, box.y + 0.6 * box.height, { steps: 5 });
    await page.mouse.move(box.x + 0.8 * box.width, box.y + 0.6 * box.height, { steps: 5 });
    await page.mouse.up();
    await expect(table(page)).toBeHidden();
    await expect(playhead(page)).toHaveValue(/00:00:0[12]:/);
  });
});
