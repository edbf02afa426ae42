/** A walk over the desk as an editor takes it: five shots of the demo film are corrected, and what that takes is counted. */
import type { Locator, Page } from "@playwright/test";
import { NOW_SHARE } from "../../app/components/desk/views/lane/lane-geometry";
import { middle } from "./places";

/** More than this nobody should need, from opening the film to the last of five corrections. */
export const MOST_ACTIONS = 25;

export interface Walk {
  /** What was done, in order: a press, a drag or a choice each. */
  actions: string[];
  seconds: number;
  /** What the history says was changed. */
  changes: string[];
}

/** Corrects another subject, a key, a range that is left out, a zoom and a movement, each in a shot of its own. */
export async function walk(page: Page, url: string): Promise<Walk> {
  const actions: string[] = [];
  const act = async (what: string, work: () => Promise<void>) => {
    actions.push(what);
    await work();
  };
  const click = (what: string, on: Locator) => act(what, () => on.click());
  const changes: string[] = [];
  const changed = async (pattern: RegExp) => {
    const undo = page.getByRole("button", { name: pattern });
    await undo.waitFor();
    changes.push((await undo.getAttribute("aria-label"))!.replace("Undo: ", ""));
  };
  const shot = async (number: number) => {
    await click(
      `open shot ${number}`,
      page
        .getByRole("listbox", { name: "Shots" })
        .getByRole("option")
        .nth(number - 1),
    );
    await page.getByRole("heading", { name: `Shot ${number}`, exact: true }).waitFor();
  };
  const drag = (what: string, from: { x: number; y: number }, by: { x: number; y: number }) =>
    act(what, async () => {
      await page.mouse.move(from.x, from.y);
      await page.mouse.down();
      await page.mouse.move(from.x + by.x, from.y + by.y, { steps: 6 });
      await page.mouse.up();
    });

  await page.goto(url);
  await page.waitForLoadState("networkidle");
  const began = performance.now();
  await click("open the film", page.getByRole("link", { name: /^Open/ }));
  const skip = page.getByRole("button", { name: "Skip" });
  await skip.waitFor();
  await click("skip the first steps", skip);

  await shot(7);
  await click("follow another", page.getByRole("group", { name: "Subjects" }).getByRole("button").nth(1));
  await changed(/^Undo: Changed the subject/);

  await shot(6);
  const lane = (await page.getByRole("region", { name: "Lane", exact: true }).boundingBox())!;
  // A shot's first key lies on the line that is level with the playhead, below the middle of the window.
  const window = middle((await page.getByLabel("Crop window").boundingBox())!);
  await drag("drag a key", { x: window.x, y: lane.y + Math.round(lane.height * NOW_SHARE) }, { x: 60, y: 0 });
  await changed(/^Undo: (Added|Changed|Moved)/);

  await shot(5);
  const strip = { x: lane.x + lane.width - 9, y: lane.y + lane.height * NOW_SHARE };
  await drag("mark a range", strip, { x: 0, y: 30 });
  await click("leave it out", page.getByRole("button", { name: "Leave out this range" }));
  await changed(/^Undo: Left/);

  await shot(9);
  await click("open the zoom", page.getByRole("combobox", { name: "Zoom", exact: true }));
  await click("select a fixed one", page.getByRole("option", { name: /^Fixed/ }));
  await changed(/^Undo: Changed the zoom/);

  await shot(8);
  await click("select Still", page.getByRole("radio", { name: "Still" }));
  await changed(/^Undo: Changed the movement/);
  return { actions, seconds: (performance.now() - began) / 1000, changes };
}
