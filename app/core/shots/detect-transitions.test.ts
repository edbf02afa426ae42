import { clamped } from "../numbers/clamped";
import { describe, expect, test } from "@jest/globals";
import { EVERY_TEST } from "../../../tests/support/every-test";
import { smoothNoise } from "../../../tests/support/smooth-noise";
import { yuvPicture } from "../../../tests/support/yuv-picture";
import { decideTransitions, type TransitionCandidate, weighTransitions } from "./detect-transitions";
import { packFeatures, unpackFeatures } from "./feature-codec";
import { FEATURE_SIZE, frameFeatures } from "./frame-features";
import { hardTransition, shotsBetween } from "./transition";

const RATE = { num: 30, den: 1 };
const { width: WIDTH, height: HEIGHT } = FEATURE_SIZE;
/** Interleaved RGB. */
type Picture = Float32Array;

/** Smooth, textured scenes that differ from each other; `shift` moves the camera. */
function scene(seed: number, shift = 0): Picture {
  const base = [60 + ((seed * 67) % 120), 60 + ((seed * 101) % 120), 60 + ((seed * 29) % 120)];
  const picture = new Float32Array(WIDTH * HEIGHT * 3);
  for (let y = 0; y < HEIGHT; y++) {
    for (let x = 0; x < WIDTH; x++) {
      const wave = Math.sin((x + shift) * (0.06 + seed * 0.021) + seed) * Math.cos(y * (0.09 + seed * 0.014));
      const texture = 30 * wave + 20 * Math.sin((x + shift) * 0.41 + y * (0.1 + seed * 0.13) + seed);
      const object = Math.hypot(x + shift - 32 - seed * 8, y - 35) < 14 ? 50 : 0;
      // Written one by one: this is done for each pixel of some two thousand pictures.
      const at = (y * WIDTH + x) * 3;
      picture[at] = base[0]! + texture + object;
      picture[at + 1] = base[1]! + texture;
      picture[at + 2] = base[2]! + texture - object;
    }
  }
  return picture;
}

function pictureOf(valueAt: (x: number, y: number) => number): Picture {
  const picture = new Float32Array(WIDTH * HEIGHT * 3);
  for (let y = 0; y < HEIGHT; y++) {
    for (let x = 0; x < WIDTH; x++) {
      const value = valueAt(x, y);
      const at = (y * WIDTH + x) * 3;
      picture[at] = value;
      picture[at + 1] = 0.9 * value;
      picture[at + 2] = 0.7 * value;
    }
  }
  return picture;
}

/** A rough ground, and how it looks after so many pictures of a low flight over it: what is near moves far. */
const ground = (seed: number, pictures: number): Picture =>
  pictureOf((x, y) => 40 + 150 * smoothNoise((x + 0.4 * pictures * y) / 6, (y + 3 * pictures) / 6, seed));
const flight = (seed: number, count: number) => Array.from({ length: count }, (_, k) => ground(seed, k));

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
    const data = new Uint8ClampedArray(picture.length);
    for (let i = 0; i < data.length; i++) data[i] = picture[i]! + grain();
    const at = (x: number, y: number) => 3 * (y * WIDTH + x);
    return frameFeatures(
      yuvPicture(WIDTH, HEIGHT, (x, y) => [data[at(x, y)]!, data[at(x, y) + 1]!, data[at(x, y) + 2]!]),
    );
  });
}

const repeat = (count: number, picture: (k: number) => Picture): Picture[] =>
  Array.from({ length: count }, (_, k) => picture(k));
