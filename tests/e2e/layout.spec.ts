import { execFileSync } from "node:child_process";
import { join } from "node:path";
import { expect, type Page, test } from "@playwright/test";
import { LONG_WORK, TestServer } from "../support/server";

const server = new TestServer();
test.beforeAll(() => server.start());
test.afterAll(() => server.dispose());

const rows = (page: Page) => page.getByRole("listbox", { name: "Shots" }).getByRole("option");
const looks = (page: Page) => page.getByRole("list", { name: "Worth a second look" });
const layout = (page: Page, name: string) => page.getByRole("radio", { name, exact: true });

/** Red, green and blue of the result, at a place in shares of it. */
const resultAt = (page: Page, x: number, y: number) =>
  page.getByRole("img", { name: /shows$/ }).evaluate(
    (canvas: HTMLCanvasElement, [across, down]) => {
      const place = [Math.floor(across! * canvas.width), Math.floor(down! * canvas.height)] as const;
      return [...canvas.getContext("2d")!.getImageData(...place, 1, 1).data].slice(0, 3);
    },
    [x, y],
  );

/** The same of a frame of a file. */
function fileAt(file: string, x: number, y: number): number[] {
  const crop = `crop=2:2:${x}:${y},scale=1:1`;
  const args = ["-v", "error", "-ss", "1", "-i", file, "-frames:v", "1", "-vf", crop, "-pix_fmt", "rgb24"];
  return [...execFileSync("ffmpeg", [...args, "-f", "rawvideo", "-"])];
}

const isNear = (a: readonly number[], b: readonly number[]) => a.every((value, i) => Math.abs(value - b[i]!) <= 6);

test("a title that does not fit is shown whole, before a backdrop, on the desk as in the file", async ({ page }) => {
  const film = join(server.data, "kite title.mp4");
  // The title and some of the shot after it.
  execFileSync("ffmpeg", ["-v", "error", "-i", "demo/ferrow-kite-day.mp4", "-t", "4", "-c", "copy", film]);
  await page.goto(server.url);
  await page.getByLabel("Film files").setInputFiles(film);
  await page.getByRole("link", { name: "Open kite title.mp4" }).click();
  await expect.poll(() => rows(page).count(), { timeout: LONG_WORK }).toBe(2);
  await expect(looks(page)).toContainText("Text cut off", { timeout: LONG_WORK });

  await looks(page).getByRole("button", { name: "Show it whole" }).click();
  // Neither is it uncertain whom to follow where all is shown.
  await expect(looks(page)).toHaveCount(0);
  await expect(layout(page, "Whole")).toBeChecked();
  await expect(page.getByText("100 % of it, 0.56 × its size")).toBeVisible();

  const backdrop = page.getByRole("combobox", { name: "Backdrop" });
  await backdrop.click();
  await page.getByRole("option", { name: "One colour" }).click();
  await expect.poll(() => resultAt(page, 0.1, 0.1)).toEqual([0x20, 0x24, 0x2c]);
  expect(isNear(await resultAt(page, 0.5, 0.4), [0x20, 0x24, 0x2c])).toBe(false);

  const place = page.getByRole("slider", { name: "Place" });
  await place.press("Home");
  await expect.poll(async () => isNear(await resultAt(page, 0.1, 0.1), [0x20, 0x24, 0x2c])).toBe(false);
  await page.keyboard.press("Control+z");
  await expect.poll(() => resultAt(page, 0.1, 0.1)).toEqual([0x20, 0x24, 0x2c]);

  // On the result itself: dragged to its foot, where it snaps, and up by a key.
  const pane = page.getByRole("button", { name: /^Picture in the frame/ });
  const box = (await pane.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2 + 60, { steps: 4 });
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2 + 118, { steps: 4 });
  await page.mouse.up();
  await expect(pane).toHaveAccessibleName("Picture in the frame, 100 % of the way");
  await expect.poll(async () => isNear(await resultAt(page, 0.5, 0.9), [0x20, 0x24, 0x2c])).toBe(false);
  await pane.press("ArrowUp");
  await expect(pane).toHaveAccessibleName("Picture in the frame, 98 % of the way");
  await page.keyboard.press("Control+z");
  await page.keyboard.press("Control+z");
  await expect(pane).toHaveAccessibleName("Picture in the frame, 50 % of the way");

  await page.getByRole("button", { name: /^Export/ }).click();
  const dialog = page.getByRole("dialog", { name: "Export" });
  await dialog.getByRole("button", { name: "Render" }).first().click();
  const link = dialog.getByRole("link", { name: "Download" }).first();
  await expect(link).toBeVisible({ timeout: LONG_WORK });
  const download = page.waitForEvent("download");
  await link.click();
  const file = join(server.data, (await download).suggestedFilename());
  await (await download).saveAs(file);
  expect(isNear(fileAt(file, 100, 100), [0x20, 0x24, 0x2c])).toBe(true);
  expect(isNear(fileAt(file, 100, 1800), [0x20, 0x24, 0x2c])).toBe(true);
  expect(isNear(fileAt(file, 540, 700), [0x20, 0x24, 0x2c])).toBe(false);
  await dialog.getByRole("button", { name: "Close" }).click();

  // A layout goes to another version; that the first one fills its frame again does not change it there.
  await page.getByRole("button", { name: "Add a version" }).click();
  await page.getByRole("dialog").getByRole("radio", { name: "Square 1:1" }).click();
  await page.getByRole("dialog").getByRole("button", { name: "Add version" }).click();
  await expect(layout(page, "Fill")).toBeChecked();
  const versions = page.getByRole("navigation", { name: "Versions" });
  await versions.getByRole("link", { name: "Vertical 9:16" }).click();
  await expect(layout(page, "Whole")).toBeChecked();
  await page.getByRole("button", { name: "Copy this layout to the other versions" }).click();
  await layout(page, "Fill").click();
  await expect(looks(page)).toContainText("Text cut off");
  await versions.getByRole("link", { name: "Square 1:1" }).click();
  await expect(layout(page, "Whole")).toBeChecked();
  await expect(page.getByText("100 % of it, 0.56 × its size")).toBeVisible();
});
