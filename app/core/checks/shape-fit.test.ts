import { expect, test } from "@jest/globals";
import { framingOf } from "../../../tests/support/shot-framing";
import type { Track } from "../subjects/tracking/track";
import { shapeFit } from "./shape-fit";

const PICTURE = { width: 1920, height: 1080 };
const RATE = { num: 30, den: 1 };
const SHOT = { start: 30, end: 120 };
/** A thing as wide as half of the picture, which goes to the right. */
const wide: Track = {
  id: "t",
  kind: "object",
  start: 30,
  boxes: Array.from({ length: 90 }, (_, i) => ({ x: 100 + 8 * i, y: 300, width: 960, height: 400 })),
  confidence: 1,
};

test("less of a wide thing is inside a tall frame than a square one, and all of it inside the picture's own shape", () => {
  const framing = framingOf(SHOT, { tracks: [wide], rule: { kind: "track", trackId: "t" } });
  const of = (width: number, height: number) => shapeFit(framing, PICTURE, { width, height }, RATE);
  const [tall, square, whole] = [of(1080, 1920), of(1080, 1080), of(1920, 1080)];
  expect(tall.inside!).toBeGreaterThan(0.5);
  expect(tall.inside!).toBeLessThan(0.7);
  expect(square.inside!).toBeGreaterThan(tall.inside! + 0.2);
  expect([whole.inside, whole.travel]).toEqual([1, 0]);
  expect(tall.travel).toBeGreaterThan(0.3);
  expect(tall.frame).toBeGreaterThanOrEqual(SHOT.start);
});

test("where nobody is followed, nothing is said of a subject", () => {
  expect(shapeFit(framingOf(SHOT), PICTURE, { width: 1080, height: 1920 }, RATE)).toMatchObject({
    inside: null,
    travel: 0,
  });
});
