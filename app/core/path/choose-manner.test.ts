import { describe, expect, test } from "@jest/globals";
import type { Box } from "../geometry/box";
import type { Track } from "../subjects/tracking/track";
import { chooseManner } from "./choose-manner";

const SHOT = { start: 30, end: 330 };
const chosenFor = (at: (t: number) => number | null, from: number | null = null) => {
  const boxes = Array.from({ length: 300 }, (_, t): Box | null => {
    const x = at(t);
    return x === null ? null : { x: x - 50, y: 300, width: 100, height: 130 };
  });
  const track: Track = { id: "one", kind: "face", start: 30, boxes, confidence: 1 };
  return chooseManner({ track, body: null }, SHOT, 600, 30, from);
};

describe("the manner that is chosen", () => {
  test("is Still for who stays in place, however a detector trembles, and where nothing is followed", () => {
    expect(chosenFor((t) => 900 + 40 * Math.sin(t))).toEqual({ manner: "still", reason: "stays in place" });
    expect(chosenFor((t) => (t === 17 ? 1500 : 900)).manner).toBe("still");
    expect(chosenFor(() => null).manner).toBe("still");
    expect(chooseManner(null, SHOT, 600, 30).reason).toBe("nothing to follow");
  });

  test("is Glide for who stays in place where the window has to come over from the shot before", () => {
    const from = (x: number | null) => chosenFor(() => 900, x);
    expect(from(300)).toEqual({ manner: "glide", reason: "continues from the previous shot" });
    expect([from(880), from(null)].map(({ manner }) => manner)).toEqual(["still", "still"]);
  });

  test("is Glide for who walks now and then", () => {
    expect(chosenFor((t) => 500 + 500 * Math.min(1, Math.max(0, (t - 100) / 90))).manner).toBe("glide");
    expect(chosenFor((t) => 500 + t).manner).toBe("glide");
  });

  test("is Chase for what is quick for much of the time", () => {
    expect(chosenFor((t) => 900 + 500 * Math.sin(t / 25))).toEqual({ manner: "chase", reason: "moves quickly" });
  });
});
