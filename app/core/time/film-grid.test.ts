import { describe, expect, test } from "@jest/globals";
import { seeded } from "../../../demo/film/random";
import { chooseRate, makeGrid, type PictureTimes } from "./film-grid";
import { framesPerSecond, type Rate } from "./rate";

const NTSC: Rate = { num: 30000, den: 1001 };
const at = (fps: number, places: readonly number[], start = 0) => Float64Array.from(places, (n) => start + n / fps);
const upTo = (count: number) => Array.from({ length: count }, (_, i) => i);
const film = (times: Float64Array, change: Partial<PictureTimes> = {}): PictureTimes => ({
  times,
  declared: { base: { num: 30, den: 1 }, average: { num: 30, den: 1 } },
  fileStart: 0,
  durationSeconds: null,
  durationFromZero: false,
  ...change,
});
const grid = (times: Float64Array, change?: Partial<PictureTimes>) => makeGrid(film(times, change))!;
const fpsOf = (times: Float64Array, base: Rate | null, average: Rate | null) =>
  framesPerSecond(chooseRate({ times, declared: { base, average } })!);

describe("the rate", () => {
  test("is the declared one where the pictures are on it", () => {
    for (const base of [
      NTSC,
      { num: 24000, den: 1001 },
      { num: 25, den: 1 },
      { num: 60000, den: 1001 },
      { num: 18, den: 1 },
    ]) {
      expect(chooseRate({ times: at(framesPerSecond(base), upTo(100)), declared: { base, average: base } })).toEqual(
        base,
      );
    }
  });

  test("is the common one that milliseconds stand for", () => {
    for (const rate of [NTSC, { num: 24000, den: 1001 }, { num: 60000, den: 1001 }, { num: 25, den: 1 }]) {
      const times = at(framesPerSecond(rate), upTo(2000)).map((time) => Math.round(time * 1000) / 1000);
      const odd = { num: 19001, den: 317 };
      expect(fpsOf(times, { num: 1000, den: 1 }, odd)).toBe(framesPerSecond(rate));
    }
  });

  test("is that of the pictures although many are held, and whatever the mean is", () => {
    const random = seeded(3);
    const places = upTo(300).filter((n) => n === 0 || random() < 0.6);
    expect(fpsOf(at(30, places), { num: 30, den: 1 }, { num: 18, den: 1 })).toBe(30);
  });

  test("is that which all pictures of a sparse film lie on, and no mean of their distances", () => {
    // Of fifteen a second only every sixth or seventh is there, as some recorders of screens write them.
    const random = seeded(5);
    const places = [0];
    for (let n = 0; n < 200; n++) places.push(places.at(-1)! + (random() < 0.6 ? 6 : 7));
    const average = { num: 2404, den: 1000 };
    expect(fpsOf(at(15, places), { num: 15, den: 1 }, average)).toBe(15);
    // Matroska's clock says nothing: the coarsest common rate on which all of them lie is taken.
    const rounded = at(15, places).map((time) => Math.round(time * 1000) / 1000);
    expect(fpsOf(rounded, { num: 1000, den: 1 }, average)).toBe(15);
    // Every sixth of thirty is five per second, whatever the file was made for.
    expect(fpsOf(at(5, upTo(200)), { num: 30, den: 1 }, { num: 5, den: 1 })).toBe(5);
  });

  test("is found where from two to forty pictures are held at a time", () => {
    for (const fps of [5, 12, 25, 60]) {
      const random = seeded(fps);
      const places = [0];
      for (let n = 0; n < 300; n++) places.push(places.at(-1)! + 2 + Math.floor(39 * random() ** 2));
      expect(fpsOf(at(fps, places), { num: fps, den: 1 }, { num: 1, den: 1 })).toBe(fps);
    }
  });

  test("is the nearest common one where a phone's clock wanders", () => {
    const random = seeded(4);
    let time = 0;
    const times = Float64Array.from({ length: 400 }, () => (time += (1 + 0.25 * (random() - 0.5)) / 29.8));
    expect(fpsOf(times, { num: 90000, den: 1 }, { num: 2980, den: 100 })).toBeCloseTo(30, 0);
  });

  test("is what is declared where there are next to no pictures", () => {
    expect(fpsOf(at(10, [0, 1]), { num: 10, den: 1 }, null)).toBe(10);
    expect(chooseRate({ times: at(10, [0]), declared: { base: null, average: null } })).toBeNull();
  });
});

describe("the grid", () => {
  test("of an even film has each picture at its own frame", () => {
    expect(grid(at(30, upTo(90)))).toEqual({
      rate: { num: 30, den: 1 },
      frames: 90,
      origin: 0,
      fileStart: 0,
      lastPicture: 89 / 30,
      even: true,
      held: 0,
      longHolds: [],
    });
  });

  test("begins with the file where the picture comes later, and keeps the picture's phase", () => {
    const late = grid(at(30, upTo(30), 0.5), { fileStart: 0 });
    expect([late.origin, late.frames, late.held, late.even]).toEqual([0.5 - 15 / 30, 45, 15, false]);
    // The sound of Matroska and MPEG-TS begins 21 ms early: less than a frame.
    const primed = grid(at(30, upTo(30), 1.421), { fileStart: 1.4 });
    expect(primed.origin).toBeCloseTo(1.421 - 1 / 30);
    const barely = grid(at(30, upTo(30), 1.411), { fileStart: 1.4 });
    expect(barely.origin).toBeCloseTo(1.411);
  });

  test("ends with the sound where that is longer", () => {
    const longer = grid(at(30, upTo(30)), { durationSeconds: 2 });
    expect([longer.frames, longer.held, longer.longHolds]).toEqual([60, 30, [{ start: 30, end: 60 }]]);
    expect(grid(at(30, upTo(30)), { durationSeconds: 0.9 }).frames).toBe(30);
    const later = { fileStart: 7, durationSeconds: 9 };
    expect(grid(at(30, upTo(30), 7), { ...later, durationFromZero: true }).frames).toBe(60);
    expect(grid(at(30, upTo(30), 7), later).frames).toBe(270);
  });

  test("tells where a picture stands for long", () => {
    const places = [...upTo(10), 30, 31, 33, 34, 35];
    expect(grid(at(30, places))).toMatchObject({ frames: 36, held: 21, longHolds: [{ start: 10, end: 30 }] });
  });

  test("of no picture there is none", () => {
    expect(makeGrid(film(new Float64Array()))).toBeNull();
  });
});
