/** The benchmark's films as data: which shots, how one becomes the next, and what is there to be mistaken for a cut. */
import { seeded } from "../../demo/film/random";
import type { Actor, CameraMove, Scene } from "./scenes";
import { WORLD_KINDS, type WorldKind } from "./worlds";

export type Joint = "cut" | "jump" | "dissolve" | "wipe" | "fade";

/** What happens to the light, or before the lens, in a shot. Times in seconds since the shot began. */
export type Happening =
  | { kind: "flash"; at: number; seconds: number; strength: number }
  | { kind: "explosion"; at: number; x: number; y: number }
  | { kind: "strobe"; at: number; seconds: number; hertz: number }
  | { kind: "passing"; at: number; seconds: number; size: number; hue: number }
  | { kind: "light"; at: number; seconds: number; from: number; to: number };

export interface PlannedShot {
  scene: Scene;
  happenings: Happening[];
  /** Frames until the next shot takes over, the halves of gradual joints at both ends included. */
  frames: number;
  /** How it begins; the first shot's is ignored. */
  joint: { kind: Joint; frames: number; style: number };
}

export interface FilmPlan {
  name: string;
  set: string;
  /** Kept apart while the method is tuned. */
  apart: boolean;
  rate: { num: number; den: number };
  shots: PlannedShot[];
  /** Standard deviation of the grain, 0 to 255. */
  grain: number;
  /** x264's constant rate factor. */
  crf: number;
  /** Gain of a dark scene. */
  exposure: number;
  /** Share of a frame's time in which the shutter is open. */
  shutter: number;
}

const RATES = [
  { num: 24, den: 1 },
  { num: 25, den: 1 },
  { num: 30, den: 1 },
  { num: 60, den: 1 },
  { num: 30000, den: 1001 },
];
const QUALITIES = [
  { grain: 0, crf: 20 },
  { grain: 6, crf: 24 },
  { grain: 10, crf: 28 },
  { grain: 4, crf: 33 },
  { grain: 8, crf: 26 },
];

type Random = () => number;
const pick = <T>(random: Random, from: readonly T[]): T => from[Math.floor(random() * from.length)]!;
const between = (random: Random, low: number, high: number) => low + random() * (high - low);
const signed = (random: Random, low: number, high: number) => between(random, low, high) * (random() < 0.5 ? -1 : 1);

function someActors(random: Random, count: number): Actor[] {
  return Array.from({ length: count }, () => ({
    kind: "walker",
    x: between(random, 60, 580),
    y: between(random, 90, 200),
    head: between(random, 22, 60),
    speed: signed(random, 10, 140),
    hue: Math.floor(random() * 360),
    pose: Math.floor(random() * 100),
  }));
}

function somewhere(random: Random, kinds: readonly WorldKind[] = WORLD_KINDS): Scene {
  const moves: CameraMove[] = [
    {},
    { pan: { x: signed(random, 20, 90), y: signed(random, 0, 12) } },
    { shake: between(random, 2, 6) },
    { zoom: between(random, 0.85, 1.2) },
    { pan: { x: signed(random, 60, 220), y: 0 }, shake: 3 },
  ];
  return {
    world: pick(random, kinds),
    seed: Math.floor(random() * 1e6),
    at: { x: random(), y: random() },
    zoom: between(random, 0.5, 1),
    camera: pick(random, moves),
    actors: someActors(random, Math.floor(random() * 3)),
  };
}

interface Maker {
  set: string;
  shots: number;
  exposure?: number;
  /** Overrides of the quality that the variant has. */
  crf?: number;
  /** Seconds that a shot lasts at least and at most … */
  seconds?: [number, number];
  /** … or frames, where it is shorter than can be told in seconds. */
  frames?: [number, number];
  joint?: (random: Random, index: number) => { kind: Joint; seconds: number };
  /** Makes the scene of a shot; the one before is given, for what goes on in it. */
  scene: (random: Random, index: number, before: Scene | null) => Scene;
  happenings?: (random: Random, seconds: number) => Happening[];
}

/** Some place, and of photographs another one than in the shot before. */
function anotherPhotograph(random: Random, before: Scene | null, kinds: readonly WorldKind[] = ["photograph"]): Scene {
  const scene = somewhere(random, kinds);
  return before ? { ...scene, seed: before.seed + 1 + Math.floor(random() * 5) } : scene;
}

