import { describe, expect, test } from "@jest/globals";
import { detectTransitions, shotsBetween } from "./detect-transitions";
import { packFeatures, unpackFeatures } from "./feature-codec";
import { frameFeatures } from "./frame-features";

const RATE = { num: 30, den: 1 };
const WIDTH = 80;
const HEIGHT = 45;
/** Interleaved RGB. */
type Picture = Float32Array;

/** Smooth, textured scenes that differ from each other; `shift` moves the camera. */
function scene(seed: number, shift = 0): Picture {
  const base = [60 + ((seed * 67) % 120), 60 + ((seed * 101) % 120), 60 + ((seed * 29) % 120)];
  const picture = new Float32Array(WIDTH * HEIGHT * 3);
  for (let y = 0; y < HEIGHT; y++) {
    for (let x = 0; x < WIDTH; x++) {
      const texture = 40 * Math.sin((x + shift) * (0.1 + seed * 0.034) + seed) * Math.cos(y * (0.14 + seed * 0.022));
      const object = Math.hypot(x + shift - 20 - seed * 5, y - 22) < 9 ? 50 : 0;
      const at = (y * WIDTH + x) * 3;
      picture.set([base[0]! + texture + object, base[1]! + texture, base[2]! + texture - object], at);
    }
  }
  return picture;
}

const mix = (a: Picture, b: Picture, share: number): Picture =>
  a.map((value, i) => value * (1 - share) + b[i]! * share);
const plain = (value: number): Picture => new Float32Array(WIDTH * HEIGHT * 3).fill(value);

/** Features of a film given as a picture for each frame, with some grain. */
function film(frames: Picture[]) {
  let state = 7;
  const grain = () => {
    state = (Math.imul(state, 1103515245) + 12345) >>> 0;
    return (state / 2 ** 32 - 0.5) * 8;
  };
  return frames.map((picture) => {
    const data = Uint8ClampedArray.from(picture, (value) => value + grain());
    return frameFeatures({ width: WIDTH, height: HEIGHT, data: new Uint8Array(data) });
  });
}

const repeat = (count: number, picture: (k: number) => Picture): Picture[] =>
  Array.from({ length: count }, (_, k) => picture(k));
const detect = (frames: Picture[]) => detectTransitions(film(frames), RATE);

describe("transitions", () => {
  test("hard cuts are found to the frame, while the camera moves", () => {
    const frames = [
      ...repeat(37, (k) => scene(1, k / 2)),
      ...repeat(21, (k) => scene(2, k / 2)),
      ...repeat(30, (k) => scene(3, -k / 2)),
    ];
    expect(detect(frames).map(({ kind, frame }) => [kind, frame])).toEqual([
      ["cut", 37],
      ["cut", 58],
    ]);
  });

  test("nothing is found in a pan, nor at a flash", () => {
    expect(detect(repeat(60, (k) => scene(1, k)))).toEqual([]);
    const flash = repeat(60, (k) => (k === 30 || k === 31 ? mix(scene(1), plain(255), 0.85) : scene(1)));
    expect(detect(flash)).toEqual([]);
  });

  test("a change of light is no dissolve", () => {
    const lit = repeat(60, (k) => mix(scene(1), plain(20), Math.min(0.5, Math.max(0, (k - 20) / 40))));
    expect(detect(lit)).toEqual([]);
  });

  test("a dissolve is a range, with the switch in its middle", () => {
    const share = (k: number) => Math.min(1, Math.max(0, (k - 29) / 21));
    const [found, ...others] = detect(repeat(80, (k) => mix(scene(1), scene(4), share(k))));
    expect(others).toEqual([]);
    expect(found!.kind).toBe("dissolve");
    expect(Math.abs(found!.frame - 40)).toBeLessThanOrEqual(2);
    expect(found!.range.start).toBeGreaterThan(22);
    expect(found!.range.end).toBeLessThan(58);
  });

  test("a fade through black switches where it is black", () => {
    const dark = (k: number) => Math.max(0, 1 - Math.abs(k - 40) / 12);
    const [found, ...others] = detect(repeat(80, (k) => mix(k < 40 ? scene(1) : scene(2), plain(2), dark(k))));
    expect(others).toEqual([]);
    expect(found!.kind).toBe("fade");
    expect(Math.abs(found!.frame - 40)).toBeLessThanOrEqual(1);
  });
});

test("shots lie between transitions, half-open, without gaps", () => {
  const cut = (frame: number) => ({ frame, kind: "cut" as const, range: { start: frame, end: frame } });
  expect(shotsBetween([cut(10), cut(30)], 50)).toEqual([
    { start: 0, end: 10 },
    { start: 10, end: 30 },
    { start: 30, end: 50 },
  ]);
  expect(shotsBetween([], 5)).toEqual([{ start: 0, end: 5 }]);
});

test("features survive packing", () => {
  const features = film(repeat(3, (k) => scene(k)));
  expect(unpackFeatures(packFeatures(features))).toEqual(features);
  expect(() => unpackFeatures(new Uint8Array(5))).toThrow("cut off");
});
