/** Lists whose rows are dragged. */
import { expect, type Locator, type Page } from "@playwright/test";

/**
 * Moves a row up in its list by the keyboard, a step at a time, as somebody does who waits until each step is said.
 *
 * @param grip what the row is dragged by
 * @param from which row it is, from 1
 * @param to where it goes, above that
 */
export async function moveUp(page: Page, grip: Locator, from: number, to: number): Promise<void> {
  const said = (place: number) => page.getByText(new RegExp(`: ${place} of \\d+$`));
  await grip.focus();
  await page.keyboard.press("Space");
  await expect(said(from)).toBeAttached();
  for (let place = from - 1; place >= to; place--) {
    await page.keyboard.press("ArrowUp");
    await expect(said(place)).toBeAttached();
  }
  await page.keyboard.press("Space");
  await expect(page.getByText(/ dropped: /)).toBeAttached();
}
