import { expect, test } from "@jest/globals";
import { beginningOf } from "./use-uploads";

const kept = { id: "a".repeat(32), name: "kite.mp4", size: 100, arrived: 30, changedAt: 17 };
const file = { name: "kite.mp4", size: 100, lastModified: 17 };

test("a file goes on with what the server has of it, and of no other", () => {
  expect(beginningOf(file, [kept], [])).toBe(kept);
  for (const change of [{ name: "tide.mp4" }, { size: 101 }, { lastModified: 18 }]) {
    expect(beginningOf({ ...file, ...change }, [kept], [])).toBeNull();
  }
});

test("what this page is already sending is not sent twice", () => {
  expect(beginningOf(file, [kept], [{ serverId: kept.id }])).toBeNull();
});
