import { expect, test } from "@jest/globals";
import { INFO } from "../../tests/support/film-info";
import { withFields, withSound } from "./film-choices";

const sound = (index: number, language: string) => ({
  codec: "aac",
  index,
  start: 0.02 * index,
  channels: 2,
  language,
  title: null,
});
const info = { ...INFO, sounds: [sound(0, "eng"), sound(1, "deu")], interlaced: true, rate: { num: 25, den: 1 } };

test("another sound is taken, if there is one", () => {
  expect(withSound(info, 1).audio).toEqual({ codec: "aac", index: 1, start: 0.02 });
  expect(() => withSound(info, 2)).toThrow("it has 2 audio tracks, and none with number 3");
});

test("at double rate there are twice as many frames, in the same time", () => {
  const held = { ...info, grid: { ...info.grid, held: 9, longHolds: [{ start: 10, end: 19 }] } };
  expect(withFields(held)).toMatchObject({
    fields: true,
    rate: { num: 50, den: 1 },
    frames: 600,
    grid: { held: 18, longHolds: [{ start: 20, end: 38 }] },
  });
  expect(withFields(withFields(info)).frames).toBe(600);
  expect(() => withFields({ ...info, interlaced: false })).toThrow("not interlaced");
});
