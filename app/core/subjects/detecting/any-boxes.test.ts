import { describe, expect, test } from "@jest/globals";
import { type AnyBox, anyBox, boxesInside, distinctBoxes } from "./any-boxes";

const BOX = { x: 10, y: 10, width: 40, height: 20 };
const scores = (given: Record<number, number>) => Array.from({ length: 80 }, (_, label) => given[label] ?? 0);

describe("a box around anything", () => {
  test("scores by the sum of all classes and the best of them", () => {
    expect(anyBox(BOX, scores({ 40: 0.1, 47: 0.4 })).score).toBeCloseTo(Math.sqrt(0.5 * 0.4));
    expect(anyBox(BOX, scores({ 47: 0.4 })).score).toBeCloseTo(0.4);
  });

  test("scores half where furniture is the best", () => {
    expect(anyBox(BOX, scores({ 59: 0.4 })).score).toBeCloseTo(0.2);
    expect(anyBox(BOX, scores({ 59: 0.3, 47: 0.4 })).score).toBeCloseTo(Math.sqrt(0.7 * 0.4));
  });

  test("is of an animal or a vehicle where these have most of the sum, whatever their names", () => {
    expect(anyBox(BOX, scores({ 77: 0.2, 21: 0.2, 40: 0.3 })).label).toBe("animal");
    expect(anyBox(BOX, scores({ 2: 0.2, 7: 0.2, 40: 0.3 })).label).toBe("vehicle");
    expect(anyBox(BOX, scores({ 77: 0.2, 2: 0.2, 40: 0.1 })).label).toBeUndefined();
  });
});

describe("boxes of a picture", () => {
  const at = (x: number, score: number, width = 40): AnyBox => ({ box: { ...BOX, x, width }, score });

  test("of those around the same thing the best one stays, and a part beside its whole", () => {
    const [whole, alike, part] = [at(10, 0.5), at(13, 0.6), at(10, 0.3, 15)];
    expect(distinctBoxes([whole, part, alike])).toEqual([alike, part]);
  });

  test("there are eight at most", () => {
    const many = Array.from({ length: 20 }, (_, i) => at(50 * i, i / 20));
    expect(distinctBoxes(many).map(({ score }) => score)).toEqual([0.95, 0.9, 0.85, 0.8, 0.75, 0.7, 0.65, 0.6]);
  });

  test("end at the area's edge, and are none where they lie outside", () => {
    const area = { x: 0, y: 20, width: 100, height: 60 };
    const inside = boxesInside({ full: [at(80, 0.5)], half: [at(120, 0.4), at(-10, 0.3)] }, area);
    expect(inside.full).toEqual([{ box: { x: 80, y: 20, width: 20, height: 10 }, score: 0.5 }]);
    expect(inside.half).toEqual([{ box: { x: 0, y: 20, width: 30, height: 10 }, score: 0.3 }]);
  });
});
