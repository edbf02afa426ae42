import { describe, expect, test } from "@jest/globals";
import { type Curve, curveHandles, curveOf, ease, Easing, EASINGS, handlesOf } from "./easing";

test("named easings are curves with the same way", () => {
  for (const easing of ["linear", "ease-in", "ease-out", "ease"] as const) {
    const curve = curveOf(curveHandles(easing)!);
    for (const t of [0.1, 0.35, 0.5, 0.8]) expect(ease(curve, t)).toBeCloseTo(ease(easing, t), 3);
  }
  expect(curveHandles("hold")).toBeNull();
  expect(curveHandles("cubic-bezier(0.1, 0.2, 0.3, 0.4)")).toEqual([0.1, 0.2, 0.3, 0.4]);
});

describe("an easing", () => {
  test.each([...EASINGS, curveOf([0.3, 0, 0.3, 1])])("%s begins and ends at its keys and never goes back", (easing) => {
    const shares = Array.from({ length: 21 }, (_, i) => ease(easing, i / 20));
    expect([shares[0], shares[20]]).toEqual([0, 1]);
    for (let i = 1; i < shares.length; i++) expect(shares[i]!).toBeGreaterThanOrEqual(shares[i - 1]!);
  });

  test("with handles on the diagonal is even, and with mirrored handles symmetrical", () => {
    const symmetrical = curveOf([0.6, 0, 0.4, 1]);
    for (const t of [0.1, 0.25, 0.4]) {
      expect(ease(curveOf([0.25, 0.25, 0.75, 0.75]), t)).toBeCloseTo(t, 5);
      expect(ease(symmetrical, t) + ease(symmetrical, 1 - t)).toBeCloseTo(1, 5);
    }
  });

  test("as CSS has it: the values of its own curve named ease", () => {
    const css = curveOf([0.25, 0.1, 0.25, 1]);
    expect(ease(css, 0.25)).toBeCloseTo(0.4085, 3);
    expect(ease(css, 0.5)).toBeCloseTo(0.8024, 3);
  });

  test("is read from text, and refused where it is none", () => {
    expect(handlesOf(curveOf([0.1, 0, 0.9, 1]))).toEqual([0.1, 0, 0.9, 1]);
    expect(Easing.parse("cubic-bezier(0.1, 0, 0.9, 1)")).toBe("cubic-bezier(0.1, 0, 0.9, 1)");
    for (const wrong of [
      "cubic-bezier(0.1, 0, 1.9, 1)",
      "cubic-bezier(0, 0, 1)",
      "cubic-bezier(a, 0, 1, 1)",
      "bounce",
    ]) {
      expect(handlesOf(wrong)).toBeNull();
      expect(Easing.safeParse(wrong).success).toBe(false);
      expect(() => ease(wrong as Curve, 0.5)).toThrow("unknown easing");
    }
  });
});
