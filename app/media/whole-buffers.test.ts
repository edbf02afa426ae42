import { expect, test } from "@jest/globals";
import { wholeBuffers } from "./whole-buffers";

async function* pieces(...lengths: number[]) {
  let next = 0;
  for (const length of lengths) yield Buffer.from(Array.from({ length }, () => next++));
}

test("pieces of any length come as buffers of one", async () => {
  const all: number[][] = [];
  for await (const buffer of wholeBuffers(pieces(1, 5, 0, 2, 3), 4)) all.push([...buffer]);
  expect(all).toEqual([
    [0, 1, 2, 3],
    [4, 5, 6, 7],
  ]);
});
