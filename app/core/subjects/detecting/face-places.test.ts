import { describe, expect, test } from "@jest/globals";
import { boxContains } from "../../geometry/box";
import { FacePlaces } from "./face-places";

const picture = { width: 448, height: 256 };
const face = { x: 205, y: 90, width: 40, height: 48 };
const after = (...looks: (typeof face)[][]) => {
  const places = new FacePlaces(picture, 32);
  for (const found of looks) places.see(found.map((box) => ({ box, score: 0.9 })));
  return places.next();
};

describe("places of faces", () => {
  test("nothing is looked at where no face was", () => {
    expect(after([])).toEqual([]);
  });

  test("a place lies on the grid, around the face, with room for it to have moved", () => {
    const [place, ...others] = after([face])!;
    expect(others).toEqual([]);
    for (const value of Object.values(place!)) expect(value % 32).toBe(0);
    // Half of the room on each side, but for half a cell by which the grid moves it.
    expect(boxContains(place!, { x: 205 - 48, y: 90 - 48, width: 40 + 2 * 48, height: 48 + 2 * 48 })).toBe(true);
  });

  test("faces that are near each other share one", () => {
    expect(after([face, { ...face, x: 225 }])).toHaveLength(1);
    expect(after([face, { ...face, x: 20 }])).toHaveLength(2);
  });

  test("at the picture's border it ends there", () => {
    const [place] = after([{ x: 430, y: 230, width: 40, height: 40 }])!;
    expect(boxContains({ x: 0, y: 0, ...picture }, place!)).toBe(true);
    expect(place!.x + place!.width).toBe(picture.width);
  });

  test("where they are many or large, all of the picture is looked at", () => {
    expect(after([{ x: 100, y: 20, width: 120, height: 200 }])).toBeNull();
    expect(after([20, 120, 220, 320].map((x) => ({ ...face, x })))).toBeNull();
  });

  test("a face that was clear and is not where it was may be anywhere, one that was not clear is just gone", () => {
    const places = new FacePlaces(picture, 32);
    places.see([
      { box: face, score: 0.9 },
      { box: { ...face, x: 20 }, score: 0.5 },
    ]);
    expect(places.lacks([{ box: { ...face, x: 210 }, score: 0.4 }])).toBe(false);
    expect(places.lacks([{ box: { ...face, x: 20 }, score: 0.9 }])).toBe(true);
  });

  test("for some looks after a face was lost all of the picture is looked at, then it is given up", () => {
    expect(after([face], [])).toBeNull();
    expect(after([face], [], [], [])).toBeNull();
    expect(after([face], [], [], [], [])).toEqual([]);
    expect(after([face], [], [face])).toHaveLength(1);
  });
});
