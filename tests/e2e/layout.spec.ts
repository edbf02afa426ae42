import { expect, type Page, test } from "@playwright/test";
import { EVERY_TEST } from "../support/every-test";
import { fileAt, resultAt } from "../support/pixels";
import { renderVersion } from "../support/render-version";
import { serverWith } from "../support/prepared";

const title = serverWith("title");
const talk = serverWith("talk");
test.beforeAll(() => Promise.all([title.start(), talk.start()]));
test.afterAll(() => Promise.all([title.dispose(), talk.dispose()]));

const rows = (page: Page) => page.getByRole("listbox", { name: "Shots" }).getByRole("option");
const flags = (page: Page) => page.getByRole("list", { name: "Flags" });
const layout = (page: Page, name: string) => page.getByRole("radio", { name, exact: true });

const isNear = (a: readonly number[], b: readonly number[]) => a.every((value, i) => Math.abs(value - b[i]!) <= 6);

// Only this finds a backdrop that the desk shows otherwise than the file has it; each by itself is a unit test's.
(EVERY_TEST ? test : test.skip)(
  "a title that does not fit is shown whole, before a backdrop, on the desk as in the file",
  async ({ page }) => {
    await page.goto(title.url);
    await page.getByRole("link", { name: "Open kite title.mp4" }).click();
    await expect(rows(page)).toHaveCount(2);
    await expect(flags(page)).toContainText("Text cut off");

    await flags(page).getByRole("button", { name: "Show it whole" }).click();
    // Neither is it uncertain whom to follow where all is shown.
    await expect(flags(page)).toHaveCount(0);
    await expect(layout(page, "Whole")).toBeChecked();
    await expect(page.getByText("100% of it, scale 56%")).toBeVisible();

    const backdrop = page.getByRole("combobox", { name: "Backdrop" });
    await backdrop.click();
    await page.getByRole("option", { name: "One colour" }).click();
    await expect.poll(() => resultAt(page, 0.1, 0.1)).toEqual([0x20, 0x24, 0x2c]);
    expect(isNear(await resultAt(page, 0.5, 0.4), [0x20, 0x24, 0x2c])).toBe(false);

    const place = page.getByRole("slider", { name: "Place" });
    await place.press("Home");
    await expect.poll(async () => isNear(await resultAt(page, 0.1, 0.1), [0x20, 0x24, 0x2c])).toBe(false);
    await page.keyboard.press("Control+z");
    await expect.poll(() => resultAt(page, 0.1, 0.1)).toEqual([0x20, 0x24, 0x2c]);

    // On the result itself: dragged to its foot, where it snaps, and up by a key.
    const pane = page.getByRole("button", { name: /^Place of the picture/ });
    const box = (await pane.boundingBox())!;
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    await page.mouse.down();
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2 + 60, { steps: 4 });
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2 + 118, { steps: 4 });
    await page.mouse.up();
    await expect(pane).toHaveAccessibleName("Place of the picture: 100% from top to bottom");
    await expect.poll(async () => isNear(await resultAt(page, 0.5, 0.9), [0x20, 0x24, 0x2c])).toBe(false);
    await pane.press("ArrowUp");
    await expect(pane).toHaveAccessibleName("Place of the picture: 98% from top to bottom");
    await page.keyboard.press("Control+z");
    await page.keyboard.press("Control+z");
    await expect(pane).toHaveAccessibleName("Place of the picture: 50% from top to bottom");

    const file = await renderVersion(page, "Vertical 9:16", title.data);
    expect(isNear(fileAt(file, 25, 0.1, 0.05), [0x20, 0x24, 0x2c])).toBe(true);
    expect(isNear(fileAt(file, 25, 0.1, 0.94), [0x20, 0x24, 0x2c])).toBe(true);
    expect(isNear(fileAt(file, 25, 0.5, 0.36), [0x20, 0x24, 0x2c])).toBe(false);

    // A layout goes to another version; that the first one fills its frame again does not change it there.
    await page.getByRole("button", { name: "Add a version" }).click();
    await page.getByRole("dialog").getByRole("radio", { name: "Square 1:1" }).click();
    await page.getByRole("dialog").getByRole("button", { name: "Add version" }).click();
    await expect(layout(page, "Fill")).toBeChecked();
    const versions = page.getByRole("navigation", { name: "Versions" });
    await versions.getByRole("link", { name: "Vertical 9:16" }).click();
    await expect(layout(page, "Whole")).toBeChecked();
    await page.getByRole("button", { name: "Copy this layout to the other versions" }).click();
    await layout(page, "Fill").click();
    await expect(flags(page)).toContainText("Text cut off");
    await versions.getByRole("link", { name: "Square 1:1" }).click();
    await expect(layout(page, "Whole")).toBeChecked();
    await expect(page.getByText("100% of it, scale 113%")).toBeVisible();
  },
);

