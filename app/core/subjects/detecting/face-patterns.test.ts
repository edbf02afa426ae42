import { expect, test } from "@jest/globals";
import type { Detection } from "./detection";
import { withoutPatterns } from "./face-patterns";

const PICTURE = { width: 448, height: 252 };
const face = (score: number, height: number, x = 0): Detection => ({
  kind: "face",
  score,
  box: { x, y: 20, width: height, height },
});

test("three large faces of which none is sure are a texture, whatever small ones are beside them", () => {
  const [small, sure] = [face(0.6, 40), face(0.9, 120)];
  const unsure = [face(0.8, 120), face(0.6, 140, 200), face(0.45, 90, 300)];
  expect(withoutPatterns([...unsure, small], PICTURE)).toEqual([small]);
  expect(withoutPatterns([...unsure, sure], PICTURE)).toEqual([sure]);
});

test("one or two may be faces that are turned away, and small ones are seldom sure", () => {
  const pair = [face(0.7, 120), face(0.6, 140, 200)];
  expect(withoutPatterns(pair, PICTURE)).toEqual(pair);
  const crowd = [face(0.6, 40), face(0.5, 42, 100), face(0.7, 44, 200)];
  expect(withoutPatterns(crowd, PICTURE)).toEqual(crowd);
});
