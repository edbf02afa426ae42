import { describe, expect, test } from "@jest/globals";
import type { Box } from "../../geometry/box";
import type { AnyBox } from "./any-boxes";
import type { Detection } from "./detection";
import { evidenceFor, likelyThings, outlinesOf } from "./likely-things";

const PICTURE = { width: 400, height: 225 };
const box = (x: number, width = 100, y = 60, height = 90): Box => ({ x, y, width, height });
const any = (place: Box, score: number, label?: AnyBox["label"]): AnyBox => ({
  box: place,
  score,
  ...(label && { label }),
});
const salient = (place: Box): Detection => ({ kind: "salient", box: place, score: 0.4 });

describe("evidence for an outline", () => {
  test("is the best score at either size of what outlines the same, by how well it does", () => {
    const outline = any(box(100), 0.4);
    const full = [outline, any(box(110), 0.9), any(box(300, 60), 1)];
    const evidence = evidenceFor(outline, { full, half: [] }, [], PICTURE);
    expect(evidence).toMatchObject({ half: 0, salient: 0, clear: 0 });
    expect(evidence.full).toBeCloseTo((0.9 * 90) / 110);
    expect(evidence.size).toBeCloseTo(Math.sqrt(0.1));
    expect(evidence.sizeSquared).toBeCloseTo(0.1);
  });

  test("is how much of it is salient, and how clearly", () => {
    const evidence = evidenceFor(any(box(100), 0.4), { full: [], half: [] }, [salient(box(150))], PICTURE);
    expect(evidence.salient).toBeCloseTo(50 / 150);
    expect(evidence.clear).toBeCloseTo((0.4 * 50) / 150);
  });
});

test("what is salient is an outline of its own only where the network has none", () => {
  const boxes = { full: [any(box(100), 0.4)], half: [any(box(20, 60), 0.3)] };
  const outlines = outlinesOf(boxes, [salient(box(102)), salient(box(300, 80))]);
  expect(outlines.map((outline) => outline.box)).toEqual([box(100), box(20, 60), box(300, 80)]);
});

describe("likely things", () => {
  test("what every evidence outlines is likely, and what one alone does is not", () => {
    const creature = box(120, 150, 40, 160);
    const leaf = box(10, 30, 10, 30);
    const things = likelyThings(
      { full: [any(leaf, 0.5), any(creature, 0.6, "animal")], half: [any(creature, 0.8, "animal")] },
      [salient(leaf), salient(creature)],
      PICTURE,
    );
    expect(things.map((thing) => thing.box)).toEqual([creature, leaf]);
    expect(things[0]).toMatchObject({ kind: "salient", label: "animal" });
    expect(things[0]!.score).toBeGreaterThan(0.5);
    expect(things[1]!.score).toBeLessThan(0.2);
  });

  test("one thing is told once, as the likelier outline has it", () => {
    const [tight, wide] = [box(100), box(95, 130)];
    const boxes = { full: [any(tight, 0.6)], half: [any(tight, 0.6), any(wide, 0.2)] };
    const things = likelyThings(boxes, [salient(tight)], PICTURE);
    expect(things.map((thing) => thing.box)).toEqual([tight]);
  });

  test("there are four at most, and none where nothing is outlined", () => {
    const many = Array.from({ length: 7 }, (_, i) => any(box(55 * i, 50), 0.2 + 0.1 * i));
    expect(likelyThings({ full: many, half: [] }, [], PICTURE)).toHaveLength(4);
    expect(likelyThings({ full: [], half: [] }, [], PICTURE)).toEqual([]);
  });
});
