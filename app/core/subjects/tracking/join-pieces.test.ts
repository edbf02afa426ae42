import { expect, test } from "@jest/globals";
import { joinPieces } from "./join-pieces";
import { boxAt, type Track } from "./track";

const going = (id: string, start: number, frames: number, x: number, speed: number, width = 60): Track => ({
  id,
  kind: "motion",
  start,
  boxes: Array.from({ length: frames }, (_, i) => ({ x: x + speed * i, y: 300, width, height: 80 })),
  confidence: 0.8,
});

test("the head and the legs of one animal are one, though one of them was seen earlier", () => {
  const [animal, ...others] = joinPieces([going("head", 0, 40, 500, 6), going("legs", 20, 60, 540, 6)]);
  expect(others).toEqual([]);
  expect(animal).toMatchObject({ id: "head", start: 0 });
  expect(animal!.boxes).toHaveLength(80);
  expect(boxAt(animal!, 30)).toEqual({ x: 600, y: 300, width: 140, height: 80 });
});

test("who passes another, goes the other way, or is far from it stays apart", () => {
  const one = going("one", 0, 60, 500, 5);
  expect(joinPieces([one, going("passing", 0, 60, 800, -5)])).toHaveLength(2);
  expect(joinPieces([one, going("slow", 0, 60, 510, 0)])).toHaveLength(2);
  expect(joinPieces([one, going("far", 0, 60, 900, 5)])).toHaveLength(2);
  expect(joinPieces([one, going("later", 60, 60, 800, 5)])).toHaveLength(2);
});
