import { expect, test } from "@jest/globals";
import { newBar } from "./layers/layer";
import { covering } from "./layout";
import { shownIn, withLayers } from "./shown";

const SIZE = { width: 90, height: 160 };
const windowsFrom = (x: number) => Array.from({ length: 10 }, (_, i) => ({ x: x + i, y: 80, height: 160 }));
const SHOTS = [
  { range: { start: 0, end: 10 }, windows: windowsFrom(100), laidOut: covering(SIZE) },
  { range: { start: 10, end: 20 }, windows: windowsFrom(500), laidOut: covering(SIZE) },
];
const centreAt = (shown: ReturnType<typeof shownIn>, frame: number) => {
  const [pane] = shown(frame).panes;
  return pane!.source.x + pane!.source.width / 2;
};

test("each frame shows its own shot's window, in whatever order frames are asked for", () => {
  const shown = shownIn(SHOTS, SIZE, 10);
  expect([0, 9, 10, 19, 3, 12].map((frame) => centreAt(shown, frame))).toEqual([100, 109, 500, 509, 103, 502]);
  expect(() => shown(20)).toThrow("frame 20 is in no shot");
});

test("layers are above what is shown for as long as they are there, and from the first frame that is kept on", () => {
  const bare = shownIn(SHOTS, SIZE, 10);
  const above = {
    safeArea: null,
    size: SIZE,
    kept: [
      { start: 2, end: 5 },
      { start: 12, end: 18 },
    ],
    fps: 10,
  };
  expect(withLayers(bare, { ...above, layers: [] })).toBe(bare);
  const cut = { ...newBar("bar"), arrives: "cut", leaves: "cut" } as const;
  const ranged = withLayers(bare, { ...above, layers: [{ ...cut, range: { start: 4, end: 14 } }] });
  expect([3, 4, 13, 14].map((frame) => ranged(frame).layers?.at.length ?? 0)).toEqual([0, 1, 1, 0]);
  // One that is there throughout arrives with the first frame of the version, and leaves with its last.
  const faded = withLayers(bare, { ...above, layers: [{ ...newBar("bar"), arrives: "fade", leaves: "fade" }] });
  const opacity = (frame: number) => faded(frame).layers?.at[0]?.opacity ?? 0;
  expect(opacity(2)).toBeLessThan(opacity(4));
  expect(opacity(17)).toBeLessThan(opacity(13));
  expect(centreAt(faded, 13)).toBe(503);
});
