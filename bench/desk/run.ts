/**
 * Works on the desk with a real pointer, on the demo film and on a made-up project, and tells how smoothly it goes, how
 * soon the server acknowledges a change, and how much is loaded. With --load-only it only loads, and scrolls through the
 * list of shots; with --small the made-up film is a quarter as large: for films so long that their proxy takes its time.
 * With --exporting the demo film is exported again and again meanwhile.
 *
 *   ./glad-pan bench desk [--shots 300] [--keys 3000] [--frames 40] [--small] [--only demo|made-up] [--load-only]
 *                         [--exporting] [--json OUT.json]
 */
import { writeFileSync } from "node:fs";
import { parseArgs } from "node:util";
import { chromium, type Page, type Response } from "@playwright/test";
import { median } from "~/core/numbers/median";
import { NOW_SHARE } from "../../app/components/desk/views/lane/lane-geometry";
import { LONG_WORK, TestServer } from "../../tests/support/server";
import { picturesPerSecond, type Smoothness, watch } from "./measure";
import { middle, type Place } from "./places";
import { FILM_ID, makeProject } from "./project";
import { MOST_ACTIONS, type Walk, walk } from "./walk";

const { values } = parseArgs({
  options: {
    shots: { type: "string" },
    keys: { type: "string" },
    frames: { type: "string" },
    "load-only": { type: "boolean" },
    small: { type: "boolean" },
    exporting: { type: "boolean" },
    only: { type: "string" },
    json: { type: "string" },
  },
});
const size = {
  shots: Number(values.shots ?? 300),
  keys: Number(values.keys ?? 3000),
  frames: Number(values.frames ?? 40),
  proxy: !values["load-only"],
  small: Boolean(values["load-only"] ?? values.small),
};

const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM_PATH ?? "/usr/bin/chromium",
  args: ["--no-sandbox", "--disable-gpu"],
});

/** Moves the pointer from one place to another, at the pace of a hand. */
async function drag(page: Page, from: Place, to: Place, steps = 60): Promise<void> {
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  for (let i = 1; i <= steps; i++) {
    const share = i / steps;
    await page.mouse.move(from.x + (to.x - from.x) * share, from.y + (to.y - from.y) * share);
    await page.waitForTimeout(16);
  }
  await page.mouse.up();
}
async function wheel(page: Page, at: Place, by: number, times: number): Promise<void> {
  await page.mouse.move(at.x, at.y);
  for (let i = 0; i < times; i++) {
    await page.mouse.wheel(0, by);
    await page.waitForTimeout(16);
  }
}

/** Moves the window with the arrow keys, a key at a time; milliseconds until the server has acknowledged each change. */
async function nudge(page: Page): Promise<number[]> {
  // The browser keeps the first 250 answers and no more.
  await page.evaluate("performance.clearResourceTimings()");
  for (let i = 0; i < 8; i++) {
    await page.getByLabel("Crop window").press("ArrowRight");
    await page.waitForTimeout(600);
  }
  return editTimes(page);
}

const editTimes = (page: Page): Promise<number[]> =>
  page.evaluate<number[]>(
    `performance.getEntriesByType("resource").filter(({ name }) => name.endsWith("/edit")).map(({ duration }) => duration)`,
  );

async function boxOf(page: Page, label: string) {
  const box = await page.getByLabel(label, { exact: false }).first().boundingBox();
  if (!box) throw new Error(`${label} is not on the page`);
  return box;
}

interface Measured {
  film: string;
  actions: Record<string, Smoothness>;
  /** Pictures that are presented for each second of the film while it plays. */
  pictures: { plain: number; compared: number } | null;
  /** Milliseconds from each of some changes to its acknowledgement. */
  acknowledged: number[];
  /** Bytes, as they come over the wire. */
  poll: number;
  /** The page with the film's data, the first tracks, and all tracks. */
  document: number;
  firstTracks: number;
  allTracks: number;
  /** Megabytes of values in the page, after all that there is has been looked at. */
  heap: number;
}

/** Bytes of answers to a page as they are sent. */
class Loaded {
  private readonly sizes: Promise<{ url: string; bytes: number }>[] = [];
  constructor(page: Page) {
    page.on("response", (response: Response) => {
      const bytes = response
        .request()
        .sizes()
        .then(({ responseBodySize, responseHeadersSize }) => responseBodySize + responseHeadersSize)
        .catch(() => 0);
      this.sizes.push(bytes.then((count) => ({ url: response.url(), bytes: count })));
    });
  }
  /** Those to requests of a kind, in order. */
  async of(pattern: RegExp): Promise<number[]> {
    const all = await Promise.all(this.sizes);
    return all.filter(({ url }) => pattern.test(url)).map(({ bytes }) => bytes);
  }
}

