import { describe, expect, test } from "@jest/globals";
import type { Box } from "../../geometry/box";
import { boxContains, wholeOf } from "../../geometry/box";
import type { Track } from "../tracking/track";
import { portraitOf } from "./portrait";

const PICTURE = { width: 1920, height: 1080 };
const track = (kind: Track["kind"], start: number, boxes: (Box | null)[]): Track => ({
  id: `${kind} ${start}`,
  kind,
  start,
  boxes,
  confidence: 0.9,
});
const person = (x: number, width = 200): Box => ({ x, y: 200, width, height: 3 * width });

describe("a portrait", () => {
  test("is of the frame in which somebody is largest, and prefers their face", () => {
    const far = track("person", 10, [person(300, 150), person(300, 160), null]);
    expect(portraitOf([far], PICTURE)!.frame).toBe(11);
    const face = { x: 1000, y: 300, width: 60, height: 80 };
    const near = portraitOf([far, track("face", 40, [face])], PICTURE)!;
    expect(near.frame).toBe(40);
    expect(boxContains(near.box, face)).toBe(true);
    expect(near.box.width).toBeCloseTo(near.box.height);
  });

  test("is of a frame in which somebody is in the picture, even where they are smaller", () => {
    const leaving = track("person", 0, [person(1000, 160), person(1780, 280)]);
    expect(portraitOf([leaving], PICTURE)!.frame).toBe(0);
  });

  test("shows what there is of somebody who is never all in the picture, and nothing beyond its edge", () => {
    const half = { x: -150, y: -60, width: 260, height: 900 };
    const { box } = portraitOf([track("person", 5, [half])], PICTURE)!;
    expect(boxContains(wholeOf(PICTURE), box, 1e-9)).toBe(true);
    // Their head is within the 110 pixels that are seen of them, at the top.
    expect(box.x).toBeCloseTo(0);
    expect(box.x + box.width / 2).toBeLessThan(260);
    expect(box.y).toBeLessThan(60);
  });

  test("is none of somebody who is never to be seen", () => {
    expect(portraitOf([], PICTURE)).toBeNull();
    expect(portraitOf([track("face", 0, [null, { x: -90, y: 10, width: 80, height: 80 }])], PICTURE)).toBeNull();
  });
});
