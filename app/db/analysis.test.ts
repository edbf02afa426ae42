import { expect, test } from "@jest/globals";
import { twoShotFilm } from "../../tests/support/two-shot-film";
import { listUndecoded, saveUndecoded } from "./analysis.server";
import { deleteFilm } from "./films.server";

test("frames that could not be decoded are kept in order, joined where they touch, and go with the film", () => {
  const db = twoShotFilm();
  expect(listUndecoded(db, "film")).toEqual([]);
  saveUndecoded(db, "film", [{ start: 40, end: 42 }]);
  saveUndecoded(db, "film", [
    { start: 30, end: 40 },
    { start: 90, end: 91 },
  ]);
  // An analysis that goes on may see the same again.
  saveUndecoded(db, "film", [{ start: 90, end: 91 }]);
  expect(listUndecoded(db, "film")).toEqual([
    { start: 30, end: 42 },
    { start: 90, end: 91 },
  ]);
  deleteFilm(db, "film");
  expect(listUndecoded(db, "film")).toEqual([]);
});
