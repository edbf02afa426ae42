/** Captions: from a file and by hand, in the lane, by rules, and in what is exported. */
import { execFileSync } from "node:child_process";
import { expect, type Page, test } from "@playwright/test";
import { goTo, openTwoShots } from "../support/desk";
import { fileAt, resultAt } from "../support/pixels";
import { renderVersion } from "../support/render-version";
import { serverWith } from "../support/prepared";

const server = serverWith("two-shots");
test.beforeAll(() => server.start());
test.afterAll(() => server.dispose());

interface Stored {
  start: number;
  end: number;
  text: string;
  speaker: string | null;
}

const stored = () => server.query<Stored>("SELECT start, end, text, speaker FROM captions ORDER BY start");
const list = (page: Page) => page.getByRole("listbox", { name: "Captions of the film" });
const captions = (page: Page) => list(page).getByRole("option");
const words = (page: Page) => page.getByRole("textbox", { name: "Text of the caption" });
const button = (page: Page, name: string) => page.getByRole("button", { name, exact: true });
const inMenu = async (page: Page, name: string | RegExp) => {
  await button(page, "More for captions").click();
  await page.getByRole("menuitem", { name }).click();
};
const undo = (page: Page) => page.getByRole("button", { name: /^Undo/ }).first();

const SRT = `1
00:00:00,200 --> 00:00:01,000
Ada: the wind turns
over the water and comes back to the wall again, and then it rests

2
00:00:01,200 --> 00:00:00,900
backwards

3
00:00:01,400 --> 00:00:02,000
Hold on`;