const detect = (frames: Picture[]) => decideTransitions(weighTransitions(film(frames), RATE));

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

  test("a cut out of a fast pan is found, and one into it", () => {
    const pan = (seed: number, count: number) => repeat(count, (k) => scene(seed, 26 * k));
    const frames = [...repeat(20, () => scene(1)), ...pan(1, 8), ...repeat(30, () => scene(3)), ...pan(2, 8)];
    expect(detect(frames).map(({ kind, frame }) => [kind, frame])).toEqual([
      ["cut", 28],
      ["cut", 58],
    ]);
  });

  /** A film in which each picture is held for some frames. */
  const held = (frames: Picture[], count: (picture: number) => number) => {
    const features = film(frames).flatMap((picture, i) => Array.from({ length: count(i) }, () => picture));
    return decideTransitions(weighTransitions(features, RATE)).map(({ kind, frame }) => [kind, frame]);
  };
  test("pictures that are held, as in animation, move at once from one to the next, and that is no cut", () => {
    expect(held(flight(1, 30), () => 2)).toEqual([]);
    expect(held(flight(2, 30), (i) => 2 + (i % 2))).toEqual([]);
    expect(held(flight(3, 20), () => 4)).toEqual([]);
  });

  test("cuts between shots of held pictures are found", () => {
    expect(held([...flight(1, 15), ...flight(2, 15)], () => 2)).toEqual([["cut", 30]]);
  });

  test("photographs that follow one another in a few frames each are shots", () => {
    const cuts = held(
      repeat(6, (k) => ground(k + 1, 0)),
      () => 4,
    );
    expect(cuts.map(([, frame]) => frame)).toEqual([4, 8, 12, 16, 20]);
  });

  test("a title that comes up and goes at once before a camera that stands is no jump cut", () => {
    const titled = (isThere: boolean): Picture => {
      const picture = scene(1);
      for (let y = 52; isThere && y < 66; y++) {
        for (let x = 12; x < 104; x++) picture.fill(x % 5 < 2 ? 235 : 25, (y * WIDTH + x) * 3, (y * WIDTH + x) * 3 + 3);
      }
      return picture;
    };
    expect(detect(repeat(90, (k) => titled(k >= 30 && k < 60)))).toEqual([]);
  });

  test("nothing is found in a pan, nor at a flash", () => {
    expect(detect(repeat(60, (k) => scene(1, k)))).toEqual([]);
    const flash = repeat(60, (k) => (k === 30 || k === 31 ? mix(scene(1), plain(255), 0.85) : scene(1)));
    expect(detect(flash)).toEqual([]);
  });

  test("the shots of a quick montage are shots, also where what comes after one has little in it", () => {
    const starts = (frames: Picture[]) => detect(frames).map(({ frame }) => frame);
    const disc = plain(90).map((value, i) => {
      const [x, y] = [Math.floor(i / 3) % WIDTH, Math.floor(i / 3 / WIDTH)];
      return Math.hypot(x - 30, y - 20) < 12 ? 160 : value;
    });
    // What is flat has nothing that could not be found in another picture, such as the one before a flash.
    const six = [
      ...repeat(30, () => disc),
      ...repeat(6, () => scene(2).map((value) => value + 60)),
      ...repeat(30, () => plain(80)),
    ];
    expect(starts(six)).toEqual([30, 36]);
    const two = [...repeat(20, () => scene(1)), ...repeat(2, () => scene(4)), ...repeat(20, () => scene(6))];
    expect(starts(two)).toEqual([20, 22]);
  });

  test("a flash of some frames goes back to the same picture, whatever moves meanwhile", () => {
    const lit = (k: number) => mix(scene(1, k / 3), plain(255), 0.9);
    const frames = repeat(60, (k) => (k >= 30 && k < 36 ? lit(k) : scene(1, k / 3)));
    expect(detect(frames)).toEqual([]);
  });

  test("a change of light is no dissolve", () => {
    const lit = repeat(60, (k) => mix(scene(1), plain(20), clamped((k - 20) / 40, 0, 0.5)));
    expect(detect(lit)).toEqual([]);
  });

  test("what comes in over an even ground and stays is no wipe", () => {
    // A bar that is laid across the picture, from one side to the other.
    const laid = (k: number) => (x: number, y: number) =>
      Math.abs(y - 36 - x / 8) < 7 && x < 8 * (k - 20) ? 40 + 60 * smoothNoise(x / 4, y / 4, 2) : 170;
    expect(detect(repeat(60, (k) => pictureOf(laid(k))))).toEqual([]);
  });

  // Other textures find a threshold that has been fitted to one of them.
  test.each(EVERY_TEST ? [6, 7, 8] : [7])("a fast pan past large things is no wipe (%i)", (seed) => {
    const blotches = (x: number, y: number) =>
      120 * smoothNoise(x / 40, y / 40, seed) + 60 * smoothNoise(x / 5, y / 5, seed + 9);
    const pan = repeat(70, (k) => pictureOf((x, y) => 30 + blotches(x + 12 * k, y)));
    expect(detect(pan)).toEqual([]);
  });

  test("a dissolve is a range, with the switch in its middle", () => {
    const share = (k: number) => clamped((k - 29) / 21, 0, 1);
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

describe("what is no cut", () => {
  test("lights that are switched on and off, and a strobe", () => {
    const dark = (k: number) => (k > 20 && k < 45) || (k > 50 && k % 6 < 3);
    expect(detect(repeat(90, (k) => scene(1).map((value) => value * (dark(k) ? 0.3 : 1))))).toEqual([]);
  });

  test("something that passes close to the lens", () => {
    const passing = (k: number) => {
      const picture = scene(2, k / 3);
      const edge = (k - 30) * 22;
      for (let i = 0; i < WIDTH * HEIGHT; i++) {
        const x = i % WIDTH;
        if (x < edge && x > edge - 100) picture.fill(25, i * 3, i * 3 + 3);
      }
      return picture;
    };
    expect(detect(repeat(80, passing))).toEqual([]);
  });
});

test("a jump cut keeps the place and moves what is in it", () => {
  const talk = (shift: number) => {
    const picture = scene(1);
    for (let i = 0; i < WIDTH * HEIGHT; i++) {
      const [x, y] = [i % WIDTH, Math.floor(i / WIDTH)];
      const inside = Math.hypot(x - 60 - shift, y - 30) < 13 || (Math.abs(x - 60 - shift) < 22 && y > 45);
      if (inside) picture.set([190 + 20 * Math.sin(y), 140, 110], i * 3);
    }
    return picture;
  };
  const found = detect([...repeat(40, (k) => talk(Math.sin(k / 6))), ...repeat(40, (k) => talk(12 + Math.sin(k / 6)))]);
  expect(found).toEqual([hardTransition(40, "jump")]);
});

test("a wipe is a range, told from a dissolve", () => {
  const wiped = (k: number) => {
    const [from, to] = [scene(1), scene(4)];
    const edge = ((k - 30) / 20) * WIDTH;
    return from.map((value, i) => (Math.floor(i / 3) % WIDTH < edge ? to[i]! : value));
  };
  const [found, ...others] = detect(repeat(80, wiped));
  expect(others).toEqual([]);
  expect(found!.kind).toBe("wipe");
  expect(Math.abs(found!.frame - 40)).toBeLessThanOrEqual(2);
  expect(Math.abs(found!.range.start - 31)).toBeLessThanOrEqual(3);
  expect(Math.abs(found!.range.end - 50)).toBeLessThanOrEqual(3);
});

describe("deciding", () => {
  const candidate = (frame: number, strength: number): TransitionCandidate => ({
    transition: hardTransition(frame, "cut"),
    strength,
  });

  test("more sensitivity finds more, and never less", () => {
    const candidates = [candidate(10, 0.2), candidate(20, 0.55), candidate(30, 0.85)];
    const frames = (sensitivity: number) => decideTransitions(candidates, sensitivity).map(({ frame }) => frame);
    expect([frames(0), frames(20), frames(50), frames(100)]).toEqual([[], [30], [20, 30], [10, 20, 30]]);
  });

  test("of two that overlap the stronger stays", () => {
    const dissolve = {
      transition: { frame: 20, kind: "dissolve" as const, range: { start: 14, end: 26 } },
      strength: 0.6,
    };
    expect(decideTransitions([candidate(18, 0.7), dissolve])).toEqual([hardTransition(18, "cut")]);
    expect(decideTransitions([candidate(18, 0.55), dissolve])).toEqual([dissolve.transition]);
    expect(decideTransitions([candidate(30, 0.55), dissolve])).toHaveLength(2);
  });
});

test("shots lie between transitions, half-open, without gaps", () => {
  const cuts = [hardTransition(10, "cut"), hardTransition(30, "cut")];
  expect(shotsBetween(cuts, { start: 0, end: 50 })).toEqual([
    { start: 0, end: 10 },
    { start: 10, end: 30 },
    { start: 30, end: 50 },
  ]);
  expect(shotsBetween(cuts, { start: 10, end: 20 })).toEqual([{ start: 10, end: 20 }]);
});

test("features survive packing", () => {
  const features = film(repeat(3, (k) => scene(k)));
  expect(unpackFeatures(packFeatures(features))).toEqual(features);
  expect(() => unpackFeatures(new Uint8Array(5))).toThrow("cut off");
});
