/** Playing, shortcuts and the parts of the desk, by pointer and keyboard. */
import { expect, type Page, test } from "@playwright/test";
import { frameOf, goTo, openTwoShots, rows } from "../support/desk";
import { serverWith } from "../support/prepared";
import { LONG_WORK } from "../support/server";

const server = serverWith("two-shots");
test.beforeAll(() => server.start());
test.afterAll(() => server.dispose());

const speed = (page: Page) => page.getByLabel("Speed", { exact: true });

test("is played both ways, quicker with each press, looped and muted", async ({ page }) => {
  await openTwoShots(page, server);
  await rows(page).first().click();
  await page.keyboard.press("l");
  await expect(page.getByRole("button", { name: "Pause" })).toBeVisible();
  await page.keyboard.press("l");
  await expect(speed(page)).toHaveText("2×");
  await expect.poll(() => frameOf(page)).toBeGreaterThan(40);
  await page.keyboard.press("k");
  await expect(page.getByRole("button", { name: "Play" })).toBeVisible();
  const before = await frameOf(page);

  await page.keyboard.press("j");
  await expect(speed(page)).toHaveText("-1×");
  await expect.poll(() => frameOf(page)).toBeLessThan(before - 15);
  await page.keyboard.press("l");
  await expect(speed(page)).toHaveText("");
  await page.keyboard.press("k");

  // The first shot has forty-five frames; played from its last ones on, it begins again.
  await page.keyboard.press("Home");
  await page.keyboard.press("Shift+L");
  await expect(page.getByRole("button", { name: "Stop looping" })).toBeVisible();
  await goTo(page, 35);
  await page.keyboard.press("Space");
  await expect.poll(() => frameOf(page)).toBeLessThan(30);
  await page.keyboard.press("k");
  expect(await frameOf(page)).toBeLessThan(45);
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
  await openTwoShots(page, server);
  await page.keyboard.press("Shift+Slash");
  const sheet = page.getByRole("dialog", { name: "Shortcuts" });
  await sheet.getByLabel("Search shortcuts").fill("one second");
  await expect(sheet.getByRole("listitem")).toHaveCount(2);
  await sheet.getByRole("button", { name: /^One second on: / }).click();
  await page.keyboard.press("d");
  await expect(sheet.getByRole("alert")).toHaveText("Already used by “Split the shot”.");
  await sheet.getByRole("button", { name: /^One second on: / }).click();
  await page.keyboard.press("Control+T");
  await expect(sheet.getByRole("alert")).toHaveText("The browser uses these keys.");
  await sheet.getByRole("button", { name: /^One second on: / }).click();
  await page.keyboard.press("q");
  await expect(sheet.getByRole("button", { name: "One second on: Q" })).toBeVisible();
  // Keys do nothing on the desk while the sheet lies over it.
  await page.keyboard.press("q");
  await page.keyboard.press("Escape");
  expect(await frameOf(page)).toBe(0);
  await page.keyboard.press("q");
  await expect.poll(() => frameOf(page)).toBe(30);
  await page.reload();
  await expect(rows(page)).toHaveCount(2, { timeout: LONG_WORK });
  // The rows are there before the page has come to life.
  const pressed = async () => {
    await page.keyboard.press("q");
    await page.waitForTimeout(500);
    return frameOf(page);
  };
  await expect.poll(pressed).toBeGreaterThanOrEqual(30);

  await page.getByRole("button", { name: "Shortcuts" }).click();
  await sheet.getByRole("button", { name: "Reset all" }).click();
  await expect(sheet.getByRole("button", { name: "One second on: Shift →" })).toBeVisible();
});

test("the parts of the desk are resized and folded, and stay so", async ({ page }) => {
  await openTwoShots(page, server);
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
