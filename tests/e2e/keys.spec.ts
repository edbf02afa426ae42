/** Keys as a table: sorted, changed in figures, and several moved, copied and deleted at once. */
import { expect, type Page, test } from "@playwright/test";
import { goTo, openTwoShots, rows, storedKeys } from "../support/desk";
import { serverWith } from "../support/prepared";
import { LONG_WORK } from "../support/server";

const server = serverWith("two-shots");
test.beforeAll(() => server.start());
test.afterAll(() => server.dispose());

const own = (page: Page) =>
  page
    .getByRole("region", { name: "Keyframes" })
    .getByRole("row")
    .filter({ has: page.getByRole("textbox") });
const figure = (page: Page, what: string) => page.getByRole("textbox", { name: what });

test("keyframes are changed in figures, and several are moved, copied and deleted at once", async ({ page }) => {
  await openTwoShots(page, server);
  for (const frame of [5, 20]) {
    await goTo(page, frame);
    await page.keyboard.press("a");
    await expect(rows(page).first()).toContainText(frame === 5 ? "● 1" : "● 2");
  }
  await page.getByRole("radio", { name: "Keyframes", exact: true }).click();
  await expect(own(page)).toHaveCount(2);

  const x = figure(page, "x at 00:00:00:05");
  await x.fill("500");
  await x.press("Enter");
  await expect(x).toHaveValue("500");
  const other = figure(page, "x at 00:00:00:20");
  await other.fill("620");
  await other.press("Enter");
  await expect(other).toHaveValue("620");
  await page.getByRole("button", { name: "Time" }).click();
  await expect(own(page).first()).toContainText("00:00:00:20");

  await page.getByLabel("Select all your keyframes").click();
  await expect(page.getByText("2 keyframes selected")).toBeVisible();
  await page.getByLabel("Right (px)").fill("30");
  await page.getByLabel("Right (px)").press("Enter");
  await page.getByRole("button", { name: "Move", exact: true }).click();
  await expect(x).toHaveValue("530");
  await expect(other).toHaveValue("650");
  await page.keyboard.press("Control+z");
  await expect(x).toHaveValue("500");
  await expect(other).toHaveValue("620");

  await page.getByRole("button", { name: "Copy", exact: true }).click();
  // In the other shot, the second of them would come after its end.
  await goTo(page, 90);
  await expect(own(page)).toHaveCount(0);
  await page.getByRole("button", { name: "Paste at playhead" }).click();
  await expect(page.getByText("1 keyframe fell outside the shot and was left out.")).toBeVisible();
  await expect(figure(page, "x at 00:00:03:00")).toHaveValue("500");
  await goTo(page, 60);
  await page.getByRole("button", { name: "Paste at playhead" }).click();
  await expect(own(page)).toHaveCount(3);
  await expect(figure(page, "x at 00:00:02:15")).toHaveValue("620");

  await page.getByLabel("Select the keyframe at 00:00:02:00").click();
  await page.getByLabel("Select the keyframe at 00:00:03:00").click();
  await page.getByRole("button", { name: "Delete", exact: true }).click();
  await expect(own(page)).toHaveCount(1);
  await page.keyboard.press("Control+z");
  await expect(own(page)).toHaveCount(3);
  await page.reload();
  await goTo(page, 60);
  await page.getByRole("radio", { name: "Keyframes", exact: true }).click();
  await expect(own(page)).toHaveCount(3);
});

test("the window is centred by a click, nudged by pixels, and dragged along one axis", async ({ page }) => {
  await page.goto(server.url);
  await page.getByRole("link", { name: "Open two-shots.mp4" }).first().click();
  await expect(rows(page)).toHaveCount(2, { timeout: LONG_WORK });
  await goTo(page, 30);
  const picture = (await page.getByLabel("The whole picture").boundingBox())!;
  const centre = page.getByLabel("Centre x (px)");
  await page.keyboard.press("c");
  await page.mouse.click(picture.x + 0.6 * picture.width, picture.y + 0.5 * picture.height);
  await expect.poll(async () => Math.abs(Number(await centre.inputValue()) - 0.6 * 1280)).toBeLessThan(2);
  await expect(rows(page).first()).toContainText("●");

  const window = page.getByRole("application", { name: /^Crop window/ });
  const before = Number(await centre.inputValue());
  await window.press("ArrowRight");
  await expect(centre).toHaveValue(String(Number((before + 1).toFixed(1))));
  await window.press("Shift+ArrowLeft");
  await expect(centre).toHaveValue(String(Number((before - 9).toFixed(1))));

  // Zoomed in, it could move both ways; with Shift it moves along the one that it is dragged along further.
  const zoom = page.getByLabel("Zoom here (1 to 4)");
  await zoom.fill("2");
  await zoom.press("Enter");
  await expect(page.getByLabel("Centre y (px)")).toBeEnabled();
  const at = (await window.boundingBox())!;
  const grip = [at.x + at.width / 2, at.y + at.height / 2] as const;
  const y = await page.getByLabel("Centre y (px)").inputValue();
  await page.keyboard.down("Shift");
  await page.mouse.move(...grip);
  await page.mouse.down();
  await page.mouse.move(grip[0] + 60, grip[1] + 25, { steps: 5 });
  await page.mouse.up();
  await page.keyboard.up("Shift");
  await expect.poll(async () => Number(await centre.inputValue())).toBeGreaterThan(before + 40);
  await expect(page.getByLabel("Centre y (px)")).toHaveValue(y);
});

