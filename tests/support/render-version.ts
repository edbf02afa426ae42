import { join } from "node:path";
import { expect, type Page } from "@playwright/test";
import { LONG_WORK } from "./server";

/**
 * Renders a version by the export dialog of the desk and gives the finished file.
 *
 * @param folder where the file is put
 */
export async function renderVersion(page: Page, version: string, folder: string): Promise<string> {
  await page.getByRole("button", { name: /^Export/ }).click();
  const dialog = page.getByRole("dialog", { name: "Export" });
  const versions = dialog.getByRole("list", { name: "Versions" }).getByRole("listitem");
  await expect(versions.first()).toBeVisible();
  let isFound = false;
  for (const row of await versions.all()) {
    const isIt: boolean = !isFound && ((await row.textContent()) ?? "").includes(version);
    isFound ||= isIt;
    await row.getByRole("checkbox").first().setChecked(isIt);
  }
  await dialog.getByRole("button", { name: /^Export ./ }).click();
  const newest = dialog.getByRole("list", { name: "Files of this film" }).getByRole("listitem").first();
  const link = newest.getByRole("link", { name: "Download" });
  await expect(link).toBeVisible({ timeout: LONG_WORK });
  const download = page.waitForEvent("download");
  await link.click();
  const file = join(folder, (await download).suggestedFilename());
  await (await download).saveAs(file);
  await dialog.getByRole("button", { name: "Close" }).click();
  return file;
}
