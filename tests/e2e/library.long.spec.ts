/** Only here is an item of a film's menu clicked, and seen to do what it says; what the items do has tests of its own. */
import { copyFileSync, mkdirSync } from "node:fs";
import { join } from "node:path";
import { expect, type Page, test } from "@playwright/test";
import { serverWith } from "../support/prepared";
import { LONG_WORK, TestServer } from "../support/server";

const server = serverWith("two-shots");
const other = new TestServer();
test.beforeAll(async () => {
  const media = join(server.data, "media");
  mkdirSync(media);
  for (const name of ["four-by-three", "runner-60"]) copyFileSync(`demo/clips/${name}.mp4`, join(media, `${name}.mp4`));
  await server.start({ GLAD_PAN_MEDIA: media });
});
test.afterAll(async () => {
  await server.dispose();
  await other.dispose();
});

const card = (page: Page, name: string) => page.getByRole("listitem").filter({ hasText: name });
const open = (page: Page, name: string) => page.getByRole("link", { name: `Open ${name}` });
const section = (page: Page, name: string) =>
  page.getByRole("navigation", { name: "Sections" }).getByRole("button", { name: new RegExp(`^${name}`) });
const rows = (page: Page) => page.getByRole("listbox", { name: "Shots" }).getByRole("option");
const versions = (page: Page) => page.getByRole("navigation", { name: "Versions" }).getByRole("link");

/** Opens the library, and waits until it answers to clicks. */
async function home(page: Page, { url }: TestServer): Promise<void> {
  const ready = page.waitForResponse(/\/space/);
  await page.goto(url);
  await ready;
}

async function selectItem(page: Page, film: string, item: string): Promise<void> {
  await page.getByRole("button", { name: `More for ${film}`, exact: true }).click();
  await page.getByRole("menuitem", { name: item, exact: true }).click();
}

