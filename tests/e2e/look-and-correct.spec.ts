/** Comparing, history and checkpoints, steering, and what is corrected with pointer and keys, on the film with two shots. */
import { expect, type Page, test } from "@playwright/test";
import { frameOf, goTo, openTwoShots, rows, storedKeys } from "../support/desk";
import { resultAt } from "../support/pixels";
import { serverWith } from "../support/prepared";

const server = serverWith("two-shots");
test.beforeAll(() => server.start());
test.afterAll(() => server.dispose());

const undo = (page: Page) => page.getByRole("button", { name: /^Undo/ });
const button = (page: Page, name: string | RegExp) => page.getByRole("button", { name, exact: true });
const windowRect = (page: Page) => page.getByRole("application", { name: /^Crop window/ });

/** Drags from a place to another, in shares of something on the page. */
async function drag(page: Page, on: ReturnType<Page["locator"]>, from: number[], to: number[]): Promise<void> {
  const { x, y, width, height } = (await on.boundingBox())!;
  const at = ([across, down]: number[]) => [x + across! * width, y + down! * height] as const;
  await page.mouse.move(...at(from));
  await page.mouse.down();
  await page.mouse.move(...at(to), { steps: 8 });
  await page.mouse.up();
}

/** How much two canvases differ, as the mean of their colours' differences. */
const differenceOf = (page: Page, a: string, b: string) =>
  page.evaluate(
    ([one, other]) => {
      const of = (label: string) =>
        [...document.querySelectorAll("canvas")].find((canvas) => canvas.getAttribute("aria-label") === label);
      const [first, second] = [of(one!), of(other!)];
      // One of them may still be on its way.
      if (!first || !second) return Number.NaN;
      const { width, height } = first;
      const read = (canvas: HTMLCanvasElement) => canvas.getContext("2d")!.getImageData(0, 0, width, height).data;
      const [p, q] = [read(first), read(second)];
      return p.reduce((sum, value, i) => sum + Math.abs(value - q[i]!), 0) / p.length;
    },
    [a, b],
  );

test("the result is compared with a centre crop, another movement and a checkpoint, at the same frame", async ({
  page,
}) => {
  await openTwoShots(page, server);
  await goTo(page, 70);
  const [version] = server.query<{ name: string }>("SELECT name FROM versions");
  const own = `What “${version!.name}” shows`;
  await page.keyboard.press("b");
  await expect(page.getByRole("img", { name: "Centre crop" })).toBeVisible();
  await expect.poll(() => differenceOf(page, own, "Centre crop")).toBeGreaterThan(1);
  // The window in the middle of the picture is the centre crop.
  await page.keyboard.press("Escape");
  await page.getByLabel("Centre x (px)").fill("640");
  await page.getByLabel("Centre x (px)").press("Enter");
  await expect.poll(() => differenceOf(page, own, "Centre crop")).toBeLessThan(0.5);
  await undo(page).click();
  await expect.poll(() => differenceOf(page, own, "Centre crop")).toBeGreaterThan(1);

  await page.getByRole("radio", { name: "Split" }).click();
  const line = page.getByRole("separator", { name: "Line between before and now" });
  await line.press("ArrowRight");
  await expect(line).toHaveAttribute("aria-valuenow", "55");
  await page.keyboard.press("b");
  await expect(page.getByRole("img", { name: "Centre crop" })).toBeHidden();

  await button(page, "Compare").click();
  await page.getByRole("menuitemcheckbox", { name: "Chase" }).click();
  await page.keyboard.press("Escape");
  await expect(page.getByRole("img", { name: "Chase" })).toBeVisible();
  await button(page, "Stop comparing").click();

  await button(page, "Checkpoints").click();
  await page.getByLabel("Name of the checkpoint").fill("before client");
  await button(page, "Save").click();
  await expect(page.getByRole("listitem", { name: "before client" })).toBeVisible();
  await page.getByRole("dialog", { name: "Checkpoints" }).getByRole("button", { name: "Close" }).click();
  await page.getByLabel("Centre x (px)").fill("400");
  await page.getByLabel("Centre x (px)").press("Enter");
  await button(page, "Checkpoints").click();
  await page.getByRole("listitem", { name: "before client" }).getByRole("button", { name: "Compare with now" }).click();
  await expect.poll(() => differenceOf(page, own, "before client")).toBeGreaterThan(1);
  await page.getByRole("button", { name: "Go back to this checkpoint" }).click();
  await expect.poll(() => storedKeys(server)).toEqual([]);
  await expect.poll(() => differenceOf(page, own, "before client")).toBeLessThan(0.5);
});

