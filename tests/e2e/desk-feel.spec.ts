/** Playing, shortcuts and the parts of the desk, by pointer and keyboard. */
import { expect, type Page, test } from "@playwright/test";
import { LONG_WORK, TestServer } from "../support/server";

const server = new TestServer();
test.beforeAll(() => server.start());
test.afterAll(() => server.dispose());

const rows = (page: Page) => page.getByRole("listbox", { name: "Shots" }).getByRole("option");
const timecode = (page: Page) => page.getByLabel(/^Timecode/);

async function open(page: Page): Promise<void> {
  await page.goto(server.url);
  const isThere = await page
    .getByRole("link", { name: "Open two-shots.mp4" })
    .first()
    .isVisible()
    .catch(() => false);
  if (!isThere) await page.getByLabel("Film files").setInputFiles("demo/clips/two-shots.mp4");
  await page.getByRole("link", { name: "Open two-shots.mp4" }).first().click();
  await expect(rows(page)).toHaveCount(2, { timeout: LONG_WORK });
}
/** The frame on screen, of a film with thirty a second. */
async function frame(page: Page): Promise<number> {
  const [, , seconds, frames] = (await timecode(page).inputValue()).split(":").map(Number);
  return 30 * seconds! + frames!;
}
const speed = (page: Page) => page.getByLabel("Speed", { exact: true });

test("is played both ways, quicker with each press, looped and muted", async ({ page }) => {
  await open(page);
  await rows(page).first().click();
  await page.keyboard.press("l");
  await expect(page.getByRole("button", { name: "Pause" })).toBeVisible();
  await page.keyboard.press("l");
  await expect(speed(page)).toHaveText("2×");
  await expect.poll(() => frame(page)).toBeGreaterThan(40);
  await page.keyboard.press("k");
  await expect(page.getByRole("button", { name: "Play" })).toBeVisible();
  const before = await frame(page);

  await page.keyboard.press("j");
  await expect(speed(page)).toHaveText("-1×");
  await expect.poll(() => frame(page)).toBeLessThan(before - 15);
  await page.keyboard.press("l");
  await expect(speed(page)).toHaveText("");
  await page.keyboard.press("k");

  // The first shot has forty-five frames; played from its last ones on, it begins again.
  await page.keyboard.press("Home");
  await page.keyboard.press("Shift+L");
  await expect(page.getByRole("button", { name: "Stop looping" })).toBeVisible();
  await timecode(page).fill("35");
  await timecode(page).press("Enter");
  await timecode(page).blur();
  await expect.poll(() => frame(page)).toBe(35);
  await page.keyboard.press("Space");
  await expect.poll(() => frame(page)).toBeLessThan(30);
  await page.keyboard.press("k");
  expect(await frame(page)).toBeLessThan(45);
  await page.keyboard.press("Shift+L");

  const isMuted = () => page.locator("video").evaluate((video: HTMLVideoElement) => video.muted);
  await page.keyboard.press("Shift+M");
  await expect.poll(isMuted).toBe(true);
  await page.getByRole("button", { name: "Volume: muted" }).click();
  await page.getByRole("slider", { name: "Volume" }).press("Home");
  await page.getByRole("slider", { name: "Volume" }).press("PageUp");
  await expect.poll(isMuted).toBe(false);
  expect(await page.locator("video").evaluate((video: HTMLVideoElement) => video.volume)).toBeCloseTo(0.1, 2);
});

test("shortcuts are searched and changed, and not taken twice", async ({ page }) => {
  await open(page);
  await page.keyboard.press("Shift+Slash");
  const sheet = page.getByRole("dialog", { name: "Shortcuts" });
  await sheet.getByLabel("Search shortcuts").fill("one second");
  await expect(sheet.getByRole("listitem")).toHaveCount(2);
  await sheet.getByRole("button", { name: /^One second on: / }).click();
  await page.keyboard.press("d");
  await expect(sheet.getByRole("alert")).toHaveText("“Split the shot” has these keys.");
  await sheet.getByRole("button", { name: /^One second on: / }).click();
  await page.keyboard.press("Control+T");
  await expect(sheet.getByRole("alert")).toHaveText("The browser uses these keys.");
  await sheet.getByRole("button", { name: /^One second on: / }).click();
  await page.keyboard.press("e");
  await expect(sheet.getByRole("button", { name: "One second on: E" })).toBeVisible();
  // Keys do nothing on the desk while the sheet lies over it.
  await page.keyboard.press("e");
  await page.keyboard.press("Escape");
  expect(await frame(page)).toBe(0);
  await page.keyboard.press("e");
  await expect.poll(() => frame(page)).toBe(30);
  await page.reload();
  await expect(rows(page)).toHaveCount(2, { timeout: LONG_WORK });
  await page.keyboard.press("e");
  await expect.poll(() => frame(page)).toBe(30);

  await page.getByRole("button", { name: "Shortcuts" }).click();
  await sheet.getByRole("button", { name: "Reset all" }).click();
  await expect(sheet.getByRole("button", { name: "One second on: Shift →" })).toBeVisible();
});

test("the parts of the desk are resized and folded, and stay so", async ({ page }) => {
  await open(page);
  const result = page.getByRole("img", { name: /shows$/ });
  const before = (await result.boundingBox())!;
  const border = page.getByRole("separator", { name: "Height of the result" });
  const at = (await border.boundingBox())!;
  await page.mouse.move(at.x + 60, at.y);
  await page.mouse.down();
  await page.mouse.move(at.x + 60, at.y - 150, { steps: 5 });
  await page.mouse.up();
  await expect.poll(async () => (await result.boundingBox())!.height).toBeLessThan(before.height - 100);
  const list = page.getByRole("separator", { name: "Width of the shot list" });
  await list.press("Enter");
  await expect(page.getByRole("listbox", { name: "Shots" })).toBeHidden();

  await page.reload();
  await expect.poll(async () => (await result.boundingBox())!.height).toBeLessThan(before.height - 100);
  await expect(page.getByRole("listbox", { name: "Shots" })).toBeHidden();
  await list.press("Enter");
  await expect(page.getByRole("listbox", { name: "Shots" })).toBeVisible();

  // Where there is more room, picture and result use it.
  const picture = page.getByLabel("The whole picture");
  const small = (await picture.boundingBox())!.width;
  await page.setViewportSize({ width: 1920, height: 1080 });
  await expect.poll(async () => (await picture.boundingBox())!.width).toBeGreaterThan(1.25 * small);
});