test("films are named, duplicated, put away, deleted and brought back; a preset goes from film to film", async ({
  page,
}) => {
  const problems: string[] = [];
  page.on("pageerror", (error) => problems.push(error.message));
  await home(page, server);
  await expect(page.getByText("2 shots found")).toBeVisible();

  await test.step("a film is renamed, and called as before again", async () => {
    await selectItem(page, "two-shots.mp4", "Rename");
    await page.getByLabel("Name of the film").fill("Kite morning");
    await page.getByLabel("Name of the film").press("Enter");
    await expect(open(page, "Kite morning")).toBeVisible();
    await page.getByRole("button", { name: "Undo" }).click();
    await expect(open(page, "two-shots.mp4")).toBeVisible();
    await selectItem(page, "two-shots.mp4", "Rename");
    await page.getByLabel("Name of the film").fill("Kite morning.mp4");
    await page.getByRole("button", { name: "Rename" }).click();
  });

  await test.step("the versions of one film are kept as a preset", async () => {
    await open(page, "Kite morning.mp4").click();
    await expect(rows(page)).toHaveCount(2);
    await page.getByRole("button", { name: "Add a version" }).click();
    await page.getByRole("radio", { name: "Portrait 4:5" }).click();
    await page.getByRole("dialog").getByRole("radio", { name: "Still" }).click();
    await page.getByRole("button", { name: "Add version" }).click();
    await expect(rows(page).first()).toContainText("Still");
    await page.getByRole("button", { name: /^Presets/ }).click();
    await page.getByLabel("Name of the new preset").fill("Festival");
    await page.getByRole("button", { name: "Save as a preset" }).click();
    await expect(page.getByLabel("Name of the preset Festival")).toBeVisible();
    await page.getByRole("button", { name: "Delete the preset Festival" }).click();
    await expect(page.getByLabel("Name of the preset Festival")).toBeHidden();
    await page.getByRole("button", { name: "Undo", exact: true }).last().click();
    await expect(page.getByLabel("Name of the preset Festival")).toBeVisible();
  });

  await test.step("a whole folder is added with it", async () => {
    await home(page, server);
    await page.getByRole("button", { name: "From this machine" }).click();
    await page.getByRole("button", { name: "media" }).click();
    await page.getByRole("combobox", { name: /^Preset/ }).click();
    await page.getByRole("option", { name: /^Festival/ }).click();
    await page.getByRole("button", { name: "Add all 2 films of this folder" }).click();
    await expect(page.getByRole("button", { name: /^Add .*mp4$/ }).filter({ hasText: "Added" })).toHaveCount(2);
    await page.getByRole("button", { name: "Close" }).click();
    await expect(card(page, "runner-60.mp4")).toContainText("shot found", { timeout: LONG_WORK });
    await open(page, "runner-60.mp4").click();
    await expect(versions(page)).toHaveText(["Vertical 9:16", "Portrait 4:5"]);
    await home(page, server);
  });

  await test.step("films are searched, sorted, and shown as a list", async () => {
    await page.getByLabel("Search by name").fill("kite");
    await expect(page.getByRole("link", { name: /^Open/ })).toHaveCount(1);
    await page.getByLabel("Search by name").fill("");
    await page.getByRole("radio", { name: "As a list" }).click();
    await page.getByRole("combobox", { name: "Order" }).click();
    await page.getByRole("option", { name: "Longest first" }).click();
    await expect(page.getByRole("row")).toHaveText([/Name/, /Kite morning/, /four-by-three/, /runner-60/]);
    await page.reload();
    await expect(page.getByRole("row")).toHaveText([/Name/, /Kite morning/, /four-by-three/, /runner-60/]);
    await page.getByRole("radio", { name: "As cards" }).click();
  });

  await test.step("a film is put away, and taken out again", async () => {
    await selectItem(page, "runner-60.mp4", "Archive");
    await expect(open(page, "runner-60.mp4")).toBeHidden();
    await section(page, "Archived").click();
    await expect(open(page, "runner-60.mp4")).toBeVisible();
    await selectItem(page, "runner-60.mp4", "Unarchive");
    await expect(open(page, "runner-60.mp4")).toBeVisible();
    await expect(page.getByRole("heading", { name: "Films" })).toBeVisible();
  });

  await test.step("a film is duplicated with its work", async () => {
    await expect(card(page, "Kite morning.mp4")).toContainText("2 shots found");
    await selectItem(page, "Kite morning.mp4", "Duplicate with its work");
    await expect(card(page, "Kite morning copy.mp4")).toContainText("2 shots found");
    await open(page, "Kite morning copy.mp4").click();
    await expect(versions(page)).toHaveText(["Vertical 9:16", "Portrait 4:5"]);
    await expect(rows(page)).toHaveCount(2);
    await home(page, server);
  });

  await test.step("what takes space is shown, and what can be made again is cleared", async () => {
    await page.getByRole("button", { name: "Storage" }).click();
    const clear = page.getByRole("button", { name: "Clear the proxy of Kite morning.mp4" });
    await clear.click();
    await expect(clear).toBeHidden();
    await page.getByRole("button", { name: "Close" }).click();
    await open(page, "Kite morning.mp4").click();
    const video = page.getByLabel("The whole picture");
    await expect.poll(() => video.evaluate((element: HTMLVideoElement) => element.readyState)).toBeGreaterThan(1);
    await home(page, server);
  });

  await test.step("a deleted film is not open any more, and comes back", async () => {
    const link = await open(page, "Kite morning.mp4").getAttribute("href");
    await selectItem(page, "Kite morning.mp4", "Delete");
    await expect(page.getByRole("alertdialog")).toContainText("2 shots, 2 versions and your keyframes");
    await page.getByRole("button", { name: "Delete", exact: true }).click();
    await expect(open(page, "Kite morning.mp4")).toBeHidden();
    await page.goto(`${server.url}${link}`);
    await expect(page.getByText("Kite morning.mp4 is deleted")).toBeVisible();
    await home(page, server);
    await section(page, "Deleted").click();
    await expect(card(page, "Kite morning.mp4")).toContainText("30 more days");
    await selectItem(page, "Kite morning.mp4", "Bring back");
    await open(page, "Kite morning.mp4").click();
    await expect(versions(page)).toHaveCount(2);
    await home(page, server);
  });

  await test.step("the work is saved and opened on another machine; the film's file is asked for", async () => {
    await page.getByRole("button", { name: "More for Kite morning.mp4", exact: true }).click();
    const download = page.waitForEvent("download");
    await page.getByRole("menuitem", { name: "Save the project as a file" }).click();
    const file = join(server.data, (await download).suggestedFilename());
    expect(file).toMatch(/Kite morning\.gladpan$/);
    await (await download).saveAs(file);

    await other.start();
    await home(page, other);
    await page.getByLabel("Film files").setInputFiles(file);
    await expect(card(page, "Kite morning.mp4")).toContainText("File missing");
    await page.getByLabel("Film files").setInputFiles("demo/clips/two-shots.mp4");
    await expect(card(page, "Kite morning.mp4")).not.toContainText("File missing");
    await expect(page.getByRole("link", { name: /^Open/ })).toHaveCount(1);
    await open(page, "Kite morning.mp4").click();
    await expect(versions(page)).toHaveText(["Vertical 9:16", "Portrait 4:5"]);
    await versions(page).last().click();
    await expect(rows(page).first()).toContainText("Still");
  });

  expect(problems).toEqual([]);
});
