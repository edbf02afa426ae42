import { expect, type Page, test } from "@playwright/test";
import { serverWith } from "../support/prepared";

const server = serverWith("title");
test.beforeAll(() => server.start());
test.afterAll(() => server.dispose());

const rows = (page: Page) => page.getByRole("listbox", { name: "Shots" }).getByRole("option");

test("a title is not followed, is told where it does not fit, and is let go of", async ({ page }) => {
  await page.goto(server.url);
  await page.getByRole("link", { name: "Open kite title.mp4" }).click();
  await expect.poll(() => rows(page).count()).toBe(2);

  const flags = page.getByRole("list", { name: "Flags" });
  const texts = page.getByRole("list", { name: "Text over the picture" });
  await expect(page.getByText("no clear subject")).toBeVisible();
  await expect(flags).toContainText(/“Ferrow Kite Day an afternoon above the salt meadows” cut off for 2.8 s/);
  await expect(texts.getByRole("listitem")).toHaveText([/^“Ferrow Kite Day .* 84 frames: too wide to keep/]);

  await texts.getByRole("button", { name: "Ignore" }).click();
  await expect(texts).toHaveCount(0);
  await expect(flags).not.toContainText("cut off");
  await page.keyboard.press("Control+z");
  await expect(texts.getByRole("listitem")).toHaveCount(1);
  await expect(flags).toContainText("cut off");
});

test("a title is found by its words, and replaced by them", async ({ page }) => {
  await page.goto(server.url);
  await page.getByRole("link", { name: "Open kite title.mp4" }).click();
  await expect.poll(() => rows(page).count()).toBe(2);
  await page.getByRole("button", { name: "Show: All shots" }).click();
  await page.getByRole("menuitemradio", { name: "With text" }).click();
  const words = page.getByRole("searchbox", { name: "Words in the picture" });
  await words.fill("salt MEADOWS");
  await expect(rows(page)).toHaveCount(1);
  await words.fill("salt marshes");
  await expect(rows(page)).toHaveCount(0);

  await page.getByRole("button", { name: "Replace it" }).click();
  await expect(page.getByRole("textbox", { name: "Text" })).toHaveValue(
    "Ferrow Kite Day\nan afternoon above the salt meadows",
  );
  await page.getByRole("radio", { name: "Shot", exact: true }).click();
  await expect(page.getByRole("list", { name: "Flags" })).not.toContainText("cut off");
});
