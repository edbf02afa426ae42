import { expect, test } from "@jest/globals";
import { texture, yuvPicture } from "../../../../tests/support/yuv-picture";
import type { YuvImage } from "../../image/yuv-image";
import { ColourModel } from "./colour-model";

const THING = { x: 100, y: 60, width: 40, height: 40 };

/** A red thing on green grass, with a brown post that hides it up to a column, at some exposure. */
function meadow(postTo: number, exposure = 1): YuvImage {
  return yuvPicture(240, 160, (x, y) => {
    const wave = 40 * texture(x, y);
    const isInside = x >= THING.x && x < THING.x + THING.width && y >= THING.y && y < THING.y + THING.height;
    const [r, g, b] = x < postTo && x >= 80 ? [110, 80, 50] : isInside ? [190, 40, 50] : [60, 120, 60];
    return [exposure * (r! + wave), exposure * (g! + wave), exposure * (b! + wave)];
  });
}

test("the more of a thing is hidden, the less its box looks like it", () => {
  const model = new ColourModel(meadow(0), THING);
  const alike = [0, 110, 120, 130, 140].map((postTo) => model.agreement(meadow(postTo), THING));
  expect(alike[0]).toBeGreaterThan(0.85);
  for (const [i, value] of alike.slice(1).entries()) expect(value).toBeLessThan(alike[i]! - 0.12);
  expect(alike[4]).toBeLessThan(0.1);
});

test("the thing's own colours count, and not those of what is beside it", () => {
  const model = new ColourModel(meadow(0), THING);
  expect(model.agreement(meadow(0), { ...THING, x: 160 })).toBeLessThan(0.1);
  expect(model.agreement(meadow(0, 0.7), THING)).toBeGreaterThan(0.6);
  expect(model.agreement(meadow(0), { ...THING, x: 300 })).toBe(0);
});

test("what a thing looks like now is learnt by and by", () => {
  const model = new ColourModel(meadow(0), THING);
  for (let i = 0; i < 60; i++) model.learn(meadow(140), THING);
  expect(model.agreement(meadow(140), THING)).toBeGreaterThan(0.5);
});

test("on a thing that looks like all around it, nothing is said against such places, but against others", () => {
  const grass = yuvPicture(240, 160, (x, y) => [60 + 40 * texture(x, y), 120, 60]);
  const model = new ColourModel(grass, THING);
  expect(model.agreement(grass, { ...THING, x: 30, y: 100 })).toBeGreaterThan(0.8);
  expect(model.agreement(meadow(140), THING)).toBeLessThan(0.2);
});
