/** The benchmark's scenes as data: who and what is where and when, and what makes it hard. */
import { seeded } from "../../demo/film/random";
import type { Person } from "../../demo/film/people";
import { WORLD_KINDS, type WorldKind } from "../cuts/worlds";

export const PICTURE = { width: 1280, height: 720 };
export const RATE = { num: 30, den: 1 };

/** Somebody or something that moves through a scene. Places are of the picture, times in seconds. */
export interface Actor {
  id: string;
  kind: "bust" | "figure" | "ball" | "dog" | "cart";
  person?: Person;
  /** Height of the head, the figure or the thing at the beginning and at the end. */
  size: [number, number];
  /** Centre of the head, the feet, or the thing's middle at the beginning and at the end. */
  from: { x: number; y: number };
  to: { x: number; y: number };
  /** When it moves from the one to the other; it stays before and after. */
  moving: [number, number];
  /** Turn of the head at the beginning and at the end, -1 to 1, and how far it is tilted, in radians. */
  yaw?: [number, number];
  tilt?: number;
  /** When it speaks. */
  speaks?: [number, number][];
  /** When a figure waves with both arms. */
  waves?: [number, number][];
  /** Whom the shot is about. */
  main?: boolean;
}

/** Something that stands before all actors. */
export interface Cover {
  x: number;
  width: number;
  top: number;
}

export interface ScenePlan {
  name: string;
  set: string;
  /** Kept apart while the method is tuned. */
  apart: boolean;
  seconds: number;
  world: WorldKind;
  seed: number;
  actors: Actor[];
  covers: Cover[];
  camera: { panX: number; shake: number; zoom: number };
  /** Standard deviation of the grain, 0 to 255. */
  grain: number;
  crf: number;
  /** Gain of a dark scene. */
  exposure: number;
  /** Share of a frame's time in which the shutter is open; 0 for no motion blur. */
  shutter: number;
  /** Pixels by which the lens is out of focus. */
  blur: number;
}

type Random = () => number;
const between = (random: Random, low: number, high: number) => low + random() * (high - low);
const pick = <T>(random: Random, from: readonly T[]): T => from[Math.floor(random() * from.length)]!;

const SKINS = ["#eabf9f", "#e2ab86", "#c98f68", "#a87050", "#8d5b3d", "#6b432c"];
const HAIR = ["#17110d", "#2a1c15", "#5a2e1b", "#8d8a86", "#c08a45", "#6e6e70"];
const STYLES = ["short", "long", "bun", "cap", "bald"] as const;
const CLOTHES = ["#b8433a", "#3f6b4f", "#5a5f9c", "#d9a43b", "#2f8a8f", "#6b4a3a", "#9a4f86", "#3b3f46", "#c9cdd2"];

/** Made-up people, each with clothes unlike those of the others of a scene. */
export function someone(random: Random, index: number): Person {
  return {
    id: `person-${index}`,
    name: `Person ${index}`,
    skin: pick(random, SKINS),
    hair: pick(random, HAIR),
    hairStyle: pick(random, STYLES),
    beard: random() < 0.25,
    glasses: random() < 0.25,
    shirt: CLOTHES[(index * 4 + Math.floor(random() * 2)) % CLOTHES.length]!,
    trousers: pick(random, ["#2f3440", "#3a3128", "#31465e", "#26262c"]),
  };
}

type Sketch = Partial<Omit<ScenePlan, "name" | "set" | "apart">> & { actors: Actor[] };

/** What does not move from a place. */
export const steady = (x: number, y: number) => ({ from: { x, y }, to: { x, y }, moving: [0, 1] as [number, number] });

function bust(random: Random, index: number, x: number, size: number, more: Partial<Actor> = {}): Actor {
  const y = between(random, 0.34, 0.42) * PICTURE.height;
  return {
    id: `bust-${index}`,
    kind: "bust",
    person: someone(random, index),
    size: [size, size],
    ...steady(x, y),
    ...more,
  };
}

/** A figure that walks; a head is about a sixth of its height. */
function walker(
  random: Random,
  index: number,
  fromX: number,
  toX: number,
  size: number,
  more: Partial<Actor> = {},
): Actor {
  const y = between(random, 0.86, 0.93) * PICTURE.height;
  return {
    id: `walker-${index}`,
    kind: "figure",
    person: someone(random, index),
    size: [size, size],
    from: { x: fromX, y },
    to: { x: toX, y },
    moving: [0.3, 5.5],
    ...more,
  };
}

const { width: W, height: H } = PICTURE;

