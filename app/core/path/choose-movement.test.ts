import { clamped } from "../numbers/clamped";
import { describe, expect, test } from "@jest/globals";
import type { Box } from "../geometry/box";
import type { Track } from "../subjects/tracking/track";
import { chooseMovement } from "./choose-movement";

const SHOT = { start: 30, end: 330 };
const chosenFor = (at: (t: number) => number | null, from: number | null = null) => {
  const boxes = Array.from({ length: 300 }, (_, t): Box | null => {
    const x = at(t);
    return x === null ? null : { x: x - 50, y: 300, width: 100, height: 130 };
  });
  const track: Track = { id: "one", kind: "face", start: 30, boxes, confidence: 1 };
  return chooseMovement({ track, body: null }, SHOT, 600, 30, from);
};

describe("the movement that is chosen", () => {
  test("is Still for who stays in place, however a detector trembles, and where nothing is followed", () => {
    expect(chosenFor((t) => 900 + 40 * Math.sin(t))).toEqual({ movement: "still", reason: "stays in place" });
    expect(chosenFor((t) => (t === 17 ? 1500 : 900)).movement).toBe("still");
    expect(chosenFor(() => null).movement).toBe("still");
    expect(chooseMovement(null, SHOT, 600, 30).reason).toBe("nothing to follow");
  });

  test("is Glide for who stays in place where the window has to come over from the shot before", () => {
    const from = (x: number | null) => chosenFor(() => 900, x);
    expect(from(300)).toEqual({ movement: "glide", reason: "continues from the previous shot" });
    expect([from(880), from(null)].map(({ movement }) => movement)).toEqual(["still", "still"]);
  });

  test("is Glide for who walks now and then", () => {
    expect(chosenFor((t) => 500 + 500 * clamped((t - 100) / 90, 0, 1)).movement).toBe("glide");
    expect(chosenFor((t) => 500 + t).movement).toBe("glide");
  });

  test("is Chase for what is quick for much of the time", () => {
    expect(chosenFor((t) => 900 + 500 * Math.sin(t / 25))).toEqual({ movement: "chase", reason: "moves quickly" });
  });
});
