import { execFileSync } from "node:child_process";
import { readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { expect, type Page, test } from "@playwright/test";
import { readTruth } from "../../demo/truth";
import { LONG_WORK, TestServer } from "./server";

const CLIP = "demo/clips/two-shots.mp4";
const truth = readTruth("demo/clips/two-shots.truth.json");
const server = new TestServer();

// The second test looks at the film that the first has added.
test.describe.configure({ mode: "serial" });

test.beforeAll(() => server.start());
test.afterAll(() => server.dispose());

const timecode = (page: Page) => page.getByLabel(/^Timecode/);
const centreX = (page: Page) => page.getByLabel("Centre x (px)");

async function jump(page: Page, frame: number, shown: string): Promise<void> {
  await timecode(page).fill(String(frame));
  await timecode(page).press("Enter");
  await expect(timecode(page)).toHaveValue(shown);
  await timecode(page).blur();
}

/** Mean colour of a part of one frame of a file. */
function colourAt(file: string, frame: number, crop: string): number[] {
  const filter = `select='eq(n,${frame})',crop=${crop},scale=1:1:flags=area`;
  const args = ["-v", "error", "-i", file, "-vf", filter, "-frames:v", "1", "-f", "rawvideo", "-pix_fmt", "rgb24", "-"];
  return [...execFileSync("ffmpeg", args)];
}

test("a film is added, looked at, corrected, exported and downloaded", async ({ page }) => {
  const problems: string[] = [];
  page.on("pageerror", (error) => problems.push(error.message));

  await test.step("the library takes a film and refuses what is none", async () => {
    await page.goto(server.url);
    await expect(page.getByText("Nothing here yet")).toBeVisible();
    const wrong = join(server.data, "letter.mp4");
    writeFileSync(wrong, "Dear Glad Pan, I am no film.");
    await page.getByLabel("Film files").setInputFiles(wrong);
    await expect(page.getByRole("alert")).toContainText("letter.mp4: this is not a film");
    await page.getByRole("button", { name: "Close" }).click();
    await page.getByLabel("Film files").setInputFiles(CLIP);
    const card = page.getByRole("listitem").filter({ hasText: "two-shots.mp4" });
    await expect(card).toContainText("1280 × 720");
    await expect(card).toContainText("30 fps");
    await expect(card.getByText("2 shots found")).toBeVisible({ timeout: LONG_WORK });
    await page.getByRole("link", { name: "Open two-shots.mp4" }).click();
  });

  await test.step("the desk shows the shots, and follows the exact frame", async () => {
    await expect(page.getByRole("listbox", { name: "Shots" }).getByRole("option")).toHaveCount(2);
    await expect(page.getByRole("heading", { name: "Shot 1" })).toBeVisible();
    await jump(page, 44, "00:00:01:14");
    await expect(page.getByRole("heading", { name: "Shot 1" })).toBeVisible();
    await page.keyboard.press("ArrowRight");
    await expect(timecode(page)).toHaveValue("00:00:01:15");
    await expect(page.getByRole("heading", { name: "Shot 2" })).toBeVisible();
    await page.keyboard.press("PageUp");
    await expect(timecode(page)).toHaveValue("00:00:00:00");
    await page.keyboard.press("Space");
    await expect(page.getByRole("button", { name: "Pause" })).toBeVisible();
    await expect(timecode(page)).not.toHaveValue("00:00:00:00");
    await page.keyboard.press("Space");
    await expect(page.getByRole("button", { name: "Play" })).toBeVisible();
  });

  await test.step("a drag of the window makes a hand key; undo and redo, also after the page is loaded anew", async () => {
    await jump(page, 20, "00:00:00:20");
    const before = Number(await centreX(page).inputValue());
    const window = page.getByRole("application");
    const box = (await window.boundingBox())!;
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    await page.mouse.down();
    await page.mouse.move(box.x + box.width / 2 + 40, box.y + box.height / 2, { steps: 4 });
    await page.mouse.up();
    await expect(page.getByText("■ your key")).toBeVisible();
    const after = Number(await centreX(page).inputValue());
    expect(after).toBeGreaterThan(before + 30);
    await page.keyboard.press("ControlOrMeta+z");
    await expect(page.getByText("laid by the solver")).toBeVisible();
    await expect(centreX(page)).toHaveValue(String(before));
    await page.reload();
    await page.getByRole("button", { name: /^Do again/ }).click();
    await jump(page, 20, "00:00:00:20");
    await expect(page.getByText("■ your key")).toBeVisible();
    await expect(centreX(page)).toHaveValue(String(after));
    await page.keyboard.press("Delete");
    await expect(page.getByText("laid by the solver")).toBeVisible();
  });

  await test.step("a number typed in is met exactly", async () => {
    await centreX(page).fill("500");
    await centreX(page).press("Enter");
    await expect(page.getByText("■ your key")).toBeVisible();
    await expect(centreX(page)).toHaveValue("500");
    await page.getByRole("button", { name: "Release this key" }).click();
    await expect(page.getByText("laid by the solver")).toBeVisible();
  });

  await test.step("manner and subject of a shot can be chosen", async () => {
    await page.getByRole("radio", { name: "Chase" }).click();
    await expect(page.getByRole("radio", { name: "Chase" })).toBeChecked();
    await page.getByRole("radio", { name: /^Nobody/ }).click();
    await expect(centreX(page)).toHaveValue("640");
    await page.keyboard.press("ControlOrMeta+z");
    await expect(page.getByRole("radio", { name: /^Chosen for you/ })).toBeChecked();
  });

  await test.step("another version has its own shape", async () => {
    await page.getByRole("button", { name: "Add a version" }).click();
    await page.getByRole("menuitem", { name: /Square/ }).click();
    await page.getByRole("link", { name: "Square 1:1" }).click();
    await expect(page.getByRole("img", { name: 'What "Square 1:1" shows' })).toBeVisible();
    await page.getByRole("link", { name: "Vertical 9:16" }).click();
  });

  await test.step("an export is rendered, checked, shown with its figures, and downloaded", async () => {
    await page.getByRole("button", { name: /^Export/ }).click();
    await page.getByRole("listitem").filter({ hasText: "1080 × 1920" }).getByRole("button", { name: "Render" }).click();
    await expect(page.getByText(/Checked: 1080 × 1920 · 99 frames at 30 fps/)).toBeVisible({ timeout: LONG_WORK });
    const downloading = page.waitForEvent("download");
    await page.getByRole("link", { name: "Download" }).click();
    const download = await downloading;
    expect(download.suggestedFilename()).toBe("two-shots 1080x1920.mp4");
    const file = join(server.data, "downloaded.mp4");
    await download.saveAs(file);
    const probe = execFileSync("ffprobe", ["-v", "error", "-count_frames", "-show_streams", "-of", "json", file], {
      encoding: "utf8",
    });
    const { streams } = JSON.parse(probe) as {
      streams: { codec_type: string; width?: number; height?: number; nb_read_frames?: string; duration: string }[];
    };
    const video = streams.find((stream) => stream.codec_type === "video")!;
    const sound = streams.find((stream) => stream.codec_type === "audio")!;
    expect([video.width, video.height, video.nb_read_frames]).toEqual([1080, 1920, "99"]);
    expect(Math.abs(Number(sound.duration) - Number(video.duration))).toBeLessThan(1 / 30);
    // The presenter's red coat fills the lower middle; the edges show the meadow and no black.
    const [red, green, blue] = colourAt(file, 22, "400:300:340:1500");
    expect(red!).toBeGreaterThan(2 * green!);
    expect(red!).toBeGreaterThan(2 * blue!);
    for (const edge of ["8:1920:0:0", "8:1920:1072:0", "1080:8:0:0", "1080:8:0:1912"]) {
      expect(Math.max(...colourAt(file, 22, edge))).toBeGreaterThan(40);
    }
    // The runner's yellow shirt is in the middle half while he crosses the picture.
    const runner = truth.tracks.find((track) => track.id === "teo")!;
    expect(runner.boxes[30]).not.toBeNull();
    const [r, g, b] = colourAt(file, runner.start + 30, "540:300:270:900");
    expect(r! + g!).toBeGreaterThan(2.4 * b!);
    expect(readFileSync(file).length).toBeGreaterThan(100_000);
  });

  expect(problems).toEqual([]);
});

test("a change in one window is not overwritten by an older one in another", async ({ page, context }) => {
  await page.goto(server.url);
  await page.getByRole("link", { name: "Open two-shots.mp4" }).click();
  await expect(page.getByRole("heading", { name: "Shot 1" })).toBeVisible();
  const other = await context.newPage();
  await other.goto(page.url());
  await expect(other.getByRole("heading", { name: "Shot 1" })).toBeVisible();
  await page.getByRole("radio", { name: "Still" }).click();
  await expect(page.getByRole("radio", { name: "Still" })).toBeChecked();
  await expect(page.getByRole("button", { name: "Take back: change of manner" })).toBeEnabled();
  await other.getByRole("radio", { name: /^Nobody/ }).click();
  await expect(other.getByText("changed in another window")).toBeVisible();
  await expect(other.getByRole("radio", { name: "Still" })).toBeChecked();
  await expect(other.getByRole("radio", { name: /^Chosen for you/ })).toBeChecked();
});
