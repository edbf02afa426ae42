import { expect, test } from "@jest/globals";
import { type FilmView, type Order, sectionOf, shownFilms } from "./library-view";

const film = (id: string, name: string, more: Partial<FilmView> = {}): FilmView => ({
  id,
  name,
  shots: 0,
  versions: 1,
  jobs: [],
  clips: 0,
  isLinked: false,
  isMissing: false,
  fingerprint: null,
  hasEarlier: false,
  putAway: false,
  deletedAt: null,
  addedAt: 0,
  info: { picture: { width: 1920, height: 1080 }, rate: { num: 25, den: 1 }, frames: 100 },
  lacking: { held: 0, longHolds: [], undecoded: [], cutOff: 0 },
  ...more,
});
const FILMS = [
  film("a", "Talk 10.mp4", { addedAt: 3 }),
  film("b", "talk 9.mp4", { addedAt: 1 }),
  film("c", "Kite.mp4", {
    addedAt: 2,
    info: { picture: { width: 1, height: 1 }, rate: { num: 25, den: 1 }, frames: 900 },
  }),
  film("d", "Old talk.mp4", { putAway: true }),
  film("e", "Gone talk.mp4", { putAway: true, deletedAt: 5 }),
];
const SPACES = { b: { source: 10, proxy: 5, renders: 0 }, c: { source: 0, proxy: 1, renders: 1 } };
const ids = (order: Order, search = "", section: "work" | "away" | "deleted" = "work") =>
  shownFilms(FILMS, { section, search, order }, SPACES)
    .map(({ id }) => id)
    .join("");

test("films are sorted as people count, by length, by space, and the newest first", () => {
  expect(ids("newest")).toBe("acb");
  expect(ids("name")).toBe("cba");
  expect(ids("length")).toBe("cab");
  expect(ids("space")).toBe("bca");
});

test("a film is on one section, and found by all words of its name, whatever their case", () => {
  expect(FILMS.map(sectionOf)).toEqual(["work", "work", "work", "away", "deleted"]);
  expect(ids("name", "TALK")).toBe("ba");
  expect(ids("name", "  10 talk ")).toBe("a");
  expect(ids("name", "talk", "away")).toBe("d");
  expect(ids("name", "", "deleted")).toBe("e");
  expect(ids("name", "nothing")).toBe("");
});
