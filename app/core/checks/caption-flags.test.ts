import { expect, test } from "@jest/globals";
import { captionFlags } from "./caption-flags";

const RATE = { num: 25, den: 1 };
const caption = (start: number, end: number, text: string) => ({ id: `c${start}`, start, end, text, speaker: null });
/** Forty characters. */
const LONG = "The kite climbs where nobody follows it.";

test("a caption is flagged where its pace is above what can be read, the more the faster it is", () => {
  const flags = (seconds: number) =>
    captionFlags([caption(50, 50 + 25 * seconds, LONG)], [{ start: 0, end: 200 }], 20, RATE);
  expect(flags(2)).toEqual([]);
  const [quick] = flags(1.6);
  expect(quick).toMatchObject({ kind: "caption-pace", range: { start: 50, end: 90 }, frame: 50 });
  expect(quick!.text).toContain("25");
  expect(quick!.text).toContain("20");
  const [quicker] = flags(0.8);
  expect(quicker!.severity).toBeGreaterThan(quick!.severity);
});

test("a caption belongs to the shot in which it starts, if that frame is shown", () => {
  const flags = (start: number) =>
    captionFlags(
      [caption(start, start + 10, LONG)],
      [
        { start: 100, end: 120 },
        { start: 150, end: 200 },
      ],
      20,
      RATE,
    );
  expect([99, 100, 119, 120, 150, 200].map((start) => flags(start).length)).toEqual([0, 1, 1, 0, 1, 0]);
});
