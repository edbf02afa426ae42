/** What a page does while somebody works in it, from the browser's own trace and the pictures that it draws. */
import type { Browser, Page } from "@playwright/test";

export interface Smoothness {
  /** Milliseconds from one picture of the page to the next. */
  medianFrame: number;
  slowFrame: number;
  /** Tasks of the page's main thread that took longer than 50 ms. */
  longTasks: number;
  longestTask: number;
}

const LONG_MS = 50;

interface TraceEvent {
  name: string;
  ph: string;
  pid: number;
  tid: number;
  dur?: number;
  args?: { name?: string };
}

/** Milliseconds of each task of the page's main thread. */
function mainThreadTasks(trace: Buffer, pageProcess: number): number[] {
  const { traceEvents } = JSON.parse(trace.toString()) as { traceEvents: TraceEvent[] };
  const threads = traceEvents.filter(({ name, args }) => name === "thread_name" && args?.name === "CrRendererMain");
  const main = threads.find(({ pid }) => pid === pageProcess) ?? threads[0];
  return traceEvents
    .filter(({ name, ph, pid, tid }) => name === "RunTask" && ph === "X" && pid === main?.pid && tid === main.tid)
    .map(({ dur = 0 }) => dur / 1000);
}

const quantile = (values: readonly number[], share: number): number =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(share * values.length))] ?? Number.NaN;

/** Notes in the page when each of its pictures is drawn. As text, because what it is compiled to here is not known there. */
const NOTE_FRAMES = `
  var notedFrames = [];
  var watching = true;
  var note = (at) => { notedFrames.push(at); if (watching) requestAnimationFrame(note); };
  requestAnimationFrame(note);
`;

/** Counts the film's pictures as the browser presents them; each is drawn upon and framed in that moment. */
const COUNT_PICTURES = `
  var presented = 0;
  var video = document.querySelector("video");
  var startedAt = video.currentTime;
  var counting = true;
  var count = () => { presented++; if (counting) video.requestVideoFrameCallback(count); };
  video.requestVideoFrameCallback(count);
`;

/** Lets a page play, and tells how many pictures are presented for each second of the film that goes by. */
export async function picturesPerSecond(page: Page, play: () => Promise<void>): Promise<number> {
  await page.evaluate(COUNT_PICTURES);
  await play();
  return page.evaluate<number>("counting = false; presented / (video.currentTime - startedAt)");
}

/** Lets somebody work in a page, and tells how smoothly it goes. */
export async function watch(browser: Browser, page: Page, work: () => Promise<void>): Promise<Smoothness> {
  await page.evaluate(NOTE_FRAMES);
  await browser.startTracing(page, {
    categories: ["toplevel", "devtools.timeline", "disabled-by-default-devtools.timeline"],
  });
  await work();
  const trace = await browser.stopTracing();
  const frames = await page.evaluate<number[]>("watching = false; notedFrames");
  const steps = frames.slice(1).map((at, i) => at - frames[i]!);
  const session = await page.context().newCDPSession(page);
  const { processInfo } = await (await browser.newBrowserCDPSession()).send("SystemInfo.getProcessInfo");
  await session.detach();
  const renderer = processInfo.filter(({ type }) => type === "renderer").sort((a, b) => b.cpuTime - a.cpuTime)[0];
  const long = mainThreadTasks(trace, renderer?.id ?? 0).filter((ms) => ms > LONG_MS);
  return {
    medianFrame: quantile(steps, 0.5),
    slowFrame: quantile(steps, 0.95),
    longTasks: long.length,
    longestTask: long.length > 0 ? Math.max(...long) : 0,
  };
}
