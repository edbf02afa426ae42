import { describe, expect, test } from "@jest/globals";
import type { Box } from "../geometry/box";
import type { Track } from "../subjects/tracking/track";
import { protectedBox } from "./protected-box";

const WINDOW = { width: 400, height: 720 };
const text = (box: Box, start = 0): Track => ({
  id: "text",
  kind: "text",
  start,
  boxes: [box, box],
  confidence: 1,
});
const wide = text({ x: 0, y: 600, width: 500, height: 60 });
const name = text({ x: 100, y: 600, width: 300, height: 60 });
const logo = text({ x: 380, y: 20, width: 80, height: 40 });

describe("what is kept in the window", () => {
  test("is text that fits, and none that does not", () => {
    expect(protectedBox(0, null, [name], WINDOW)).toEqual(name.boxes[0]);
    expect(protectedBox(0, null, [wide], WINDOW)).toBeNull();
    expect(protectedBox(5, null, [name], WINDOW)).toBeNull();
  });

  test("is as much text as fits together, the largest first", () => {
    expect(protectedBox(0, null, [logo, name], WINDOW)).toEqual({ x: 100, y: 20, width: 360, height: 640 });
    expect(protectedBox(0, null, [logo, name], { ...WINDOW, width: 330 })).toEqual(name.boxes[0]);
  });

  test("is what the editor protects in any case, and text with it", () => {
    const drawn = { x: 0, y: 0, width: 90, height: 90 };
    expect(protectedBox(0, drawn, [name], WINDOW)).toEqual(drawn);
    expect(protectedBox(0, { ...drawn, x: 60 }, [name], WINDOW)).toEqual({ x: 60, y: 0, width: 340, height: 660 });
  });
});
