/**
 * Films placed in a film: in a pane, behind it and above it, on the desk and in the file, frame by frame. Only here is it seen
 * that what the browser plays in a pane is the frame that the file has, and at the cut no other.
 */
import { execFileSync } from "node:child_process";
import { join } from "node:path";
import { expect, type Page, test } from "@playwright/test";
import { probeFilm } from "~/media/probe.server";
import { goTo, openTwoShots } from "../support/desk";
import { framesAt, resultAt } from "../support/pixels";
import { renderVersion } from "../support/render-version";
import { serverWith } from "../support/prepared";
import { LONG_WORK, type TestServer } from "../support/server";

// Every test begins with a film in which nothing is placed.
let server: TestServer;
test.beforeEach(async () => {
  server = serverWith("two-shots");
  await server.start();
});
test.afterEach(() => server.dispose());

/** How much lighter each frame of a clip is than the one before. */
const STEP = 5;
const lightOf = (frame: number) => 40 + STEP * frame;

/** A clip of forty even frames that get lighter, 30 per second; clear but for its middle if it has alpha. */
function clip(name: string, ...options: string[]): string {
  const light = `geq=r='40+${STEP}*N':g='40+${STEP}*N':b='40+${STEP}*N':a='if(between(X,40,119),255,${name.endsWith("webm") ? 0 : 255})'`;
  const picture = `color=black:s=160x90:r=30:d=1.33,format=rgba,${light},scale=out_color_matrix=bt709:out_range=tv`;
  const sound = name.endsWith("webm") ? [] : ["-f", "lavfi", "-i", "sine=f=900:d=1.33"];
  const file = join(server.data, name);
  const inputs = ["-f", "lavfi", "-i", picture, ...sound];
  execFileSync("ffmpeg", ["-v", "error", "-y", ...inputs, ...options, "-colorspace", "bt709", file]);
  return file;
}

const lighter = () => clip("lighter.mp4", "-c:v", "libx264", "-qp", "6", "-pix_fmt", "yuv420p", "-c:a", "aac");

const rows = (page: Page) => page.getByRole("listbox", { name: "Shots" }).getByRole("option");
const pane = (page: Page) => page.getByRole("region", { name: "What pane 2 shows" });
const isNear = (seen: readonly number[], wanted: readonly number[], by: number) =>
  expect(Math.max(...seen.map((value, i) => Math.abs(value - wanted[i]!)))).toBeLessThanOrEqual(by);

test("a clip runs in a pane from its in point, sounds there, and is in the file frame by frame at the cut", async ({
  page,
}) => {
  const file = lighter();
  await openTwoShots(page, server);
  await rows(page).last().click();
  await page.getByRole("radio", { name: "Stack", exact: true }).click();
  const none = { name: "notes.mp4", mimeType: "video/mp4", buffer: Buffer.from("no film at all") };
  await page.getByLabel("Other content: file").setInputFiles(none);
  await expect(page.getByText(/notes\.mp4: /)).toBeVisible();
  await page.getByLabel("Other content: file").setInputFiles(file);
  await expect(pane(page)).toContainText("lighter.mp4", { timeout: LONG_WORK });
  // The other pane is the only one with a window.
  await expect(page.getByRole("radiogroup", { name: "Pane", exact: true })).toHaveCount(0);
  const inPoint = pane(page).getByLabel("In point (s)");
  await inPoint.fill("0.1");
  await inPoint.press("Enter");
  await pane(page).getByText("Sound of this pane").click();
  await page.getByText("Sound of this film").click();

  // The second shot begins at frame 45 with the fourth frame of the clip, and goes on frame by frame.
  for (const frame of [45, 46, 60]) {
    await goTo(page, frame);
    const wanted = lightOf(3 + frame - 45);
    await expect.poll(async () => Math.abs((await resultAt(page, 0.5, 0.75))[1]! - wanted)).toBeLessThanOrEqual(2);
  }

  const rendered = await renderVersion(page, "Vertical 9:16", server.data);
  const seen = framesAt(rendered, 45, 54, 0.5, 0.75).map(([red]) => red!);
  // Fifty-four frames of the shot, and thirty-seven of the clip from there on: then its last one stands.
  isNear(
    seen,
    seen.map((_, i) => lightOf(Math.min(39, 3 + i))),
    2,
  );
  // The first shot has nothing of it.
  expect(framesAt(rendered, 44, 1, 0.5, 0.75)[0]).not.toEqual(framesAt(rendered, 45, 1, 0.5, 0.75)[0]);
  expect((await probeFilm(rendered)).audio).not.toBeNull();
});

// Only here is alpha seen to come through a browser's own decoder, and a loop of a film of the library behind the picture.
test("a clip that can be seen through lies above the film, and a film of the library loops behind it", async ({
  page,
}) => {
  const file = clip("spark.webm", "-c:v", "libvpx-vp9", "-pix_fmt", "yuva420p", "-crf", "6", "-b:v", "0");
  await page.goto(server.url);
  await page.getByLabel("Film files").setInputFiles(lighter());
  await expect(page.getByRole("link", { name: "Open lighter.mp4" })).toBeVisible();
  await openTwoShots(page, server);
  await rows(page).first().click();
  await page.getByRole("radio", { name: "Whole", exact: true }).click();
  await page.getByRole("combobox", { name: "Backdrop" }).click();
  await page.getByRole("option", { name: "Your picture or film" }).click();
  await page.getByRole("button", { name: "From library" }).click();
  await page.getByRole("menuitem", { name: "lighter.mp4" }).click();
  await expect(page.getByText("lighter.mp4").first()).toBeVisible({ timeout: LONG_WORK });

  await page.getByRole("radio", { name: "Layers" }).click();
  await page.getByLabel("Picture: file").setInputFiles(file);
  const list = page.getByRole("list", { name: "Layers, the one in front first" });
  await expect(list).toContainText("spark.webm", { timeout: LONG_WORK });
  for (const side of ["Comes in", "Goes out"]) {
    await page.getByRole("combobox", { name: side }).click();
    await page.getByRole("option", { name: "Cut", exact: true }).click();
  }

  // In the upper right corner: its middle, its clear edge, and the backdrop below, all at frame 42: it has begun again.
  await goTo(page, 42);
  const wanted = lightOf(2);
  const off = async (x: number, y: number) => Math.abs((await resultAt(page, x, y))[1]! - wanted);
  await expect.poll(() => off(0.8, 0.09)).toBeLessThanOrEqual(2);
  await expect.poll(() => off(0.5, 0.95)).toBeLessThanOrEqual(2);

  const rendered = await renderVersion(page, "Vertical 9:16", server.data);
  const frames = Array.from({ length: 44 }, (_, i) => lightOf(i % 40));
  const layer = framesAt(rendered, 0, 44, 0.796, 0.0885).map(([red]) => red!);
  const behind = framesAt(rendered, 0, 44, 0.5, 0.9375).map(([red]) => red!);
  isNear(layer, frames, 2);
  isNear(behind, frames, 2);
});
