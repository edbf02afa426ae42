import { expect, test } from "@jest/globals";
import { CHANGE_UNIT, CONTRAST_UNIT } from "../activity/activity";
import { USUAL_LIMITS } from "./check-settings";
import { pictureFaults, pictureFlags } from "./picture-faults";

const RATE = { num: 25, den: 1 };
const FRAMES = 250;

/** What goes on in ten seconds: an ordinary picture where nothing else is said. */
function activity(of: {
  light?: (i: number) => number;
  contrast?: (i: number) => number;
  change?: (i: number) => number;
}) {
  const bytes = (value: (i: number) => number) => Uint8Array.from({ length: FRAMES }, (_, i) => value(i));
  return {
    light: bytes(of.light ?? (() => 110)),
    contrast: bytes((i) => (of.contrast?.(i) ?? 40) / CONTRAST_UNIT),
    change: bytes((i) => (of.change?.(i) ?? 2) / CHANGE_UNIT),
    speech: bytes(() => 0),
  };
}
const faultsOf = (of: Parameters<typeof activity>[0]) => pictureFaults(activity(of), RATE);

test("flashes, of which there are more than three in a second", () => {
  // Light for two frames and dark for two: more than six flashes per second, from frame 100 to frame 149.
  const strobe = (every: number) => (i: number) => (i >= 100 && i < 150 && i % every < every / 2 ? 200 : 60);
  const [flashing] = faultsOf({ light: strobe(4) }).flashing;
  expect(flashing!.start).toBeGreaterThanOrEqual(99);
  expect(flashing!.start).toBeLessThan(106);
  expect(flashing!.end).toBeGreaterThan(144);
  // Twice a second is no flashing; nor is a change that is small, nor one between two light states.
  expect(faultsOf({ light: strobe(12) }).flashing).toEqual([]);
  expect(faultsOf({ light: (i) => (i % 4 < 2 ? 110 : 130) }).flashing).toEqual([]);
  expect(faultsOf({ light: (i) => (i % 4 < 2 ? 215 : 250) }).flashing).toEqual([]);
});

test("a single change of light, and a slow one, are no flashing", () => {
  expect(faultsOf({ light: (i) => (i < 100 ? 40 : 220) }).flashing).toEqual([]);
  expect(faultsOf({ light: (i) => 120 + 80 * Math.sin(i / 20) }).flashing).toEqual([]);
});

test("black, which is dark and without detail; a dark picture with detail is not", () => {
  const dark = { light: (i: number) => (i < 50 ? 16 : 110), contrast: (i: number) => (i < 50 ? 0.5 : 40) };
  expect(faultsOf(dark).black).toEqual([{ start: 0, end: 50 }]);
  expect(faultsOf({ light: () => 16, contrast: () => 8 }).black).toEqual([]);
});

test("a picture that does not change; grain is a change", () => {
  const faults = faultsOf({ change: (i) => (i >= 100 && i < 200 ? 0 : 0.5) });
  expect(faults).toEqual({ flashing: [], black: [], frozen: [{ start: 100, end: 200 }] });
  expect(pictureFlags(faults, [{ start: 0, end: 250 }], USUAL_LIMITS, RATE)).toMatchObject([
    { kind: "frozen", range: { start: 100, end: 200 }, text: "Frozen for 4.0 s" },
  ]);
  expect(pictureFlags(faults, [{ start: 0, end: 250 }], { ...USUAL_LIMITS, frozen: 5 }, RATE)).toEqual([]);
  expect(pictureFlags(faults, [{ start: 0, end: 150 }], USUAL_LIMITS, RATE)).toEqual([]);
});
