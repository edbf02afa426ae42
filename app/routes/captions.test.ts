import { afterEach, beforeEach, describe, expect, test } from "@jest/globals";
import { get, post } from "../../tests/support/route-answers";
import { twoShotFilm } from "../../tests/support/two-shot-film";
import { saveActivity } from "~/db/activity.server";
import { listCaptions } from "~/db/captions.server";
import type { Db } from "~/db/database.server";
import { findFilm } from "~/db/films.server";
import { useDatabase } from "~/db/workplace.server";
import { action as captionsAction, loader as captions } from "./captions";
import { action as edit } from "./edit";
import { loader as speech } from "./speech";

let db: Db;
beforeEach(() => {
  db = twoShotFilm();
  useDatabase(db);
});
afterEach(() => useDatabase(null));

const FILM = { filmId: "film" };
const change = (body: unknown) => post(edit, FILM, JSON.stringify(body), "application/json");

describe("captions", () => {
  const send = (name: string, bytes: string | Uint8Array) => {
    const body = new FormData();
    body.set("file", new File([typeof bytes === "string" ? bytes : Uint8Array.from(bytes)], name));
    return post(captionsAction, { ...FILM, format: "file" }, body);
  };

  test("of a file are read, with what is wrong by its line; a plain text is given as it is; nothing is changed", async () => {
    const srt = "1\n00:00:01,000 --> 00:00:02,000\nUp\n\n2\n00:00:04,000 --> 00:00:03,000\nno\n";
    const wide = Uint8Array.from(Buffer.from(`\uFEFF${srt}`, "utf16le"));
    for (const bytes of [srt, wide]) {
      expect((await send("talk.srt", bytes)).data).toMatchObject({
        name: "talk.srt",
        cues: [{ start: 1, end: 2, text: "Up" }],
        problems: [{ line: 6 }],
      });
    }
    expect((await send("talk.txt", "Up we went.")).data).toEqual({ name: "talk.txt", text: "Up we went." });
    expect((await send("none.srt", "00:00:02,000 --> 00:00:01,000\nno")).data).toMatchObject({ name: "none.srt" });
    for (const bytes of ["", Uint8Array.of(0, 1, 2, 0)]) {
      const { error } = (await send("film.mp4", bytes)).data as { error: string };
      expect(error).toContain("film.mp4: no captions and no text found");
    }
    expect((await post(captionsAction, { ...FILM, format: "file" }, new FormData())).status).toBe(400);
    expect(listCaptions(db, "film")).toEqual([]);
  });

  test("of a version go out without what it leaves out, are changed, refused outside the film, and undone", async () => {
    const said = [
      { id: "a", start: 10, end: 40, text: "Up", speaker: "Ada" },
      { id: "b", start: 60, end: 90, text: "and away", speaker: null },
    ];
    const put = { type: "change-captions", removed: [], put: said, how: "imported" };
    await change({ do: "edit", revision: 0, command: put });
    await change({ do: "edit", revision: 1, command: { type: "trim-version", versionId: "tall", in: 60 } });
    const beyond = { ...put, put: [{ ...said[0], id: "c", end: 100_000 }] };
    const refused = await change({ do: "edit", revision: 2, command: beyond });
    expect((refused.data as { error: string }).error).toContain("lies outside the film");
    expect(listCaptions(db, "film")).toEqual(said);
    const all = await get(captions, { ...FILM, format: "vtt" });
    expect(all.data).toContain("<v Ada>Up");
    const version = await get(captions, { ...FILM, format: "srt" }, "?version=tall");
    expect(version.data).toMatch(/^1\n00:00:00,000 --> .*\nand away\n$/);
    expect((await get(captions, { ...FILM, format: "doc" })).status).toBe(404);
    await change({ do: "undo", revision: 2 });
    await change({ do: "undo", revision: 3 });
    expect(listCaptions(db, "film")).toEqual([]);
  });

  test("are timed by speech, of which nothing is told of a film that was not listened to", async () => {
    expect((await get(speech, FILM)).data).toEqual({ segments: null });
    const { frames } = findFilm(db, "film")!.info;
    const silent = new Uint8Array(frames);
    const heard = silent.slice().fill(250, 20, 50).fill(250, 52, 70).fill(250, 90, 91);
    saveActivity(
      db,
      "film",
      { start: 0, end: frames },
      { light: silent, contrast: silent, change: silent, speech: heard },
    );
    // A breath of two frames is none between words, and a click is no word.
    expect((await get(speech, FILM)).data).toEqual({ segments: [{ start: 20, end: 70 }] });
  });
});
