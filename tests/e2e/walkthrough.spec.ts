import { execFileSync } from "node:child_process";
import { readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { expect, type Page, test } from "@playwright/test";
import { goTo, timecode } from "../support/desk";
import { NOW_SHARE } from "../../app/components/desk/views/lane/lane-geometry";
import { readTruth } from "../../demo/truth";
import { LONG_WORK, TestServer } from "../support/server";

const CLIP = "demo/clips/two-shots.mp4";
const truth = readTruth("demo/clips/two-shots.truth.json");
const server = new TestServer();

// The second test looks at the film that the first has added.
test.describe.configure({ mode: "serial" });

test.beforeAll(() => server.start());
test.afterAll(() => server.dispose());

const zoomHere = (page: Page) => page.getByLabel("Zoom here (1 to 4)");
const centreX = (page: Page) => page.getByLabel("Centre x (px)");

/** Mean colour of a part of one frame of a file. */
function colourAt(file: string, frame: number, crop: string): number[] {
  const filter = `select='eq(n,${frame})',crop=${crop},scale=1:1:flags=area`;
  const args = ["-v", "error", "-i", file, "-vf", filter, "-frames:v", "1", "-f", "rawvideo", "-pix_fmt", "rgb24", "-"];
  return [...execFileSync("ffmpeg", args)];
}

const rule = (page: Page) => page.getByRole("combobox", { name: "What to follow" });
async function follow(page: Page, name: RegExp): Promise<void> {
  await rule(page).click();
  await page.getByRole("option", { name }).click();
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
    await goTo(page, 44);
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

  await test.step("a drag of the window makes a hand keyframe; undo and redo, also after the page is loaded anew", async () => {
    await goTo(page, 20);
    const before = Number(await centreX(page).inputValue());
    const window = page.getByRole("application");
    const box = (await window.boundingBox())!;
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    await page.mouse.down();
    await page.mouse.move(box.x + box.width / 2 + 40, box.y + box.height / 2, { steps: 4 });
    await page.mouse.up();
    await expect(page.getByText("● your keyframe")).toBeVisible();
    const after = Number(await centreX(page).inputValue());
    expect(after).toBeGreaterThan(before + 30);
    await page.keyboard.press("ControlOrMeta+z");
    await expect(page.getByText("computed")).toBeVisible();
    await expect(centreX(page)).toHaveValue(String(before));
    await page.reload();
    await page.getByRole("button", { name: /^Redo/ }).click();
    await goTo(page, 20);
    await expect(page.getByText("● your keyframe")).toBeVisible();
    await expect(centreX(page)).toHaveValue(String(after));
    await page.keyboard.press("Delete");
    await expect(page.getByText("computed")).toBeVisible();
  });

  await test.step("a keyframe dragged in the lane lays the path while it is dragged", async () => {
    await centreX(page).fill("500");
    await centreX(page).press("Enter");
    await expect(page.getByText("● your keyframe")).toBeVisible();
    const picture = (await page.getByLabel("The whole picture").boundingBox())!;
    const lane = (await page.getByRole("region", { name: "Lane", exact: true }).boundingBox())!;
    const now = lane.y + Math.round(NOW_SHARE * lane.height);
    const x = (sourceX: number) => picture.x + (sourceX * picture.width) / 1280;
    await page.mouse.move(x(500), now);
    await page.mouse.down();
    await page.mouse.move(x(560), now, { steps: 4 });
    await expect(centreX(page)).toHaveValue(/^5[56]\d/);
    await page.mouse.up();
    await expect(page.getByText("● your keyframe")).toBeVisible();
    const dropped = Number(await centreX(page).inputValue());
    expect(Math.abs(dropped - 560)).toBeLessThan(4);
    await page.keyboard.press("ControlOrMeta+z");
    await expect(centreX(page)).toHaveValue("500");
    // Given up in the middle, it is as if nothing had been.
    await page.mouse.move(x(500), now);
    await page.mouse.down();
    await page.mouse.move(x(600), now, { steps: 4 });
    await expect(centreX(page)).toHaveValue(/^(5[89]|60)\d/);
    await page.keyboard.press("Escape");
    await expect(centreX(page)).toHaveValue("500");
    await page.mouse.up();
    await expect(centreX(page)).toHaveValue("500");
    // Downwards it goes to another time, with its place.
    await page.mouse.move(x(500), now);
    await page.mouse.down();
    await page.mouse.move(x(500), now + 11, { steps: 4 });
    await page.mouse.up();
    await expect(page.getByText("computed")).toBeVisible();
    await goTo(page, 30);
    await expect(page.getByText("● your keyframe")).toBeVisible();
    await expect(centreX(page)).toHaveValue(/^(500|499\.\d|500\.\d)$/);
    await page.keyboard.press("ControlOrMeta+z");
    await goTo(page, 20);
    await page.keyboard.press("Delete");
    await expect(page.getByText("computed")).toBeVisible();
  });

  await test.step("a number typed in is met exactly", async () => {
    await centreX(page).fill("500");
    await centreX(page).press("Enter");
    await expect(page.getByText("● your keyframe")).toBeVisible();
    await expect(centreX(page)).toHaveValue("500");
    await page.getByRole("button", { name: "Delete this keyframe" }).click();
    await expect(page.getByText("computed")).toBeVisible();
  });

  await test.step("movement and subject of a shot can be selected", async () => {
    await page.getByRole("radio", { name: "Chase" }).click();
    await expect(page.getByRole("radio", { name: "Chase" })).toBeChecked();
    await expect(page.getByLabel("Subject and reason")).toContainText(/face.*% of the shot/);
    await follow(page, /^Nothing/);
    await expect(centreX(page)).toHaveValue("640");
    await page.keyboard.press("ControlOrMeta+z");
    await expect(rule(page)).toHaveText("Auto");
  });

  await test.step("a zoom makes the window smaller, and lets it move up and down", async () => {
    await expect(zoomHere(page)).toHaveValue("1");
    await page.getByRole("combobox", { name: "Zoom" }).click();
    await page.getByRole("option", { name: /^Fixed/ }).click();
    await expect(zoomHere(page)).toHaveValue("1.25");
    await expect(page.getByRole("region", { name: "Lane beside the picture" })).toBeVisible();
    await expect(page.getByRole("button", { name: "Use this zoom in all shots" })).toBeVisible();
    const warning = page.getByText(/^Scale 3\d\d%/);
    await expect(warning).toBeVisible();
    await page.getByLabel("Largest scale (%)").fill("400");
    await page.getByLabel("Largest scale (%)").press("Enter");
    await expect(warning).toBeHidden();
    await page.getByLabel("Largest scale (%)").blur();
    await page.keyboard.press("ControlOrMeta+z");
    await expect(warning).toBeVisible();
    await page.keyboard.press("ControlOrMeta+z");
    await expect(zoomHere(page)).toHaveValue("1");
    // A free one does not go in where the picture would be enlarged too much.
    await page.getByRole("combobox", { name: "Zoom" }).click();
    await page.getByRole("option", { name: /^Free/ }).click();
    await expect(page.getByText(/^Cannot zoom in: any closer/)).toBeVisible();
    await expect(zoomHere(page)).toHaveValue("1");
    await page.keyboard.press("ControlOrMeta+z");
  });

  await test.step("a part of the picture is protected", async () => {
    await page.getByRole("button", { name: "Protect an area" }).click();
    const layer = page.getByRole("application", { name: "Draw a box around the area to keep in the window" });
    const area = (await layer.boundingBox())!;
    await page.mouse.move(area.x + 0.7 * area.width, area.y + 0.2 * area.height);
    await page.mouse.down();
    await page.mouse.move(area.x + 0.8 * area.width, area.y + 0.3 * area.height, { steps: 3 });
    await page.mouse.up();
    await page.getByRole("button", { name: "Stop protecting" }).click();
    await expect(page.getByRole("button", { name: "Protect an area" })).toBeVisible();
  });

  await test.step("a box drawn around the kite is followed both ways through the shot", async () => {
    await goTo(page, 75);
    const kite = truth.tracks.find((track) => track.id === "running-kite")!;
    const [x, y, width, height] = kite.boxes[75 - kite.start]!;
    await page.keyboard.press("m");
    const layer = page.getByRole("application", { name: "Draw a box around the subject" });
    const area = (await layer.boundingBox())!;
    const at = (px: number, py: number) =>
      [area.x + (px * area.width) / truth.width, area.y + (py * area.height) / truth.height] as const;
    await page.mouse.move(...at(x, y));
    await page.mouse.down();
    await page.mouse.move(...at(x + width, y + height), { steps: 4 });
    await page.mouse.up();
    await expect(page.getByLabel("Subject and reason")).toContainText("marked by you", { timeout: LONG_WORK });
    const middle = async (frame: number) => {
      await goTo(page, frame);
      return Number(await centreX(page).inputValue());
    };
    for (const frame of [65, 85]) {
      const [left, , wide] = kite.boxes[frame - kite.start]!;
      // The window's centre stays inside the picture; the kite is well inside the window.
      const wanted = Math.min(1280 - 202.5, Math.max(202.5, left + wide / 2));
      await expect.poll(async () => Math.abs((await middle(frame)) - wanted)).toBeLessThan(170);
    }
    await goTo(page, 75);
    await page.getByRole("button", { name: "Remove this mark" }).click();
    await expect(page.getByLabel("Subject and reason")).not.toContainText("marked by you");
  });

  await test.step("people have letters, can be named, merged and followed everywhere", async () => {
    await page.getByRole("button", { name: "People" }).click();
    const people = page.getByRole("dialog", { name: "People" });
    await expect(people.getByRole("listitem", { name: /^Person/ })).toHaveCount(2);
    await expect(people.getByRole("listitem", { name: /^Person/ }).locator("img")).toHaveCount(2);
    await people.getByLabel("Name of A").fill("Nela");
    await people.getByLabel("Name of A").press("Enter");
    await people.getByRole("listitem", { name: "Person A" }).getByRole("button", { name: "Follow everywhere" }).click();
    await people.getByRole("combobox", { name: "B is the same as" }).click();
    await page.getByRole("option", { name: "A Nela" }).click();
    await expect(people.getByText("In 2 shots: 1, 2")).toBeVisible();
    await people.getByRole("button", { name: "Unmerge" }).click();
    await expect(people.getByRole("listitem", { name: "Person B" })).toBeVisible();
    await people.getByRole("button", { name: "Close" }).click();
    await goTo(page, 20);
    await expect(page.getByLabel("Subject and reason")).toContainText("Nela: your choice");
    await follow(page, /^Auto/);
  });

  await test.step("another version has its own shape", async () => {
    await page.getByRole("button", { name: "Add a version" }).click();
    await page.getByRole("radio", { name: /Square/ }).click();
    await page.getByRole("button", { name: "Add version", exact: true }).click();
    await page.getByRole("link", { name: "Square 1:1" }).click();
    await expect(page.getByRole("img", { name: "What “Square 1:1” shows" })).toBeVisible();
    await page.getByRole("link", { name: "Vertical 9:16" }).click();
  });

  await test.step("a keyframe is eased, and copied to the other version", async () => {
    await goTo(page, 20);
    await page.keyboard.press("a");
    const easing = page.getByRole("combobox", { name: "Easing to your next keyframe" });
    await easing.click();
    await page.getByRole("option", { name: /^Your own curve/ }).click();
    const handle = page.getByRole("slider", { name: "Easing out of this keyframe" });
    await handle.press("ArrowRight");
    await expect(handle).toHaveAttribute("aria-valuetext", "0.55 of the time, 0 of the way");
    await easing.click();
    await page.getByRole("option", { name: /^Hold/ }).click();
    const held = await centreX(page).inputValue();
    await goTo(page, 40);
    await expect(centreX(page)).toHaveValue(held);
    await goTo(page, 20);
    await page.getByRole("button", { name: "Copy to the other versions" }).click();
    await page.getByRole("link", { name: "Square 1:1" }).click();
    await expect(page.getByText("● your keyframe")).toBeVisible();
    await expect(page.getByRole("combobox", { name: "Easing to your next keyframe" })).toHaveText("Hold");
    await page.keyboard.press("Delete");
    await expect(page.getByText("computed")).toBeVisible();
    await page.getByRole("link", { name: "Vertical 9:16" }).click();
    await expect(page.getByText("● your keyframe")).toBeVisible();
    await page.keyboard.press("Delete");
    await expect(page.getByText("computed")).toBeVisible();
  });

  await test.step("a version follows its own subject in a shot, and does as the film does again", async () => {
    const own = (version: string) => page.getByRole("checkbox", { name: `Own subject in ${version}` });
    await page.getByRole("link", { name: "Square 1:1" }).click();
    await own("Square 1:1").click();
    await follow(page, /^Nothing/);
    await expect(centreX(page)).toHaveValue("640");
    await page.getByRole("link", { name: "Vertical 9:16" }).click();
    await expect(own("Vertical 9:16")).not.toBeChecked();
    await expect(rule(page)).toHaveText("Auto");
    await page.getByRole("link", { name: "Square 1:1" }).click();
    await own("Square 1:1").click();
    await expect(own("Square 1:1")).not.toBeChecked();
    await expect(rule(page)).toHaveText("Auto");
    await expect(page.getByRole("button", { name: /^Undo: Reset the subject of shot 1/ })).toBeEnabled();
    await page.getByRole("link", { name: "Vertical 9:16" }).click();
    await expect(page.getByRole("img", { name: "What “Vertical 9:16” shows" })).toBeVisible();
  });

  await test.step("an export is rendered, checked, shown with its figures, and downloaded", async () => {
    server.makeVersionsSmall();
    await page.reload();
    await page.getByRole("button", { name: /^Export/ }).click();
    await page.getByRole("button", { name: "Export Vertical 9:16" }).click();
    await expect(page.getByText(/270 × 480 · 99 frames at 30 fps/)).toBeVisible({ timeout: LONG_WORK });
    const downloading = page.waitForEvent("download");
    await page.getByRole("link", { name: "Download" }).click();
    const download = await downloading;
    expect(download.suggestedFilename()).toBe("two-shots 270x480.mp4");
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
    expect([video.width, video.height, video.nb_read_frames]).toEqual([270, 480, "99"]);
    expect(Math.abs(Number(sound.duration) - Number(video.duration))).toBeLessThan(1 / 30);
    // The presenter's red coat fills the lower middle; the edges show the meadow and no black.
    const [red, green, blue] = colourAt(file, 22, "100:75:85:375");
    expect(red!).toBeGreaterThan(2 * green!);
    expect(red!).toBeGreaterThan(2 * blue!);
    for (const edge of ["2:480:0:0", "2:480:268:0", "270:2:0:0", "270:2:0:478"]) {
      expect(Math.max(...colourAt(file, 22, edge))).toBeGreaterThan(40);
    }
    // The runner's yellow shirt is in the middle half while he crosses the picture.
    const runner = truth.tracks.find((track) => track.id === "teo")!;
    expect(runner.boxes[30]).not.toBeNull();
    const [r, g, b] = colourAt(file, runner.start + 30, "136:76:67:225");
    expect(r! + g!).toBeGreaterThan(2.4 * b!);
    expect(readFileSync(file).length).toBeGreaterThan(20_000);
  });

  expect(problems).toEqual([]);
});
