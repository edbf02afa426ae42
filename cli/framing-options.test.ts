import { describe, expect, test } from "@jest/globals";
import { numberFrom, parseManner, parseZoom, ruleOf } from "./framing-options";

describe("what is said of the framing", () => {
  test("manners go by name", () => {
    expect(["auto", "still"].map(parseManner)).toEqual(["auto", "still"]);
    expect(() => parseManner("Still")).toThrow("auto, still, glide, chase");
  });

  test("a zoom is fixed or free, with factors within reason", () => {
    expect(parseZoom("fixed:1.3")).toEqual({ kind: "fixed", factor: 1.3 });
    expect(parseZoom("free")).toEqual({ kind: "free", min: 1, max: 1.5 });
    expect(parseZoom("free:1.2-2")).toEqual({ kind: "free", min: 1.2, max: 2 });
    for (const wrong of ["2", "fixed", "fixed:0.5", "fixed:9", "free:2-1", "free:1", ""]) {
      expect(() => parseZoom(wrong)).toThrow("fixed:N, free or free:MIN-MAX");
    }
  });

  test("numbers end where they end", () => {
    expect(numberFrom(0, 100)("62.5")).toBe(62.5);
    for (const wrong of ["-1", "101", "calm", " "]) expect(() => numberFrom(0, 100)(wrong)).toThrow("0 to 100");
    expect(() => numberFrom(1, 8)("0.5")).toThrow("1 to 8");
  });

  test("to keep both is a rule for whom to follow", () => {
    expect(ruleOf({ follow: { kind: "auto" }, keepBoth: true })).toEqual({ kind: "both" });
    expect(ruleOf({ follow: { kind: "speaker" } })).toEqual({ kind: "speaker" });
  });
});