const shaking = (random: Random, scene: Scene, shake: number): Scene => ({
  ...scene,
  camera: { shake: shake * between(random, 0.7, 1.3) },
});

const MAKERS: Maker[] = [
  { set: "varied", shots: 12, scene: (random) => somewhere(random) },
  { set: "dark", shots: 9, exposure: 0.22, scene: (random) => somewhere(random) },
  {
    set: "like rooms",
    shots: 10,
    scene: (random, i, before) => ({
      ...somewhere(random, ["room"]),
      seed: before?.seed ?? Math.floor(random() * 1e6),
      side: (i % 3) - 1,
      zoom: between(random, 0.5, 0.62),
      at: { x: 0.5, y: 0.6 },
      actors: someActors(random, 1),
    }),
  },
  { set: "short", shots: 14, seconds: [0, 0.3], scene: (random) => somewhere(random) },
  { set: "flat", shots: 10, scene: (random) => somewhere(random, ["flat"]) },
  {
    set: "talk",
    shots: 9,
    seconds: [1, 2.2],
    joint: () => ({ kind: "jump", seconds: 0 }),
    scene: (random, _, before) => {
      const actor: Actor = before?.actors[0] ?? {
        kind: "talker",
        x: between(random, 200, 440),
        y: between(random, 120, 160),
        head: between(random, 80, 130),
        speed: 0,
        hue: Math.floor(random() * 360),
        pose: 0,
      };
      const place = before ?? {
        ...somewhere(random, ["room", "street", "hills"]),
        camera: { shake: random() < 0.5 ? 0 : 1.2 },
      };
      return {
        ...place,
        actors: [{ ...actor, pose: actor.pose + between(random, 0.9, 2.4), x: actor.x + signed(random, 0, 12) }],
      };
    },
  },
  {
    set: "dissolves",
    shots: 7,
    seconds: [1.6, 2.6],
    joint: (random) => ({ kind: "dissolve", seconds: between(random, 0.3, 1.3) }),
    scene: (random) => somewhere(random),
  },
  {
    set: "wipes",
    shots: 7,
    seconds: [1.6, 2.4],
    joint: (random) => ({ kind: "wipe", seconds: between(random, 0.4, 1.1) }),
    scene: (random) => somewhere(random),
  },
  {
    set: "fades",
    shots: 6,
    seconds: [1.6, 2.6],
    joint: (random, i) => ({
      kind: i % 3 === 2 ? "cut" : "fade",
      seconds: i % 3 === 2 ? 0 : between(random, 0.5, 1.5),
    }),
    scene: (random) => somewhere(random),
  },
  {
    set: "shake",
    shots: 7,
    seconds: [1.2, 2],
    scene: (random) => shaking(random, somewhere(random), 14),
  },
  {
    set: "whip",
    shots: 5,
    seconds: [1.6, 2.4],
    scene: (random, i) => {
      const scene = somewhere(random);
      const at = between(random, 0.5, 1);
      const whip = { at, seconds: between(random, 0.18, 0.4), distance: signed(random, 500, 1500) };
      const punch = { at, seconds: between(random, 0.15, 0.35), factor: pick(random, [0.55, 1.8, 2.3]) };
      return {
        ...scene,
        zoom: Math.max(0.75, scene.zoom),
        camera: i % 3 === 1 ? { punch, shake: 1 } : { whip, shake: 1 },
      };
    },
  },
  {
    set: "flash",
    shots: 4,
    seconds: [2, 3],
    scene: (random) => somewhere(random),
    happenings: (random, seconds) => {
      const lightning = Array.from({ length: 3 }, (): Happening => ({
        kind: "flash",
        at: between(random, 0.3, seconds - 0.5),
        seconds: between(random, 0.02, 0.12),
        strength: between(random, 0.4, 1),
      }));
      return random() < 0.4
        ? [
            {
              kind: "explosion",
              at: between(random, 0.4, seconds - 1),
              x: between(random, 150, 490),
              y: between(random, 120, 260),
            },
          ]
        : lightning;
    },
  },
  {
    set: "strobe",
    shots: 3,
    seconds: [2.5, 3.2],
    scene: (random) => somewhere(random),
    happenings: (random) => [{ kind: "strobe", at: 0.5, seconds: 1.5, hertz: between(random, 3, 9) }],
  },
  {
    set: "passing",
    shots: 4,
    seconds: [2, 2.6],
    scene: (random) => somewhere(random),
    happenings: (random) => [
      {
        kind: "passing",
        at: between(random, 0.4, 0.9),
        seconds: between(random, 0.35, 0.9),
        size: between(random, 0.5, 1.1),
        hue: Math.floor(random() * 360),
      },
    ],
  },
  {
    set: "light",
    shots: 4,
    seconds: [2.4, 3.2],
    scene: (random) => somewhere(random),
    happenings: (random) => [
      {
        kind: "light",
        at: between(random, 0.3, 0.6),
        seconds: between(random, 0.6, 1.6),
        from: between(random, 0.3, 1),
        to: between(random, 0.3, 1.2),
      },
    ],
  },
  { set: "squeezed", shots: 9, crf: 40, scene: (random) => somewhere(random) },
  { set: "montage", shots: 60, frames: [2, 12], scene: (random, _, before) => anotherPhotograph(random, before) },
  { set: "six frames", shots: 60, frames: [5, 7], scene: (random, _, before) => anotherPhotograph(random, before) },
  { set: "montage, painted", shots: 60, frames: [2, 12], scene: (random) => somewhere(random) },
  {
    set: "montage, dark",
    shots: 60,
    frames: [4, 12],
    exposure: 0.25,
    scene: (random, _, before) => anotherPhotograph(random, before, ["photograph", "flat"]),
  },
  {
    // Of a quick series of pictures one is a flash, and not the next picture.
    set: "montage with flashes",
    shots: 20,
    seconds: [0.7, 1.2],
    scene: (random, _, before) => anotherPhotograph(random, before),
    happenings: (random, seconds) => [
      {
        kind: "flash",
        at: between(random, 0.2, seconds - 0.3),
        seconds: between(random, 0.02, 0.14),
        strength: between(random, 0.4, 1),
      },
    ],
  },
  {
    set: "montage, squeezed",
    shots: 60,
    frames: [3, 12],
    crf: 38,
    scene: (random, _, before) => anotherPhotograph(random, before),
  },
  {
    // Every third shot is swept aside by its camera, and the next one follows at once.
    set: "montage with whip pans",
    shots: 24,
    frames: [9, 20],
    scene: (random, i, before) => {
      const scene = anotherPhotograph(random, before);
      if (i % 3 !== 1) return scene;
      const whip = { at: 0.1, seconds: between(random, 0.15, 0.3), distance: signed(random, 300, 900) };
      return { ...scene, zoom: Math.max(0.75, scene.zoom), camera: { whip, shake: 1 } };
    },
  },
];

