import { describe, expect, test } from "@jest/globals";
import { TALL, TWO_SHOTS } from "../../../../tests/support/film-state";
import { USUAL_FRAMING } from "~/core/path/framing-settings";
import type { DeskShot } from "./desk-types";
import { reshapeCommands, steeredWay, wayOf } from "./reshaping";

const PICTURE = { width: 1920, height: 1080 };
const at = (x: number) => ({ x, y: 540, height: 1080 });

/** The two shots as the desk has them, with a window that goes to the right. */
const SHOTS = TWO_SHOTS.shots.map((shot) => ({
  ...shot,
  pane: 0,
  settings: USUAL_FRAMING,
  framed: { windows: Array.from({ length: shot.end - shot.start }, (_, i) => at(500 + 2 * i)) },
})) as unknown as DeskShot[];

describe("a range that is reshaped", () => {
  test("has a part in each shot that it goes through, and keys only in its frames", () => {
    const way = wayOf(SHOTS, { start: 90, end: 130 }, "reversed")!;
    expect(way.parts.map(({ start, windows }) => [start, windows.length])).toEqual([
      [90, 10],
      [100, 30],
    ]);
    const commands = reshapeCommands(way, TALL, PICTURE, 30);
    expect(commands).toMatchObject([
      { type: "replace-keys", range: { start: 90, end: 100 }, how: "reversed" },
      { type: "replace-keys", range: { start: 100, end: 130 }, how: "reversed" },
    ]);
    const [first] = commands.flatMap((each) => (each.type === "replace-keys" ? [each.keys] : []));
    expect([first![0]!.x, first!.at(-1)!.x]).toEqual([698, 680]);
  });

  test("is shifted by as much as the picture allows", () => {
    const way = wayOf(SHOTS, { start: 0, end: 60 }, "shifted")!;
    const [command] = reshapeCommands({ ...way, by: { x: 5000, y: 0 }, fade: 0.2 }, TALL, PICTURE, 30);
    const keys = command!.type === "replace-keys" ? command!.keys : [];
    // A window of nine by sixteen that is as high as the picture is 607.5 pixels wide.
    expect(Math.max(...keys.map(({ x }) => x))).toBeCloseTo(1920 - 607.5 / 2);
    expect(keys[0]!.x).toBe(500);
  });

  test("is none where no path has been laid, or nothing was led", () => {
    const unlaid = SHOTS.map((shot) => ({ ...shot, framed: null }));
    expect(wayOf(unlaid, { start: 0, end: 60 }, "smoothed")).toBeNull();
    expect(steeredWay(SHOTS, [{ frame: 5, window: at(600) }])).toBeNull();
    const led = [98, 99, 100, 101].map((frame) => ({ frame, window: at(600 + frame) }));
    expect(steeredWay(SHOTS, led)!.parts.map(({ start, windows }) => [start, windows.length])).toEqual([
      [98, 2],
      [100, 2],
    ]);
  });
});
