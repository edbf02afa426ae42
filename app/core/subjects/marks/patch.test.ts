import { describe, expect, test } from "@jest/globals";
import { texture, yuvPicture } from "../../../../tests/support/yuv-picture";
import { fft2d } from "./fft";
import { CHANNELS, describePatch, type PatchPlace, SIDE, WHOLE_PATCH, windowOn } from "./patch";

const PLACE: PatchPlace = { cx: 100, cy: 100, width: 64, height: 64 };
/** Weighs all of a patch alike, so that its channels can be read as they are. */
const EVEN = { across: new Float64Array(SIDE).fill(1), down: new Float64Array(SIDE).fill(1) };

const grey = (of: (x: number, y: number) => number) =>
  yuvPicture(200, 200, (x, y) => {
    const value = of(x, y);
    return [value, value, value];
  });
/** The channels of a patch, back from the Fourier domain. */
function channels(...args: Parameters<typeof describePatch>): Float64Array[] {
  const { re, im } = describePatch(...args);
  expect([re.length, im.length]).toEqual([CHANNELS, CHANNELS]);
  return re.map((real, i) => {
    const [a, b] = [Float64Array.from(real), Float64Array.from(im[i]!)];
    fft2d(a, b, SIDE, true);
    return a;
  });
}
const energy = (channel: Float64Array) => channel.reduce((sum, value) => sum + value ** 2, 0);
/** The middle of a patch, whose values do not reach its border. */
const inner = (channel: Float64Array, by = { x: 0, y: 0 }) =>
  Array.from({ length: 16 }, (_, j) =>
    Array.from({ length: 16 }, (_, i) => channel[(8 + j + by.y) * SIDE + 8 + i + by.x]!),
  ).flat();
const mostApart = (a: readonly number[], b: readonly number[]) => Math.max(...a.map((v, i) => Math.abs(v - b[i]!)));

describe("a patch", () => {
  const picture = grey((x, y) => 120 + 140 * texture(x, y, 8));

  test("has grey with its mean taken out, and no colour where there is none", () => {
    const [luma, blue, red] = channels(picture, PLACE, EVEN);
    expect(Math.abs(luma!.reduce((sum, value) => sum + value, 0))).toBeLessThan(1e-6);
    expect(energy(luma!)).toBeGreaterThan(50);
    expect([energy(blue!), energy(red!)]).toEqual([0, 0].map(() => expect.closeTo(0, 6)));
  });

  test("goes along with its place, a cell for two pixels, also at another size", () => {
    const [luma] = channels(picture, PLACE, EVEN);
    const [moved] = channels(picture, { ...PLACE, cx: 106, cy: 96 }, EVEN);
    expect(mostApart(inner(moved!), inner(luma!, { x: 3, y: -2 }))).toBeLessThan(0.15);
    // In a picture of half the pixels, half the patch is the same.
    const small = grey((x, y) => 120 + 140 * texture(2 * x + 0.5, 2 * y + 0.5, 8));
    const [half] = channels(small, { cx: 50, cy: 50, width: 32, height: 32 }, EVEN);
    expect(mostApart(inner(half!), inner(luma!))).toBeLessThan(0.15);
  });

  test("is the same in another light", () => {
    const all = channels(picture, PLACE, EVEN);
    const lit = channels(
      grey((x, y) => 70 + 112 * texture(x, y, 8)),
      PLACE,
      EVEN,
    );
    all.forEach((channel, i) => expect(mostApart(inner(lit[i]!), inner(channel))).toBeLessThan(0.1));
  });

  test("tells the direction of its edges, whichever side is the lighter one", () => {
    const strongest = (dx: number, dy: number) => {
      const found = channels(
        grey((x, y) => 120 + 80 * Math.sin((dx * x + dy * y) / 3)),
        PLACE,
        EVEN,
      );
      const energies = found.slice(3).map(energy);
      return energies.indexOf(Math.max(...energies));
    };
    // Luma changes to the right, down to the right, down, and down to the left.
    expect([strongest(1, 0), strongest(0.7, 0.7), strongest(0, 1), strongest(-0.7, 0.7)]).toEqual([0, 1, 2, 3]);
    expect([strongest(-1, 0), strongest(-0.7, -0.7), strongest(0, -1), strongest(0.7, -0.7)]).toEqual([0, 1, 2, 3]);
  });

  test("has the colour of each cell where it is", () => {
    const halves = yuvPicture(200, 200, (x) => (x < 100 ? [60, 60, 200] : [200, 60, 60]));
    const [, blue, red] = channels(halves, PLACE, EVEN);
    const at = (channel: Float64Array, x: number) => channel[16 * SIDE + x]!;
    expect([at(blue!, 4) > 1, at(blue!, 28) < 0, at(red!, 4) < 0, at(red!, 28) > 1]).toEqual([true, true, true, true]);
  });

  test("repeats the picture's edge beyond it", () => {
    const [luma] = channels(picture, { ...PLACE, cx: 0, cy: 199 }, EVEN);
    const row = Array.from({ length: SIDE / 2 }, (_, x) => luma![8 * SIDE + x]!);
    expect(mostApart(row, Array<number>(row.length).fill(row[0]!))).toBeLessThan(1e-6);
    const column = Array.from({ length: SIDE / 2 - 1 }, (_, y) => luma![(SIDE / 2 + 1 + y) * SIDE + 20]!);
    expect(mostApart(column, Array<number>(column.length).fill(column[0]!))).toBeLessThan(1e-6);
  });
});

describe("what a patch is weighed by", () => {
  const centre = SIDE / 2;

  test("fades to the border of what is searched", () => {
    const { across, down } = WHOLE_PATCH;
    expect(across).toEqual(down);
    expect(across[centre]).toBeGreaterThan(0.99);
    expect(across[0]).toBeLessThan(0.01);
    expect(across[8]).toBeCloseTo(across[SIDE - 9]!);
  });

  test("is little but the thing where it is learnt, in width and height by themselves", () => {
    const { across, down } = windowOn({ width: 0.5, height: 0.25 });
    // Within the thing nearly all, at its border about half of what is searched, and beyond it next to nothing.
    expect(across[centre + 2]! / WHOLE_PATCH.across[centre + 2]!).toBeGreaterThan(0.95);
    const border = across[centre + 8]! / WHOLE_PATCH.across[centre + 8]!;
    expect(border).toBeGreaterThan(0.25);
    expect(border).toBeLessThan(0.5);
    expect(across[centre + 13]! / WHOLE_PATCH.across[centre + 13]!).toBeLessThan(0.01);
    expect(down).toEqual(windowOn({ width: 0.25, height: 1 }).across);
    expect(down[centre + 8]! / WHOLE_PATCH.down[centre + 8]!).toBeLessThan(0.01);
  });
});
