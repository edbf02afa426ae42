/** Switches within a shot: found by themselves, moved in the lane, given to somebody else, taken out, and ruled out. */
import { expect, type Page, test } from "@playwright/test";
import { readRule } from "~/core/subjects/choosing/follow-rule";
import { rows } from "../support/desk";
import { serverWith } from "../support/prepared";

const server = serverWith("talk");
test.beforeAll(() => server.start());
test.afterAll(() => server.dispose());

const reason = (page: Page) => page.getByLabel("Subject and reason");
const switches = (page: Page) => page.getByRole("list", { name: "Switches" }).getByRole("listitem");
const undo = (page: Page) => page.getByRole("button", { name: /^Undo/ }).first();

/** The frames at which the shot switches, as they are stored; null where it is left to the solver. */
function storedTurns(): number[] | null {
  const [shot] = server.query<{ subject: string }>("SELECT subject FROM shots");
  const rule = readRule(shot!.subject);
  return rule.kind === "switches" ? rule.switches.map(({ frame }) => frame) : null;
}

test("two who talk have the window in turn, and each switch can be changed", async ({ page }) => {
  await page.goto(server.url);
  await page.getByRole("link", { name: "Open talk.mp4" }).first().click();
  await expect(rows(page)).toHaveCount(1);

  await test.step("the choice is whoever talks", async () => {
    await expect(reason(page)).toContainText("two talk in turn, 2 switches");
    await expect(switches(page)).toHaveCount(3);
    await expect(switches(page).nth(1)).toContainText("another speaks");
    expect(storedTurns()).toBeNull();
  });

  await test.step("a switch is dragged in the lane, and all of them stay from then on", async () => {
    await switches(page)
      .nth(1)
      .getByRole("button", { name: /^Go to/ })
      .click();
    const lane = (await page.getByRole("region", { name: "Lane", exact: true }).boundingBox())!;
    // The playhead is at the switch, so that is level with the now line.
    const [x, now] = [lane.x + lane.width / 3, lane.y + Math.round(0.3 * lane.height)];
    await page.mouse.move(x, now);
    await page.mouse.down();
    await page.mouse.move(x, now + 12, { steps: 4 });
    await page.mouse.move(x, now + 33, { steps: 4 });
    await page.mouse.up();
    await expect(reason(page)).toContainText("2 switches, set by you");
    // The desk does not wait until it is stored.
    await expect.poll(() => storedTurns()?.length).toBe(3);
    const stored = storedTurns();
    await expect(switches(page).nth(1)).toContainText("set by you");
    await undo(page).click();
    await expect.poll(storedTurns).toBeNull();
    await expect(reason(page)).toContainText("two talk in turn");
    await page.getByRole("button", { name: /^Redo/ }).first().click();
    await expect.poll(storedTurns).toEqual(stored);
  });

  await test.step("a switch is given to somebody else, and taken out", async () => {
    const last = switches(page).last();
    await last.getByRole("combobox").click();
    await page.getByRole("option", { name: "Nothing" }).click();
    await expect(last.getByRole("combobox")).toContainText("Nothing");
    await last.getByRole("button", { name: /^Delete the switch/ }).click();
    await expect(switches(page)).toHaveCount(2);
    await expect(reason(page)).toContainText("1 switch, set by you");
  });

  await test.step("how long a hold lasts is set for the shot", async () => {
    await page.getByRole("combobox", { name: "What to follow" }).click();
    await page.getByRole("option", { name: /^Auto/ }).click();
    await expect(switches(page)).toHaveCount(3);
    await page.getByLabel("Shortest stay (s)").fill("9");
    await page.keyboard.press("Enter");
    await expect(switches(page)).toHaveCount(0);
    await undo(page).click();
    await expect(switches(page)).toHaveCount(3);
  });

  await test.step("somebody who must be in the picture keeps the window", async () => {
    await page.getByRole("button", { name: "People", exact: true }).click();
    const first = page.getByRole("dialog").getByRole("listitem").first();
    await first.getByRole("checkbox", { name: /must be in the picture/i }).click();
    await page.keyboard.press("Escape");
    await expect(reason(page)).toContainText("must be in the picture");
    await expect(switches(page)).toHaveCount(0);
    const attention = () => server.query<{ attention: string | null }>("SELECT attention FROM films")[0]!.attention;
    await expect.poll(() => JSON.parse(attention() ?? "{}") as unknown).toMatchObject({ mustHave: ["p1"] });
    // Where the window is on the other one, it says who is missing, and what can be done.
    await page.getByRole("combobox", { name: "What to follow" }).click();
    await page.getByRole("option", { name: /^The second/ }).click();
    await expect(page.getByText(/^A must be in the picture and is missing/)).toBeVisible();
    await page.getByRole("button", { name: "Not needed in this shot" }).click();
    await expect(page.getByText(/^A must be in the picture and is missing/)).toHaveCount(0);
    await undo(page).click();
    await page.getByRole("button", { name: "Leave out the shot" }).click();
    await expect.poll(() => server.query<{ excluded: number }>("SELECT excluded FROM shots")[0]!.excluded).toBe(1);
  });
});
