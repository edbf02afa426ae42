import { describe, expect, test } from "@jest/globals";
import { collectMark, parseFollow, parseFrame, parseSensitivity, parseSize } from "./options";

describe("options", () => {
  test("sizes are even and of a size that can be encoded", () => {
    expect(parseSize("1080x1920")).toEqual({ width: 1080, height: 1920 });
    expect(parseSize("720×1280")).toEqual({ width: 720, height: 1280 });
    for (const wrong of ["1080", "1080x", "1081x1920", "8x8", "9000x9000", "-2x4"])
      expect(() => parseSize(wrong)).toThrow();
  });

  test("frames are whole numbers, and a sensitivity one up to 100", () => {
    expect([parseFrame("0"), parseFrame("120")]).toEqual([0, 120]);
    for (const wrong of ["1.5", "-1", "soon", ""]) expect(() => parseFrame(wrong)).toThrow("whole number");
    expect([parseSensitivity("0"), parseSensitivity("100")]).toEqual([0, 100]);
    for (const wrong of ["101", "-1", "5.5"]) expect(() => parseSensitivity(wrong)).toThrow("0 to 100");
  });

  test("whom to follow goes by name", () => {
    expect(["first", "both", "none"].map(parseFollow)).toEqual([{ kind: "auto" }, { kind: "both" }, { kind: "none" }]);
    expect(() => parseFollow("last")).toThrow("first, second, both, speaker, none");
  });

  test("marks gather, each a frame and a box", () => {
    const first = collectMark("120:800,300.5,160,200", []);
    expect(collectMark("7:-4,0,10,10", first)).toEqual([
      { frame: 120, box: { x: 800, y: 300.5, width: 160, height: 200 } },
      { frame: 7, box: { x: -4, y: 0, width: 10, height: 10 } },
    ]);
    for (const wrong of ["120", "120:1,2,3", "120:1,2,0,4", "a:1,2,3,4", "1:1.2.3,2,3,4"]) {
      expect(() => collectMark(wrong, [])).toThrow();
    }
  });
});