test("two who sit apart are stacked: each pane has a window, keyframes and a place of its own, also in the file", async ({
  page,
}) => {
  await page.goto(talk.url);
  await page.getByRole("link", { name: "Open talk.mp4" }).click();
  await expect(page.getByLabel("Subject and reason")).toContainText("talk in turn");
  // Whoever wants both at a time is told that they do not fit, and what would do.
  const follow = async (rule: RegExp) => {
    await page.getByRole("combobox", { name: "What to follow" }).click();
    await page.getByRole("option", { name: rule }).click();
  };
  await follow(/^Two together/);
  await expect(flags(page)).toContainText("Two subjects do not fit");
  await flags(page).getByRole("button", { name: "Stack the two" }).click();
  // Each has a pane then.
  await follow(/^Auto/);
  await expect(layout(page, "Stack")).toBeChecked();
  await expect(page.getByText("Two subjects do not fit")).toHaveCount(0);
  const panes = page.getByRole("button", { name: /^Pane \d$/ });
  await expect(panes).toHaveCount(2);
  await expect(panes.first()).toHaveAttribute("aria-pressed", "true");

  // The second is selected by key, and moved by one: the first stays where it is.
  const centre = page.getByLabel("Centre x");
  const first = await centre.inputValue();
  await page.keyboard.press("2");
  await expect(panes.last()).toHaveAttribute("aria-pressed", "true");
  await expect(centre).not.toHaveValue(first);
  await centre.fill("500");
  await centre.press("Enter");
  await expect(page.getByText("● your keyframe")).toBeVisible();
  await page.getByRole("button", { name: "Select pane 1" }).click();
  await expect(centre).toHaveValue(first);
  await expect(page.getByText("● your keyframe")).toHaveCount(0);

  // What is above has more of the frame, and a gap in a colour of its own.
  const border = page.getByRole("separator", { name: "Border between panes 1 and 2" });
  await border.press("ArrowDown");
  await expect(border).toHaveAttribute("aria-valuenow", "52");
  await page.getByRole("slider", { name: "Gap" }).press("End");
  const gap = [0x10, 0x12, 0x16];
  await expect.poll(async () => isNear(await resultAt(page, 0.5, 0.52), gap)).toBe(true);
  const upper = () => Promise.all([0.1, 0.3, 0.5, 0.7, 0.9].map((x) => resultAt(page, x, 0.25)));
  const above = await upper();
  await page.getByRole("button", { name: "Swap 1 and 2" }).click();
  await expect.poll(async () => isNear((await upper()).flat(), above.flat())).toBe(false);
  await expect(panes.first()).toHaveAccessibleName("Pane 2");

  // Keys are kept while there is one window only.
  await layout(page, "Whole").click();
  await expect(panes).toHaveCount(0);
  await page.keyboard.press("Control+z");
  await expect(panes).toHaveCount(2);
  await panes.first().click();
  await expect(centre).toHaveValue("500");

  const file = await renderVersion(page, "Vertical 9:16", talk.data);
  expect(isNear(fileAt(file, 25, 0.5, 0.49), gap)).toBe(true);
  for (const y of [0.16, 0.78]) expect(isNear(fileAt(file, 25, 0.5, y), gap)).toBe(false);
});
