import { expect, jest, test } from "@jest/globals";
import type { FrameRange } from "~/core/time/rate";
import { TrackLoader } from "./track-loader";

const ranges = (count: number, frames: number): FrameRange[] =>
  Array.from({ length: count }, (_, i) => ({ start: i * frames, end: (i + 1) * frames }));
const settle = () => new Promise((resolve) => setTimeout(resolve, 20));

function open(playhead = 0) {
  const asked: number[][] = [];
  const marks: number[][] = [];
  const onLoaded = jest.fn();
  const loader = new TrackLoader(
    async (wanted, things) => {
      asked.push(wanted.map(({ start }) => start));
      marks.push(things.map(({ id }) => id));
      return { analysed: [], marks: [] };
    },
    () => playhead,
    onLoaded,
  );
  return { loader, asked, marks, onLoaded };
}

test("tracks around the playhead come first, then the others, each once", async () => {
  const { loader, asked, onLoaded } = open(15_500);
  loader.want({ analysed: ranges(20, 1000), marks: [] });
  loader.want({ analysed: ranges(20, 1000), marks: [] });
  await settle();
  expect(asked[0]!.sort()).toEqual([13000, 14000, 15000, 16000]);
  expect(asked.flat().sort((a, b) => a - b)).toEqual(ranges(20, 1000).map(({ start }) => start));
  expect(onLoaded).toHaveBeenCalledTimes(asked.length);
});

test("one long range comes alone, and what was found since is asked for", async () => {
  const { loader, asked, marks } = open();
  loader.want({ analysed: ranges(2, 50_000), marks: [{ id: 3, basis: "m" }] });
  await settle();
  expect(asked).toEqual([[0], [50_000]]);
  expect(marks[0]).toEqual([3]);
  loader.want({ analysed: ranges(3, 50_000), marks: [{ id: 3, basis: "m" }] });
  await settle();
  expect(asked).toEqual([[0], [50_000], [100_000]]);
});

test("nothing more is asked for once the desk is closed", async () => {
  const { loader, asked, onLoaded } = open();
  loader.want({ analysed: ranges(40, 1000), marks: [] });
  loader.dispose();
  await settle();
  expect(asked).toHaveLength(1);
  expect(onLoaded).not.toHaveBeenCalled();
});
