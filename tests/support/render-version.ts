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
  await dialog
    .getByRole("listitem")
    .filter({ hasText: version })
    .first()
    .getByRole("button", { name: "Render" })
    .click();
  const link = dialog.getByRole("link", { name: "Download" }).first();
  await expect(link).toBeVisible({ timeout: LONG_WORK });
  const download = page.waitForEvent("download");
  await link.click();
  const file = join(folder, (await download).suggestedFilename());
  await (await download).saveAs(file);
  await dialog.getByRole("button", { name: "Close" }).click();
  return file;
}
