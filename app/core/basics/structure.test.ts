import { expect, test } from "@jest/globals";
import { isSame, shareStructure } from "./structure";

const make = () => ({
  list: [
    { id: "a", n: 1 },
    { id: "b", n: 2 },
  ],
  map: new Map([["x", [1, 2]]]),
  nothing: null,
});

test("values are the same if they hold the same", () => {
  expect(isSame(make(), make())).toBe(true);
  expect(isSame(make(), { ...make(), nothing: undefined })).toBe(false);
  expect(isSame(new Map([["x", 1]]), new Map([["y", 1]]))).toBe(false);
  expect(isSame([1, 2], [1, 2, 3])).toBe(false);
  expect(isSame({ a: 1 }, { a: 1, b: undefined })).toBe(false);
  expect(isSame({}, [])).toBe(false);
});

test("what holds the same is the very same value, and the rest is new", () => {
  const before = make();
  expect(shareStructure(before, make())).toBe(before);
  const next = shareStructure(before, {
    ...make(),
    list: [
      { id: "a", n: 1 },
      { id: "b", n: 3 },
    ],
  });
  expect(next).toEqual({
    ...make(),
    list: [
      { id: "a", n: 1 },
      { id: "b", n: 3 },
    ],
  });
  expect(next.list[0]).toBe(before.list[0]);
  expect(next.map).toBe(before.map);
});

test("what has an id is known by it when something comes in between or goes", () => {
  const before = make();
  const between = shareStructure(before, { ...make(), list: [{ id: "z", n: 0 }, ...make().list] });
  expect(between.list.map((item, i) => item === before.list[i - 1])).toEqual([false, true, true]);
  const less = shareStructure(before, { ...make(), list: [{ id: "b", n: 2 }], map: new Map<string, number[]>() });
  expect(less.list).toEqual([{ id: "b", n: 2 }]);
  expect(less.list[0]).toBe(before.list[1]);
  expect(less.map.size).toBe(0);
});
