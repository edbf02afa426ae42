import { describe, expect, test } from "@jest/globals";
import {
  numberFrom,
  parseBackdrop,
  parseEdge,
  parseLayout,
  parseMustHave,
  parseMovement,
  parsePlace,
  parseZoom,
  ruleOf,
} from "./framing-options";

describe("what is said of the framing", () => {
  test("movements go by name", () => {
    expect(["auto", "still"].map(parseMovement)).toEqual(["auto", "still"]);
    expect(() => parseMovement("Still")).toThrow("auto, still, glide, chase");
  });

  test("a zoom is fixed or free, with factors within reason", () => {
    expect(parseZoom("fixed:1.3")).toEqual({ kind: "fixed", factor: 1.3 });
    expect(parseZoom("free")).toEqual({ kind: "free", min: 1, max: 1.5 });
    expect(parseZoom("free:1.2-2")).toEqual({ kind: "free", min: 1.2, max: 2 });
    for (const wrong of ["2", "fixed", "fixed:0.5", "fixed:9", "free:2-1", "free:1", ""]) {
      expect(() => parseZoom(wrong)).toThrow("fixed:N, free or free:MIN-MAX");
    }
  });

  test("a layout, its place, its backdrop and its edge", () => {
    expect(parseLayout("fill")).toEqual({ kind: "fill" });
    expect(parseLayout("whole:0.4")).toEqual({ kind: "whole", amount: 0.4, place: 0.5 });
    expect(parseLayout("stack:60-40")).toMatchObject({ kind: "stack", places: [{ pane: 0 }, { pane: 1, share: 0.4 }] });
    for (const wrong of ["whole:2", "stack:", "stack:95-5", "stack:100", ""])
      expect(() => parseLayout(wrong)).toThrow("whole:AMOUNT");
    expect(["top", "middle", "0.25"].map(parsePlace)).toEqual([0, 0.5, 0.25]);
    for (const wrong of ["up", "1.5", " "]) expect(() => parsePlace(wrong)).toThrow("from 0 to 1");
    expect(parseBackdrop("blur:80-20")).toEqual({ kind: "blur", strength: 80, darkness: 20, zoom: 1 });
    expect(parseBackdrop("mirror:30")).toEqual({ kind: "mirror", darkness: 30 });
    expect(parseBackdrop("#A0B0C0")).toEqual({ kind: "colour", colour: "#a0b0c0" });
    expect(parseBackdrop("#102030-#000000")).toEqual({ kind: "gradient", top: "#102030", foot: "#000000" });
    for (const wrong of ["red", "blur:200-0", "#12", "#102030-"])
      expect(() => parseBackdrop(wrong)).toThrow("a colour");
    expect(parseEdge("feather")).toEqual({ look: "feather", corner: 0 });
    expect(parseEdge("shadow:20")).toEqual({ look: "shadow", corner: 20 });
    for (const wrong of ["glow", "none:200", "none:x"]) expect(() => parseEdge(wrong)).toThrow("round its corners");
  });

  test("numbers end where they end", () => {
    expect(numberFrom(0, 100)("62.5")).toBe(62.5);
    for (const wrong of ["-1", "101", "calm", " "]) expect(() => numberFrom(0, 100)(wrong)).toThrow("0 to 100");
    expect(() => numberFrom(1, 8)("0.5")).toThrow("1 to 8");
  });

  test("who must be in the picture is said by letters", () => {
    expect(parseMustHave("A")).toEqual(["p1"]);
    expect(parseMustHave("c, b2")).toEqual(["p3", "p28"]);
    for (const wrong of ["", "Ada", "1", "A,"]) expect(() => parseMustHave(wrong)).toThrow("by their letters");
  });

  test("to keep both is a rule for whom to follow", () => {
    expect(ruleOf({ follow: { kind: "auto" }, keepBoth: true })).toEqual({ kind: "both" });
    expect(ruleOf({ follow: { kind: "speaker" } })).toEqual({ kind: "speaker" });
  });
});