test("any step of the history is gone back to, and on from, also after a reload", async ({ page }) => {
  await openTwoShots(page, server);
  for (const frame of [10, 20, 30]) {
    await goTo(page, frame);
    await page.keyboard.press("a");
  }
  await expect.poll(() => storedKeys(server).map(({ frame }) => frame)).toEqual([10, 20, 30]);
  const steps = page.getByRole("region", { name: "Steps" });
  await button(page, "History").click();
  await steps.getByRole("button", { name: "Added a keyframe in shot 1 at 00:00:00:10" }).click();
  await expect.poll(() => storedKeys(server).map(({ frame }) => frame)).toEqual([10]);
  await page.reload();
  await expect(rows(page)).toHaveCount(2);
  await button(page, "History").click();
  await steps.getByRole("button", { name: "Added a keyframe in shot 1 at 00:00:01:00" }).click();
  await expect.poll(() => storedKeys(server).map(({ frame }) => frame)).toEqual([10, 20, 30]);
  await expect(steps.getByRole("button", { name: /00:00:01:00.*now$/ })).toHaveAttribute("aria-current", "true");
  await steps.getByRole("button", { name: /^As analysed/ }).click();
  await expect.poll(() => storedKeys(server)).toEqual([]);
});

test("two windows on a film show each other's changes, and offer again what was refused", async ({ page, context }) => {
  await openTwoShots(page, server);
  const other = await context.newPage();
  await other.goto(page.url());
  await expect(rows(other)).toHaveCount(2);
  await goTo(page, 12);
  await page.keyboard.press("a");
  await expect(rows(other).first()).toContainText("● 1", { timeout: 3000 });

  // The other window does not hear of the next change before it makes its own.
  const status = await other.request.get(`${page.url().split("?")[0]}/status`);
  const known = await status.text();
  await other.route("**/status", (route) => route.fulfill({ body: known, contentType: "application/json" }));
  await goTo(page, 24);
  await page.keyboard.press("a");
  await expect(rows(page).first()).toContainText("● 2");
  await goTo(other, 40);
  await other.keyboard.press("a");
  await expect(other.getByText("your change was not made")).toBeVisible();
  await other.unroute("**/status");
  await expect(rows(other).first()).toContainText("● 2");
  await button(other, "Apply it again").click();
  await expect.poll(() => storedKeys(server).map(({ frame }) => frame)).toEqual([12, 24, 40]);
  await other.close();
  await expect(rows(page).first()).toContainText("● 3");
  await button(page, "History").click();
  await page.getByRole("button", { name: /^As analysed/ }).click();
  await expect.poll(() => storedKeys(server)).toEqual([]);
});

test("the window is steered while the film plays, and becomes a few keyframes in one step", async ({ page }) => {
  // At an eighth of its speed the film is not over before a slow machine has led the window.
  await page.addInitScript(() => {
    const play = HTMLMediaElement.prototype.play;
    HTMLMediaElement.prototype.play = function () {
      this.playbackRate = 1 / 8;
      return play.call(this);
    };
  });
  await openTwoShots(page, server);
  await goTo(page, 0);
  await page.keyboard.press("r");
  const area = page.getByRole("application", { name: /^Steer/ });
  const { x, y, width, height } = (await area.boundingBox())!;
  await page.mouse.move(x + 0.3 * width, y + 0.5 * height);
  await page.mouse.down();
  // It is led as soon as the film plays.
  await expect.poll(() => frameOf(page)).toBeGreaterThan(0);
  for (let i = 1; i <= 6; i++) {
    await page.mouse.move(x + (0.3 + 0.05 * i) * width, y + 0.5 * height);
    const led = await frameOf(page);
    await expect.poll(() => frameOf(page)).toBeGreaterThan(led);
  }
  await page.mouse.up();
  const panel = page.getByRole("group", { name: "Reshape the path" });
  await expect(panel).toContainText("Steered");
  const end = await frameOf(page);
  expect(end).toBeGreaterThan(3);
  // Nothing is kept yet; more tolerance makes no more keys.
  expect(storedKeys(server)).toEqual([]);
  const count = async () => Number((await panel.getByLabel("Keyframes").textContent())!.split(" ")[0]);
  const fine = await count();
  await panel.getByLabel("Tolerance (% of the window)").fill("10");
  await panel.getByLabel("Tolerance (% of the window)").press("Enter");
  await expect.poll(count).toBeLessThanOrEqual(fine);
  const coarse = await count();
  await panel.getByRole("button", { name: "Keep" }).click();
  await expect.poll(() => storedKeys(server).length).toBe(coarse);
  const keys = storedKeys(server);
  expect(keys.at(-1)!.x - keys[0]!.x).toBeGreaterThan(100);
  await expect(undo(page)).toHaveAccessibleName(/^Undo: Steered the window from/);
  await page.keyboard.press("r");
  await undo(page).click();
  await expect.poll(() => storedKeys(server)).toEqual([]);
});