const VARIANTS = 5;

function planFilm(maker: Maker, variant: number): FilmPlan {
  const random = seeded(1000 * MAKERS.indexOf(maker) + 7919 * variant + 13);
  const rate = RATES[(variant + MAKERS.indexOf(maker)) % RATES.length]!;
  const quality = QUALITIES[variant]!;
  const fps = rate.num / rate.den;
  const shots: PlannedShot[] = [];
  for (let i = 0; i < maker.shots; i++) {
    const scene = maker.scene(random, i, shots.at(-1)?.scene ?? null);
    const joint = maker.joint?.(random, i) ?? { kind: "cut" as const, seconds: 0 };
    const [low, high] = maker.seconds ?? [0.5, 1.8];
    // Gradual joints take from the shots on both sides; what is left of a shot between them stays visible.
    const seconds = between(random, low, high) + (joint.seconds > 0 ? 0.7 : 0);
    shots.push({
      scene,
      happenings: maker.happenings?.(random, seconds) ?? [],
      frames: maker.frames
        ? Math.floor(between(random, maker.frames[0], maker.frames[1] + 1))
        : Math.max(5, Math.round(seconds * fps)),
      joint: { kind: joint.kind, frames: Math.round(joint.seconds * fps), style: Math.floor(random() * 5) },
    });
  }
  return {
    name: `${maker.set} ${variant + 1}`,
    set: maker.set,
    apart: variant === VARIANTS - 1,
    rate,
    shots,
    grain: quality.grain,
    crf: maker.crf ?? quality.crf,
    exposure: maker.exposure ?? 1,
    shutter: variant % 2 === 0 ? 0.5 : 0.9,
  };
}

/** Every film of the benchmark, the same each time. */
export const planFilms = (): FilmPlan[] =>
  MAKERS.flatMap((maker) => Array.from({ length: VARIANTS }, (_, variant) => planFilm(maker, variant)));