/** One scene of each set from a seed; the sets say what is tried. */
const SETS: Record<string, (random: Random) => Sketch> = {
  "one face": (r) => ({ actors: [bust(r, 0, between(r, 0.25, 0.75) * W, between(r, 150, 320), { main: true })] }),
  "two faces": (r) => ({
    actors: [bust(r, 0, 0.28 * W, between(r, 210, 260), { main: true }), bust(r, 1, 0.72 * W, between(r, 120, 150))],
  }),
  turning: (r) => ({
    actors: [
      bust(r, 0, 0.35 * W, 190, { yaw: [-0.9, 0.9], tilt: between(r, -0.3, 0.3), main: true }),
      bust(r, 1, 0.75 * W, 130, { yaw: [0.8, -0.2], tilt: 0.2 }),
    ],
  }),
  small: (r) => ({
    actors: [0, 1, 2].map((i) =>
      walker(
        r,
        i,
        (0.2 + 0.3 * i) * W,
        (0.2 + 0.3 * i + between(r, -0.1, 0.1)) * W,
        i === 1 ? 480 : between(r, 330, 390),
        { main: i === 1 },
      ),
    ),
  }),
  grain: (r) => ({
    actors: [bust(r, 0, between(r, 0.3, 0.7) * W, 210, { main: true }), walker(r, 1, 0.1 * W, 0.9 * W, 380)],
    grain: between(r, 10, 18),
    crf: 28,
  }),
  compressed: (r) => ({
    actors: [bust(r, 0, between(r, 0.3, 0.7) * W, 200, { main: true }), walker(r, 1, 0.9 * W, 0.2 * W, 400)],
    crf: 38,
    grain: 4,
  }),
  dark: (r) => ({
    actors: [bust(r, 0, between(r, 0.3, 0.7) * W, 220, { main: true }), bust(r, 1, 0.15 * W, 120)],
    exposure: between(r, 0.2, 0.32),
    grain: 7,
  }),
  blurred: (r) => ({
    actors: [bust(r, 0, between(r, 0.3, 0.7) * W, 220, { main: true })],
    blur: between(r, 2.5, 4),
  }),
  quick: (r) => ({
    actors: [walker(r, 0, 0.05 * W, 0.95 * W, between(r, 430, 560), { moving: [0.5, between(r, 2, 2.8)], main: true })],
    shutter: 0.5,
  }),
  crossing: (r) => ({
    actors: [walker(r, 0, 0.1 * W, 0.9 * W, 540, { main: true }), walker(r, 1, 0.9 * W, 0.12 * W, 440)],
  }),
  hidden: (r) => ({
    actors: [walker(r, 0, 0.08 * W, 0.92 * W, between(r, 480, 560), { main: true })],
    covers: [{ x: between(r, 0.42, 0.5) * W, width: between(r, 0.13, 0.2) * W, top: 0 }],
  }),
  "half covered": (r) => ({
    actors: [bust(r, 0, 0.45 * W, 230, { main: true })],
    covers: [{ x: 0.45 * W + between(r, 10, 40), width: 60, top: 0 }],
  }),
  late: (r) => ({
    actors: [walker(r, 0, -0.15 * W, between(r, 0.4, 0.6) * W, 540, { moving: [1.5, 4], main: true })],
  }),
  nearer: (r) => ({
    actors: [
      walker(r, 0, 0.4 * W, 0.55 * W, 0, {
        size: [190, 640],
        main: true,
        to: { x: 0.55 * W, y: 1.05 * H },
        moving: [0.3, 5.7],
      }),
    ],
  }),
  shaken: (r) => ({
    actors: [bust(r, 0, between(r, 0.35, 0.65) * W, 200, { main: true }), walker(r, 1, 0.1 * W, 0.8 * W, 380)],
    camera: { panX: 0, shake: between(r, 10, 16), zoom: 1 },
    shutter: 0.5,
  }),
  pan: (r) => ({
    actors: [walker(r, 0, 0.3 * W, 0.6 * W, 500, { main: true })],
    camera: { panX: between(r, 120, 220), shake: 3, zoom: 1 },
    shutter: 0.4,
  }),
  crowd: (r) => ({
    actors: Array.from({ length: 6 }, (_, i) =>
      walker(
        r,
        i,
        (0.08 + 0.16 * i) * W,
        (0.08 + 0.16 * i + between(r, -0.08, 0.08)) * W,
        i === 2 ? 620 : between(r, 360, 430),
        {
          main: i === 2,
        },
      ),
    ),
  }),
  things: (r) => ({
    actors: [
      {
        id: "dog",
        kind: "dog",
        size: [130, 130],
        from: { x: 0.1 * W, y: 0.75 * H },
        to: { x: 0.85 * W, y: 0.72 * H },
        moving: [0.5, 5],
        main: true,
      },
      {
        id: "ball",
        kind: "ball",
        size: [70, 70],
        from: { x: 0.8 * W, y: 0.3 * H },
        to: { x: 0.3 * W, y: 0.5 * H },
        moving: [1, 4],
      },
    ],
    camera: { panX: between(r, 0, 60), shake: 0, zoom: 1 },
  }),
  cart: (r) => ({
    actors: [
      {
        id: "cart",
        kind: "cart",
        size: [150, 150],
        from: { x: -0.1 * W, y: 0.7 * H },
        to: { x: 0.8 * W, y: 0.7 * H },
        moving: [0.2, 5],
        main: true,
      },
    ],
    covers: [{ x: between(r, 0.35, 0.45) * W, width: 0.22 * W, top: 0.2 * H }],
  }),
};

const QUALITIES = [
  { grain: 2, crf: 23 },
  { grain: 5, crf: 26 },
  { grain: 3, crf: 30 },
];
const VARIANTS = 5;

/** All scenes; the last variant of each set is the fifth that is kept apart. */
export function planScenes(): ScenePlan[] {
  return Object.entries(SETS).flatMap(([set, sketch], s) =>
    Array.from({ length: VARIANTS }, (_, variant) => {
      const seed = 1000 * (s + 1) + 17 * variant;
      const random = seeded(seed);
      return {
        name: `${set} ${variant}`,
        set,
        apart: variant === VARIANTS - 1,
        seconds: 6,
        world: pick(random, WORLD_KINDS),
        seed,
        covers: [],
        camera: { panX: 0, shake: between(random, 0, 2), zoom: 1 },
        exposure: 1,
        shutter: 0,
        blur: 0,
        ...pick(random, QUALITIES),
        ...sketch(random),
      };
    }),
  );
}