test("come from a file, are changed by hand and in the lane, and are in the exported file and beside it", async ({
  page,
}) => {
  await openTwoShots(page, server);
  await page.getByRole("radio", { name: "Captions" }).click();

  await test.step("a file in UTF-16 is read, and what cannot be used of it is told by its line", async () => {
    await button(page, "Import or paste…").click();
    const dialog = page.getByRole("dialog");
    await dialog.getByLabel("Caption file").setInputFiles({
      name: "empty.srt",
      mimeType: "text/plain",
      buffer: Buffer.from("1\n00:00:01,000 --> 00:00:00,500\nno\n"),
    });
    await expect(dialog.getByRole("alert")).toContainText("empty.srt: no captions found");
    await dialog.getByLabel("Caption file").setInputFiles({
      name: "talk.srt",
      mimeType: "text/plain",
      buffer: Buffer.from(`\uFEFF${SRT.replaceAll("\n", "\r\n")}`, "utf16le"),
    });
    await expect(dialog.getByText("talk.srt: 2 captions")).toBeVisible();
    await expect(dialog.getByRole("list", { name: "Problems in the file" })).toContainText("Line 7");
    await dialog.getByLabel("Offset (s)").fill("0.1");
    await dialog.getByLabel("Offset (s)").press("Enter");
    await dialog.getByRole("button", { name: "Import 2 captions" }).click();
    await expect(captions(page)).toHaveCount(2);
    const times = () => stored().map(({ start, end }) => [start, end]);
    await expect.poll(times).toEqual([
      [9, 33],
      [45, 63],
    ]);
  });

  await test.step("what breaks a rule is marked, and mended in one click", async () => {
    await captions(page).first().click();
    const selected = page.getByRole("region", { name: "Selected caption" });
    await expect(selected).toContainText("characters per second; at most 20");
    await selected.getByRole("button", { name: "Fix" }).click();
    await expect.poll(() => stored().length).toBeGreaterThan(2);
    await expect(undo(page)).toHaveAccessibleName(/^Undo: Fixed/);
    await undo(page).click();
    await expect.poll(() => stored().length).toBe(2);
  });

  await test.step("is typed, split, merged, and undone", async () => {
    await captions(page).last().click();
    await words(page).fill("Hold on to it");
    await words(page).press("Home");
    for (let i = 0; i < 8; i++) await words(page).press("ArrowRight");
    await words(page).press("Control+Enter");
    await expect
      .poll(() =>
        stored()
          .map(({ text }) => text)
          .slice(1),
      )
      .toEqual(["Hold on", "to it"]);
    const [, first, second] = stored();
    expect(first!.end).toBe(second!.start);
    await captions(page).nth(1).click();
    await button(page, "Merge with the next caption").click();
    await expect.poll(() => stored()[1]).toMatchObject({ text: "Hold on to it", start: 45, end: 63 });
    await page.getByRole("combobox", { name: "Speaker" }).fill("Bram");
    await page.getByRole("combobox", { name: "Speaker" }).press("Enter");
    await expect.poll(() => stored()[1]!.speaker).toBe("Bram");
  });

  await test.step("is dragged in the lane, and comes to rest at the cut", async () => {
    await goTo(page, 45);
    const lane = (await page.getByRole("region", { name: "Lane", exact: true }).boundingBox())!;
    // A block stands left of waveform and strip; its first pixel is on the line of the playhead.
    const at = { x: lane.x + lane.width - 18 - 30 - 80, y: lane.y + 0.3 * lane.height + 10 };
    await page.mouse.move(at.x, at.y);
    await page.mouse.down();
    await page.mouse.move(at.x, at.y + 12, { steps: 4 });
    await page.mouse.move(at.x, at.y + 3, { steps: 4 });
    await page.mouse.up();
    // The cut is at 45: so near it, it stays there.
    await expect.poll(() => stored()[1]!.start).toBe(45);
    await page.mouse.move(at.x, at.y);
    await page.mouse.down();
    await page.mouse.move(at.x, at.y + 24, { steps: 6 });
    await page.mouse.up();
    await expect.poll(() => stored()[1]!.start).toBeGreaterThan(60);
    await expect(undo(page)).toHaveAccessibleName(/^Undo: Moved a caption/);
    await undo(page).click();
    await expect.poll(() => stored()[1]!.start).toBe(45);
  });

  await test.step("starts and ends at the playhead by keys, and new ones are typed", async () => {
    await captions(page).first().click();
    await goTo(page, 12);
    await page.keyboard.press("9");
    await expect.poll(() => stored()[0]!.start).toBe(12);
    await goTo(page, 30);
    await page.keyboard.press("0");
    await expect.poll(() => stored()[0]!.end).toBe(31);
    await expect(words(page)).toHaveValue("Hold on to it");
    await goTo(page, 80);
    await page.keyboard.press("e");
    await page.keyboard.type("Land!");
    await page.keyboard.press("Enter");
    await expect.poll(() => stored()[2]).toMatchObject({ start: 80, text: "Land!" });
  });

  await test.step("all are searched, shifted, and shifted back", async () => {
    await inMenu(page, "Find and replace…");
    await page.getByLabel("Find", { exact: true }).fill("HOLD ON");
    await page.getByLabel("Replace with").fill("Hang on");
    await button(page, "Replace all").click();
    await expect.poll(() => stored()[1]!.text).toBe("Hang on to it");
    await inMenu(page, "Shift in time…");
    await page.getByLabel("Shift by (s)").fill("0.2");
    await page.getByLabel("Shift by (s)").press("Enter");
    await page.getByRole("region", { name: "Shift in time" }).getByRole("button", { name: "All captions" }).click();
    await expect.poll(() => stored()[1]!.start).toBe(51);
    await undo(page).click();
    await expect.poll(() => stored()[1]!.start).toBe(45);
  });

  await test.step("stand where they are put, and are in the file, beside it and in its track", async () => {
    await captions(page).nth(1).click();
    await page.getByRole("slider", { name: "Height in this version" }).press("Home");
    await expect
      .poll(() => server.query<{ captions: string }>("SELECT captions FROM versions")[0]!.captions)
      .toMatch(/"places":\{"[^"]+":0\}/);
    for (const name of ["SRT and WebVTT files beside it", "Text track in the MP4"]) {
      await page.getByLabel(name).click();
    }
    const file = await renderVersion(page, "Vertical 9:16", server.data);
    const probe = execFileSync("ffprobe", [
      "-v",
      "error",
      "-show_entries",
      "stream=codec_name",
      "-of",
      "csv=p=0",
      file,
    ]);
    expect(probe.toString()).toContain("mov_text");
    // What is burnt in is where it was put, near the top: its box darkens the picture, as on the desk.
    const [x, y] = [0.32, 0.078] as const;
    const light = (colour: readonly number[]) => colour.reduce((sum, value) => sum + value, 0);
    expect(light(fileAt(file, 50, x, y))).toBeLessThan(0.7 * light(fileAt(file, 70, x, y)));
    await goTo(page, 50);
    const off = async () => Math.abs(light(await resultAt(page, x, y)) - light(fileAt(file, 50, x, y)));
    await expect.poll(off).toBeLessThan(40);
    await button(page, "Export").click();
    const read = async (name: string) => {
      const link = page.getByRole("dialog").getByRole("link", { name });
      return (await page.request.get(`${server.url}${await link.getAttribute("href")}`)).text();
    };
    expect(await read("SRT")).toContain("00:00:01,500 --> 00:00:02,100\nHang on to it");
    const vtt = await read("WebVTT");
    expect(vtt).toContain("<v Bram>Hang on to it");
    // The browser reads the file that lies beside the film.
    const cues = await page.evaluate(
      (text) =>
        new Promise<string[]>((resolve) => {
          const video = document.createElement("video");
          const track = document.createElement("track");
          track.src = URL.createObjectURL(new Blob([text], { type: "text/vtt" }));
          track.default = true;
          track.onload = () => resolve([...track.track.cues!].map((cue) => (cue as VTTCue).text));
          video.append(track);
          document.body.append(video);
        }),
      vtt,
    );
    expect(cues).toHaveLength(3);
  });
});
