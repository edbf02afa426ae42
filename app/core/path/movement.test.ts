import { describe, expect, test } from "@jest/globals";
import { axisProblem, wanderer, WINDOW_WIDTH } from "../../../tests/support/axis-problem";
import { MOVEMENT_TEXT, MOVEMENT_WEIGHTS, MOVEMENTS, weightsFor } from "./movement";
import { solveAxis } from "./solve-axis";

describe("calmness", () => {
  test("at 50 is the movement's own", () => {
    for (const movement of MOVEMENTS) expect(weightsFor(movement, 50)).toEqual(MOVEMENT_WEIGHTS[movement]);
  });

  test("makes movement dearer without a step, and neither limits nor what is cut another matter", () => {
    for (let calm = 0; calm < 100; calm++) {
      const [less, more] = [weightsFor("glide", calm), weightsFor("glide", calm + 1)];
      for (const weight of ["travel", "acceleration", "jerk", "zone"] as const) {
        expect(more[weight]).toBeGreaterThan(less[weight]);
        expect(more[weight] / less[weight]).toBeLessThan(1.05);
      }
      const { cut, bodyCut, protect, maxSpeed, maxAcceleration } = less;
      expect(more).toMatchObject({ cut, bodyCut, protect, maxSpeed, maxAcceleration });
    }
  });

  test("makes paths that move less", () => {
    for (const seed of [11, 12, 13]) {
      const wanted = wanderer(seed, 240);
      const travels = [0, 25, 50, 75, 100].map((calm) => {
        const { positions } = solveAxis({ ...axisProblem(wanted), weights: weightsFor("glide", calm) });
        return positions.reduce((sum, x, t) => sum + (t > 0 ? Math.abs(x - positions[t - 1]!) : 0), 0) / WINDOW_WIDTH;
      });
      travels.slice(1).forEach((value, i) => expect(value).toBeLessThanOrEqual(travels[i]! + 0.02));
    }
  });
});

test("every movement has a name and says what it does", () => {
  for (const movement of MOVEMENTS)
    expect(MOVEMENT_TEXT[movement]).toEqual({ name: expect.any(String), description: expect.any(String) });
});
