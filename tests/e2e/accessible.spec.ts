/** Every view is checked against the rules of WCAG 2.1, levels A and AA, in both themes. */
import AxeBuilder from "@axe-core/playwright";
import { expect, type Page, test } from "@playwright/test";
import { goTo, openTwoShots, rows } from "../support/desk";
import { EVERY_TEST } from "../support/every-test";
import { serverWith } from "../support/prepared";
import { TestServer } from "../support/server";

const server = serverWith("two-shots");
const empty = new TestServer();
test.beforeAll(() => Promise.all([server.start(), empty.start()]));
test.afterAll(() => Promise.all([server.dispose(), empty.dispose()]));

const RULES = ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "best-practice"];

/**
 * What is wrong with what is on the page, or with what lies above it, each with where.
 *
 * @param colours whether only what depends on the theme is looked at
 */
async function violations(page: Page, colours: boolean, above: string | null): Promise<string[]> {
  const builder = new AxeBuilder({ page });
  if (above !== null) builder.include(above);
  if (colours) builder.withRules("color-contrast");
  // Who speaks to a control says what is written on it.
  else builder.withTags(RULES).options({ rules: { "label-content-name-mismatch": { enabled: true } } });
  const { violations: found } = await builder.analyze();
  return found.map(
    ({ id, nodes }) => `${id}: ${nodes.map(({ html, any }) => `${html} ${any[0]?.message ?? ""}`).join(" | ")}`,
  );
}

const press = (page: Page, name: string | RegExp) => page.getByRole("button", { name, exact: true }).click();

// What is dark breaks other rules only by its colours, which all come from one table.
for (const colorScheme of EVERY_TEST ? (["light", "dark"] as const) : (["light"] as const)) {
  test(`no view breaks a rule in the ${colorScheme} theme`, async ({ page }) => {
    await page.emulateMedia({ colorScheme, reducedMotion: "reduce" });
    const isDark = colorScheme === "dark";
    const check = async (view: string, above: string | null = null) =>
      expect.soft(await violations(page, isDark, above), view).toEqual([]);
    // What lies below was looked at before. Panels and dialogs are made of the same parts as the views: only the long run finds
    // a label that is missing in one of them.
    const checkAbove = async (view: string) => {
      if (EVERY_TEST) await check(view, "[role=dialog]");
    };
    await page.goto(empty.url);
    await expect(page.getByLabel("Film files")).toBeAttached();
    await check("library");
    await openTwoShots(page, server);
    await goTo(page, 20);
    await page.keyboard.press("a");
    await expect(rows(page).first()).toContainText("● 1");
    await check("desk");
    await page.getByRole("radio", { name: "Keyframes", exact: true }).click();
    await check("keyframes");
    await page.getByRole("radio", { name: "Layers" }).click();
    await check("layers");
    await page.getByRole("radio", { name: "Captions" }).click();
    await check("captions, none yet");
    await page.keyboard.press("e");
    await page.keyboard.type("Hold on");
    await page.keyboard.press("Enter");
    await page.getByRole("button", { name: "Rules" }).click();
    await page.getByRole("button", { name: "Style", exact: true }).click();
    await check("captions");
    await page.getByRole("button", { name: "Import or paste…" }).click();
    await check("importing captions", "[role=dialog]");
    await page.keyboard.press("Escape");
    await page.getByRole("radio", { name: "Shot", exact: true }).click();
    await page.getByRole("radio", { name: "Stack" }).click();
    await check("stack");
    await page.getByRole("radio", { name: "Whole" }).click();
    await check("whole");
    await page.getByRole("radio", { name: "Fill" }).click();
    await page.keyboard.press("b");
    await page.getByRole("radio", { name: "Split" }).click();
    await check("comparing");
    await page.getByRole("radio", { name: "Beside" }).click();
    await page.keyboard.press("b");
    for (const panel of ["History", "Picture", "Compare aspect ratios", /^Length of the version/]) {
      await press(page, panel);
      await checkAbove(String(panel));
      await page.keyboard.press("Escape");
    }
    for (const dialog of ["Shortcuts", "Export", "Add a version", /^People/, /^About/, /^Presets/, /^Cuts/]) {
      await press(page, dialog);
      await checkAbove(String(dialog));
      await page.keyboard.press("Escape");
      await expect(page.getByRole("dialog")).toHaveCount(0);
    }
    await press(page, "Export");
    await page.getByRole("button", { name: /^Settings:/ }).click();
    await checkAbove("export settings");
    await page.keyboard.press("Escape");
    await press(page, /^Flags/);
    await page.getByRole("button", { name: "Thresholds" }).click();
    await check("flags");
    await press(page, "Back to the desk");
    await page.keyboard.press("Delete");
    await page.goto(`${server.url}/exports`);
    await check("exports");
    await press(page, "Export films");
    await checkAbove("exporting films");
    await page.goto(server.url);
    await expect(page.getByRole("link", { name: "Open two-shots.mp4" }).first()).toBeVisible();
    await check("library with a film");
  });
}