test("keyframes are selected in the lane by a box, deleted, copied, pasted and moved together, none across a cut", async ({
  page,
}) => {
  await openTwoShots(page, server);
  await page.getByRole("radio", { name: "Shot", exact: true }).click();
  const before = storedKeys(server).map(({ frame }) => frame);
  for (const frame of before) {
    await goTo(page, frame);
    await page.keyboard.press("Delete");
  }
  for (const frame of [10, 20, 40]) {
    await goTo(page, frame);
    await page.keyboard.press("a");
  }
  await expect.poll(() => storedKeys(server).length).toBe(3);
  await goTo(page, 15);
  const [, second] = storedKeys(server);
  const lane = (await page.getByRole("region", { name: "Lane", exact: true }).boundingBox())!;
  const picture = (await page.getByLabel("The whole picture").boundingBox())!;
  // Time runs down from the line that is level with the playhead.
  const at = (frame: number, x: number) =>
    [picture.x + (x / 1280) * picture.width, lane.y + Math.round(0.3 * lane.height) + 1.1 * (frame - 15)] as const;
  const select = async () => {
    await page.mouse.move(...at(4, second!.x - 200));
    await page.mouse.down();
    await page.mouse.move(...at(26, second!.x + 200), { steps: 4 });
    await page.mouse.up();
  };
  await select();
  await page.keyboard.press("Control+c");
  await expect(page.getByText("2 keyframes copied.")).toBeVisible();
  await page.mouse.move(...at(20, second!.x));
  await page.mouse.down();
  await page.mouse.move(...at(25, second!.x + 100), { steps: 4 });
  await page.mouse.up();
  await expect.poll(() => storedKeys(server).map(({ frame }) => frame)).toEqual([15, 25, 40]);
  const moved = storedKeys(server);
  expect(moved[0]!.x - moved[2]!.x).toBeCloseTo(100, -1);
  expect(moved[0]!.x).toBeCloseTo(moved[1]!.x, 3);
  await page.keyboard.press("Delete");
  await expect.poll(() => storedKeys(server).map(({ frame }) => frame)).toEqual([40]);
  await goTo(page, 60);
  await page.keyboard.press("Control+v");
  await expect.poll(() => storedKeys(server).map(({ frame }) => frame)).toEqual([40, 60, 70]);
});

test("the way from a keyframe to the next is eased by a handle on the speed beside the lane", async ({ page }) => {
  await openTwoShots(page, server);
  await page.getByRole("radio", { name: "Shot", exact: true }).click();
  for (const { frame } of storedKeys(server)) {
    await goTo(page, frame);
    await page.keyboard.press("Delete");
  }
  const centre = page.getByLabel("Centre x (px)");
  for (const [frame, x] of [
    [5, "500"],
    [35, "700"],
  ] as const) {
    await goTo(page, frame);
    await centre.fill(x);
    await centre.press("Enter");
    await centre.blur();
  }
  await goTo(page, 5);
  await page.getByRole("combobox", { name: "Easing to your next keyframe" }).click();
  await page.getByRole("option", { name: /^Eased/ }).click();
  const easing = () => server.query<{ easing: string }>("SELECT easing FROM hand_keys WHERE frame = 5")[0]!.easing;
  await expect.poll(easing).toBe("ease");
  await goTo(page, 20);
  const lane = (await page.getByRole("region", { name: "Lane", exact: true }).boundingBox())!;
  const now = lane.y + Math.round(0.3 * lane.height);
  // The speed stands left of waveform and strip. The handle out of the key is at a third of the way.
  const across = lane.x + lane.width - 18 - 30 - 36 + 12;
  const down = (frame: number) => now + 1.1 * (frame - 20);
  const out = 5 + 30 / 3;
  await page.mouse.move(across, down(out));
  await page.mouse.down();
  await page.mouse.move(across, down(out - 9), { steps: 5 });
  await page.mouse.up();
  await expect.poll(easing).toMatch(/^cubic-bezier\(0\.0/);
  await page.getByRole("button", { name: /^Undo/ }).first().click();
  await expect.poll(easing).toBe("ease");
});