test("numbers take sums, drags and double clicks; a drag that moves nothing makes no keyframe", async ({ page }) => {
  await openTwoShots(page, server);
  await goTo(page, 20);
  const field = page.getByLabel("Centre x (px)");
  await field.fill("1280/2");
  await field.press("Enter");
  await expect.poll(() => storedKeys(server)[0]?.x).toBe(640);
  await field.fill("+20");
  await field.press("Enter");
  await expect.poll(() => storedKeys(server)[0]?.x).toBe(660);
  await field.press("ArrowUp");
  await expect.poll(() => storedKeys(server)[0]?.x).toBe(661);
  const label = page.getByText("Centre x (px)");
  await drag(page, label, [0.5, 0.5], [1, 0.5]);
  await expect.poll(() => storedKeys(server)[0]?.x).toBeGreaterThan(670);
  await label.dblclick();
  await expect.poll(() => storedKeys(server)[0]?.x).toBe(640);
  await field.blur();
  await page.keyboard.press("Delete");
  await expect.poll(() => storedKeys(server)).toEqual([]);

  await goTo(page, 25);
  await windowRect(page).click();
  await goTo(page, 26);
  expect(storedKeys(server)).toEqual([]);
});

test("a protected area has handles, by pointer and by keys", async ({ page }) => {
  await openTwoShots(page, server);
  await goTo(page, 5);
  await button(page, "Protect an area").click();
  await drag(page, page.getByRole("application", { name: /^Draw a box/ }), [0.2, 0.2], [0.4, 0.5]);
  const box = page.getByRole("application", { name: /^Protected area/ });
  await expect(box).toBeVisible();
  const stored = () =>
    server
      .query<{ protect: string | null }>("SELECT protect FROM shots ORDER BY start_frame")
      .map(({ protect }) => (protect ? (JSON.parse(protect) as { x: number; width: number }) : null))[0]!;
  await expect.poll(stored).not.toBeNull();
  const before = stored();
  await box.focus();
  await box.press("Shift+ArrowRight");
  await expect.poll(() => stored().x).toBeCloseTo(before.x + 10, 3);
  await box.press("Alt+ArrowRight");
  await expect.poll(() => stored().width).toBeCloseTo(before.width + 1, 3);
  // By its right side, to the right.
  await drag(page, box, [0.985, 0.5], [1.5, 0.5]);
  await expect.poll(() => stored().width).toBeGreaterThan(1.3 * before.width);
  await button(page, "Stop protecting").click();
});

test("what is shown on the picture is selected, and stays so", async ({ page }) => {
  await openTwoShots(page, server);
  await page.keyboard.press("p");
  const shade = page.locator("svg path[fill-rule=evenodd]").first();
  await expect(shade).toHaveAttribute("fill-opacity", "1");
  await button(page, "Picture").click();
  await page.getByText("Trail of the window's centre").click();
  await expect(page.getByLabel("Trail", { exact: true })).toHaveAttribute("d", /^M/);
  const picture = page.getByLabel("The whole picture");
  const { width } = (await picture.boundingBox())!;
  await page.getByRole("slider", { name: "Size of the picture" }).press("Home");
  await expect.poll(async () => (await picture.boundingBox())!.width).toBeLessThan(0.5 * width);
  await page.reload();
  await expect(shade).toHaveAttribute("fill-opacity", "1");
  await expect.poll(async () => (await picture.boundingBox())!.width).toBeLessThan(0.5 * width);
});

test("while nothing moves, the result is the frame as it will be in the file", async ({ page }) => {
  await openTwoShots(page, server);
  await goTo(page, 60);
  const sharp = page.locator("img[data-sharp]");
  await expect(sharp).toHaveAttribute("data-sharp", "60");
  const [rendered, drawn] = [
    await sharp.evaluate((image: HTMLImageElement) => {
      const canvas = document.createElement("canvas");
      [canvas.width, canvas.height] = [image.naturalWidth, image.naturalHeight];
      canvas.getContext("2d")!.drawImage(image, 0, 0);
      const { data } = canvas.getContext("2d")!.getImageData(canvas.width / 2, canvas.height / 3, 1, 1);
      return [canvas.width, canvas.height, ...data.slice(0, 3)];
    }),
    await resultAt(page, 0.5, 1 / 3),
  ];
  expect(rendered.slice(0, 2)).toEqual([270, 480]);
  rendered.slice(2).forEach((value, i) => expect(Math.abs(value - drawn[i]!)).toBeLessThan(12));
  await page.keyboard.press("ArrowRight");
  await expect(sharp).toHaveAttribute("data-sharp", "61");
  await page.keyboard.press("Space");
  await expect(sharp).toHaveCount(0);
});

test("a setting made before the picture of a selected shot has come is that shot's", async ({ page }) => {
  await openTwoShots(page, server);
  // A video that never gets anywhere stands for a machine that is slow at it.
  await page
    .locator("video")
    .first()
    .evaluate((video: HTMLVideoElement) => {
      Object.defineProperty(video, "currentTime", { get: () => 0, set: () => {} });
    });
  await rows(page).last().click();
  const settings = page.getByRole("region", { name: "Settings" });
  await expect(settings.getByRole("heading", { name: "Shot 2" })).toBeVisible();
  await settings.getByRole("radio", { name: "Whole", exact: true }).click();
  await expect(undo(page)).toHaveAccessibleName(/Changed the layout of shot 2/);
  await undo(page).click();
});