async function measure(film: string, url: string): Promise<Measured> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  const loaded = new Loaded(page);
  await page.goto(url);
  await page.getByRole("option").first().waitFor();
  // The rest comes in the meantime.
  await page.waitForTimeout(15_000);
  const [document = 0] = await loaded.of(/\/films\/[^/]+(\?|$)/);
  const tracks = await loaded.of(/\/tracks/);
  const loads = { document, firstTracks: tracks[0] ?? 0, allTracks: tracks.reduce((sum, bytes) => sum + bytes, 0) };
  const window = middle(await boxOf(page, "Crop window"));
  const lane = await boxOf(page, "Lane");
  const list = middle(await boxOf(page, "Shots"));
  const now = lane.y + lane.height * NOW_SHARE;
  const actions: Record<string, Smoothness> = {};
  const act = async (name: string, work: () => Promise<void>) => {
    actions[name] = await watch(browser, page, work);
    await page.waitForTimeout(800);
  };
  const workOn = async () => {
    await act("drag the window", () => drag(page, window, { x: window.x + 120, y: window.y }));
    // The drag has placed a key at the playhead, on the now line.
    const key = middle(await boxOf(page, "Crop window"));
    await act("drag a key in the lane", () => drag(page, { x: key.x, y: now }, { x: key.x - 90, y: now }));
    await act("scrub the lane", () => wheel(page, { x: lane.x + 40, y: lane.y + lane.height / 2 }, 60, 90));
    const play = async () => {
      await page.keyboard.press("Escape");
      await page.getByRole("button", { name: "Play", exact: true }).click();
      await page.waitForTimeout(3000);
      await page.getByRole("button", { name: "Pause", exact: true }).click();
    };
    await act("play", play);
    const plain = await picturesPerSecond(page, play);
    await page.getByRole("button", { name: "Picture", exact: true }).click();
    await page.getByText("Safe area", { exact: true }).click();
    await page.keyboard.press("Escape");
    await page.keyboard.press("b");
    await act("play, compared, with safe area", play);
    const compared = await picturesPerSecond(page, play);
    await page.keyboard.press("b");
    await page.keyboard.press("Shift+Minus");
    await act("scrub all of the film in the lane", () =>
      wheel(page, { x: lane.x + 60, y: lane.y + lane.height / 2 }, 2, 60),
    );
    return { plain, compared };
  };
  const pictures = values["load-only"] ? null : await workOn();
  await act("scroll the list of shots", () => wheel(page, list, 180, values["load-only"] ? 400 : 90));
  const acknowledged = await nudge(page);
  const session = await context.newCDPSession(page);
  await session.send("HeapProfiler.collectGarbage");
  const { usedSize } = await session.send("Runtime.getHeapUsage");
  const status = await page.request.get(`${url}/status`);
  const poll = (await status.body()).length;
  await context.close();
  return { film, actions, pictures, acknowledged, poll, ...loads, heap: usedSize / 1e6 };
}

/** Exports last longer than what is measured. */
const EXPORTS = 6;

/** Queues exports of the film, and waits until the first of them is being rendered. */
async function exportMeanwhile(url: string): Promise<Page> {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(url);
  await page.getByRole("button", { name: "Export", exact: true }).click();
  const exportAgain = page.getByRole("button", { name: /^Export ./ });
  for (let i = 0; i < EXPORTS; i++) {
    await exportAgain.click();
    await page.waitForTimeout(1500);
  }
  await page.goto(new URL("/exports", url).href);
  await page
    .getByText(/frames per second/)
    .first()
    .waitFor();
  return page;
}

async function onDemo(): Promise<{ measured: Measured; walked: Walk }> {
  const server = new TestServer();
  try {
    await server.start({ GLAD_PAN_DEMO: "1" });
    const page = await browser.newPage();
    await page.goto(server.url);
    await page.getByText("10 shots found").waitFor({ timeout: LONG_WORK });
    const href = await page.getByRole("link", { name: /^Open/ }).getAttribute("href");
    await page.close();
    const walkers = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    const walked = await walk(walkers, server.url);
    await walkers.close();
    const url = `${server.url}${href}`;
    const exports = values.exporting ? await exportMeanwhile(url) : null;
    const measured = await measure(exports ? "demo film, while it is exported" : "demo film", url);
    if (exports && (await exports.getByText("Nothing is waiting.").isVisible())) {
      throw new Error("the exports were done before the measurement was");
    }
    return { measured, walked };
  } finally {
    await server.dispose();
  }
}

async function onMadeUp(): Promise<Measured> {
  const server = new TestServer();
  try {
    await makeProject(server.data, size);
    await server.start();
    return await measure(`${size.shots} shots, ${size.keys} keys`, `${server.url}/films/${FILM_ID}`);
  } finally {
    await server.dispose();
  }
}

try {
  const all: Measured[] = [];
  if (values.only !== "made-up") {
    const { measured, walked } = await onDemo();
    all.push(measured);
    const { actions, changes, seconds } = walked;
    console.log(
      `Five shots corrected in ${actions.length} actions (at most ${MOST_ACTIONS}), ${seconds.toFixed(1)} s at a machine's pace:`,
    );
    console.log(`  ${actions.join(", ")}`);
    console.log(`  ${changes.join("; ")}`);
    if (actions.length > MOST_ACTIONS) process.exitCode = 1;
  }
  if (values.only !== "demo") all.push(await onMadeUp());
  console.table(
    all.flatMap(({ film, actions }) =>
      Object.entries(actions).map(([action, { medianFrame, slowFrame, longTasks, longestTask }]) => ({
        film,
        action,
        "frame ms, median": medianFrame.toFixed(1),
        "95 % (goal ≤ 33)": slowFrame.toFixed(1),
        "tasks > 50 ms": longTasks,
        "longest ms": longestTask.toFixed(0),
      })),
    ),
  );
  console.table(
    all.map(({ film, pictures, acknowledged, poll, document, firstTracks, allTracks, heap }) => ({
      film,
      "acknowledged ms, median (goal ≤ 100)": median(acknowledged).toFixed(0),
      slowest: Math.max(...acknowledged).toFixed(0),
      "pictures per second": pictures?.plain.toFixed(1) ?? "",
      "compared, with safe area": pictures?.compared.toFixed(1) ?? "",
      "poll bytes (goal ≤ 5000)": poll,
      "first answers kB (goal ≤ 300)": ((document + firstTracks) / 1000).toFixed(1),
      "all tracks kB": (allTracks / 1000).toFixed(1),
      "heap MB (goal ≤ 60)": heap.toFixed(1),
    })),
  );
  if (values.json) writeFileSync(values.json, `${JSON.stringify(all, null, 2)}\n`);
} finally {
  await browser.close();
}
