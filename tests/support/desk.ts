/** The desk of the film with two shots, as tests in the browser use it. */
import { expect, type Page } from "@playwright/test";
import type { TestServer } from "./server";

export const rows = (page: Page) => page.getByRole("listbox", { name: "Shots" }).getByRole("option");
export const timecode = (page: Page) => page.getByLabel(/^Timecode/);

/** Opens the film of a library that was prepared with it. */
export async function openTwoShots(page: Page, { url }: TestServer): Promise<void> {
  await page.goto(url);
  await page.getByRole("link", { name: "Open two-shots.mp4" }).first().click();
  await expect(rows(page)).toHaveCount(2);
}

/** The frame on screen, of a film with thirty per second. */
export async function frameOf(page: Page): Promise<number> {
  const [, , seconds, frames] = (await timecode(page).inputValue()).split(":").map(Number);
  return 30 * seconds! + frames!;
}

export async function goTo(page: Page, frame: number): Promise<void> {
  // What is typed before the page has come to life is lost.
  await expect(async () => {
    await timecode(page).fill(String(frame));
    await timecode(page).press("Enter");
    await timecode(page).blur();
    await expect.poll(() => frameOf(page), { timeout: 2000 }).toBe(frame);
  }).toPass();
}

interface StoredKey {
  frame: number;
  x: number;
  y: number;
  height: number;
}

/** Hand keys of all versions, in order. */
export const storedKeys = (server: TestServer): StoredKey[] =>
  server.query<StoredKey>("SELECT frame, x, y, height FROM hand_keys ORDER BY frame");
