import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import { FlagList } from "~/core/formats/flags";
import { Report } from "~/core/formats/report";
import { newVersion } from "~/core/version/film-state";
import { freshShot } from "~/core/shots/shot";
import { openDatabase } from "~/db/database.server";
import { findFilm, insertFilm } from "~/db/films.server";
import { putCaption } from "~/db/captions.server";
import { saveShot } from "~/db/shots.server";
import { saveVersion, setHandKey } from "~/db/versions.server";
import { probeFilm } from "~/media/probe.server";
import { VERSION_FILES, versionFiles } from "./version-files.server";
import { db, useDatabase } from "~/db/workplace.server";

const CLIP = "demo/clips/two-shots.mp4";
let folder = "";

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), "glad-pan-files-"));
  useDatabase(openDatabase(join(folder, "library.db")));
  const info = await probeFilm(CLIP);
  insertFilm(db(), { id: "film", name: "two: shots.mp4", file: resolve(CLIP), info });
  saveVersion(db(), "film", newVersion({ id: "tall", name: "9/16", width: 1080, height: 1920 }));
  saveShot(db(), "film", freshShot("one", { start: 0, end: 45 }, null));
  saveShot(db(), "film", { ...freshShot("two", { start: 45, end: 99 }, null), name: "Run" });
  setHandKey(db(), "tall", { pane: 0, frame: 20, x: 900, y: 360, height: 720, easing: null });
  putCaption(db(), "film", { id: "c", start: 10, end: 40, text: "Hold on", speaker: null });
});
afterAll(() => {
  useDatabase(null);
  rmSync(folder, { recursive: true, force: true });
});

const files = () => versionFiles(findFilm(db(), "film")!, "tall");

test("every file is written, under a name that is one on any computer", () => {
  expect(files().base).toBe("two- shots 9-16");
  for (const file of VERSION_FILES) expect(files().write(file)).not.toBe("");
  expect(() => versionFiles(findFilm(db(), "film")!, "none")).toThrow("no longer exists");
});

test("a row for each frame that is shown, and one for each key", () => {
  const path = files().write("path.csv")!.trim().split("\n");
  expect(path).toHaveLength(1 + 99);
  expect(path[0]).toBe("frame,timecode,shot,pane,x,y,width,height");
  expect(path[21]).toMatch(/^20,00:00:00:20,1,1,900,360,405,720$/);
  const keys = files().write("keys.csv")!.trim().split("\n");
  expect(keys).toContainEqual(expect.stringMatching(/^20,00:00:00:20,1,1,900,360,720,[\w-]+,hand$/));
});

test("report and looks are what their schemas say, and the timeline has the windows in effects", () => {
  const report = Report.parse(JSON.parse(files().write("report.json")!));
  expect([report.shots.length, report.windows.length, report.captions?.length]).toEqual([2, 99, 1]);
  expect(FlagList.parse(JSON.parse(files().write("flags.json")!)).of).toBe("9/16");
  const timeline = JSON.parse(files().write("timeline.otio")!) as {
    tracks: {
      children: { children: { effects: { metadata: Record<string, { panes: { keys: unknown[] }[] }> }[] }[] }[];
    };
  };
  const [clip] = timeline.tracks.children[0]!.children;
  const { panes } = clip!.effects[0]!.metadata["glad-pan"]!;
  expect(panes).toHaveLength(1);
  expect(panes[0]!.keys).toContainEqual(expect.objectContaining({ frame: 20, x: 900, by: "hand" }));
  expect(files().write("captions.srt")).toContain("Hold on");
});
