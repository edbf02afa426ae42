/** The benchmark's scenes in which a shot is about a thing that no detector knows, or about nothing but text. */
import { createCanvas, type Canvas, type SKRSContext2D } from "@napi-rs/canvas";
import { type Box, scaleBox } from "~/core/geometry/box";
import { seeded, wander } from "../../../demo/film/random";
import {
  between,
  type Camera,
  type Creature,
  drawArm,
  drawCreature,
  drawGround,
  drawStudio,
  drawThing,
  onStage,
  pick,
  type Random,
  someLook,
  STAGE,
  THINGS,
  throughCamera,
} from "./draw-things";
import type { CutOuts } from "./cut-outs";
import type { Pictures } from "./pictures";
import { TEXT_SETS } from "./plan-texts";

/** What is to be seen in a frame, on the stage. */
export interface Shown {
  /** Things of which each is a right one to follow; none where nothing is to be followed. */
  things: Box[];
  /** The part of each that has to be seen where it is wider than the window. */
  heads?: Box[];
  /** Text that was put over the picture, or is all that there is. */
  text?: Box | null;
}

export interface ThingScene {
  name: string;
  set: string;
  apart: boolean;
  size: { width: number; height: number };
  seconds: number;
  grain: number;
  crf: number;
  draw: (g: SKRSContext2D, seconds: number) => Shown;
}

/** @param isApart whether only what is set aside may be drawn */
export type Sketch = (random: Random, pictures: Pictures, isApart: boolean) => ThingScene["draw"];

const { width: W, height: H } = STAGE;
const ease = (t: number) => {
  const k = Math.min(1, Math.max(0, t));
  return k * k * (3 - 2 * k);
};
/** A camera that is held by hand, moves slowly to a side, or stands. */
export function someCamera(
  random: Random,
  kind = pick(random, ["still", "held", "slide", "push"]),
): (t: number) => Camera {
  const speed = between(random, 15, 45) * (random() < 0.5 ? -1 : 1);
  const seed = Math.floor(random() * 100);
  return (t) => {
    if (kind === "held") return { x: 9 * wander(t, seed), y: 7 * wander(t, seed + 7), zoom: 1 };
    if (kind === "slide") return { x: speed * (t - 2), y: 0, zoom: 1 };
    if (kind === "push") return { x: 0, y: 0, zoom: 1 + 0.05 * t };
    return { x: 0, y: 0, zoom: 1 };
  };
}

/** Several hues that lie far from one another. */
const hues = (random: Random) => {
  const first = random() * 360;
  return [0, 150, 240].map((more) => (first + more) % 360);
};

const onEvenGround: Sketch = (random, { textures }) => {
  const [wall, own] = hues(random);
  const lightness = between(random, 45, 85);
  const [thing, look] = [pick(random, THINGS), someLook(random, textures, own)];
  const [x, size] = [between(random, 0.16, 0.84) * W, between(random, 170, 330)];
  const camera = someCamera(random);
  return (g, t) => {
    const view = camera(t);
    const box = throughCamera(g, view, () => {
      drawStudio(g, wall!, lightness);
      return drawThing(g, thing, look, x, 0.78 * H, size);
    });
    return { things: [onStage(box, view)] };
  };
};

const onBusyGround: Sketch = (random, { grounds, textures }) => {
  const [ground, thing, look] = [pick(random, grounds), pick(random, THINGS), someLook(random, textures)];
  const [x, size] = [between(random, 0.16, 0.84) * W, between(random, 190, 340)];
  const blur = between(random, 0, 7);
  const camera = someCamera(random);
  return (g, t) => {
    const view = camera(t);
    const box = throughCamera(g, view, () => {
      drawGround(g, ground, blur);
      return drawThing(g, thing, look, x, 0.8 * H, size);
    });
    return { things: [onStage(box, view)] };
  };
};

/** Held still, moved, and held still again. */
const inHand: Sketch = (random, { grounds, textures }) => {
  const even = random() < 0.4;
  const [ground, thing, look] = [pick(random, grounds), pick(random, THINGS), someLook(random, textures)];
  const size = between(random, 130, 230);
  const side = random() < 0.5 ? -1 : 1;
  const thick = between(random, 70, 110);
  const [from, to] = [between(random, 0.3, 0.45), between(random, 0.55, 0.7)].sort(() => random() - 0.5) as [
    number,
    number,
  ];
  const [lift, hue] = [between(random, 20, 120), random() * 360];
  const arm = {
    skin: pick(random, ["#eabf9f", "#c98f68", "#8d5b3d"]),
    sleeve: `hsl(${random() * 360} 40% 38%)`,
    striped: random() < 0.3,
  };
  return (g, t) => {
    const k = ease((t - 1.3) / 1.2);
    const x = (from + (to - from) * k) * W + 4 * wander(t, 5);
    const y = 0.62 * H - lift * Math.sin(Math.PI * k) + 4 * wander(t, 9);
    if (even) drawStudio(g, hue, 70);
    else drawGround(g, ground, 5);
    drawArm(g, { x: W / 2 + side * 0.62 * W, y: 0.95 * H }, { x: x + side * 0.28 * size, y }, thick, arm);
    return { things: [drawThing(g, thing, look, x, y + 0.5 * size, size)] };
  };
};

const turned: Sketch = (random, { textures }) => {
  const [wall, own] = hues(random);
  const [thing, look] = [pick(random, THINGS), someLook(random, textures, own)];
  const [x, size, speed] = [between(random, 0.25, 0.75) * W, between(random, 220, 420), between(random, 0.8, 2)];
  const lightness = between(random, 25, 85);
  return (g, t) => {
    drawStudio(g, wall!, lightness);
    return { things: [drawThing(g, thing, look, x, 0.82 * H, size, speed * t)] };
  };
};

function someCreature(random: Random): Creature {
  const hue = random() * 360;
  return {
    body: `hsl(${hue} ${between(random, 10, 60)}% ${between(random, 30, 70)}%)`,
    belly: `hsl(${hue} 25% 82%)`,
    ears: pick(random, ["long", "round", "none"]),
    outlined: random() < 0.5,
  };
}

/** Stands, walks a way, and stands again. */
const creature: Sketch = (random, { grounds }) => {
  const [one, ground] = [someCreature(random), pick(random, grounds)];
  const [blur, light, size] = [between(random, 2, 9), between(random, 0.8, 1.1), between(random, 220, 400)];
  const [from, to] = [between(random, 0.15, 0.4) * W, between(random, 0.6, 0.85) * W];
  const facing = random() < 0.5 ? 1 : -1;
  const [a, b] = facing > 0 ? [from, to] : [to, from];
  const [begins, lasts] = [between(random, 0.9, 1.8), between(random, 1.2, 2)];
  return (g, t) => {
    const k = ease((t - begins) / lasts);
    drawGround(g, ground, blur, light);
    const step = k > 0 && k < 1 ? 9 * t : 0.3 * Math.sin(t);
    const { box } = drawCreature(g, one, { x: a + (b - a) * k, y: 0.88 * H, size, facing, step });
    return { things: [box] };
  };
};

/** Two that face each other; either is right, as long as it stays the same. */
const twoCreatures: Sketch = (random, { grounds }) => {
  const [one, two, ground] = [someCreature(random), someCreature(random), pick(random, grounds)];
  const size = between(random, 260, 340);
  const apart = between(random, 0.2, 0.3) * W;
  return (g, t) => {
    drawGround(g, ground, 6);
    const sway = (seed: number) => 8 * wander(0.8 * t, seed);
    const left = drawCreature(g, one, {
      x: W / 2 - apart + sway(1),
      y: 0.86 * H,
      size,
      facing: 1,
      step: 0.4 * Math.sin(2 * t),
    });
    const right = drawCreature(g, two, {
      x: W / 2 + apart + sway(4),
      y: 0.86 * H,
      size,
      facing: -1,
      step: 0.4 * Math.sin(2.3 * t),
    });
    return { things: [left.box, right.box] };
  };
};

/** So near that it is wider than the window. */
const near: Sketch = (random, { grounds }) => {
  const [one, ground] = [someCreature(random), pick(random, grounds)];
  const [size, facing, x] = [between(random, 560, 660), random() < 0.5 ? 1 : -1, between(random, 0.4, 0.6) * W];
  return (g, t) => {
    drawGround(g, ground, 7);
    const at = { x: x + 60 * wander(0.5 * t, 3), y: 1.02 * H, size, facing, step: 0.3 * Math.sin(t) };
    const { box, head } = drawCreature(g, one, at);
    return { things: [box], heads: [head] };
  };
};

/** Share of a creature's length that its head takes. */
const HEAD = 0.35;

/** Photographed ones before a photographed ground, seen by some camera. */
const real =
  (kind: keyof CutOuts): Sketch =>
  (random, { grounds, cutOuts }, isApart) => {
    const { picture, head } = pick(random, cutOuts[isApart ? "apart" : "tuned"][kind]);
    const [ground, cameraAt] = [pick(random, grounds), someCamera(random)];
    // As often sharp as not, and as often at rest as moving.
    const [blur, sway] = [Math.max(0, between(random, -4, 4)), Math.max(0, between(random, -30, 30))];
    const light = between(random, 0.8, 1.1);
    const scale = Math.min((0.75 * W) / picture.width, (between(random, 0.15, 0.9) * H) / picture.height);
    const [width, height] = [picture.width * scale, picture.height * scale];
    const [middle, foot] = [between(random, 0.3, 0.7) * W, between(random, 0.75, 0.98) * H];
    return (g, t) => {
      const camera = cameraAt(t);
      const box = { x: middle - width / 2 + sway * wander(0.6 * t, 4), y: foot - height, width, height };
      throughCamera(g, camera, () => {
        drawGround(g, ground, blur, light);
        g.drawImage(picture, box.x, box.y, width, height);
      });
      const headBox = { ...box, width: HEAD * width, x: head === "right" ? box.x + (1 - HEAD) * width : box.x };
      return { things: [onStage(box, camera)], ...(head && { heads: [onStage(headBox, camera)] }) };
    };
  };

const vehicle: Sketch = (random, { grounds, textures }) => {
  const [ground, look] = [pick(random, grounds), someLook(random, textures)];
  const [size, speed] = [between(random, 120, 190), between(random, 60, 190) * (random() < 0.5 ? 1 : -1)];
  const y = 0.78 * H;
  return (g, t) => {
    const x = W / 2 + speed * t;
    const shift = 0.75 * speed * t;
    const camera = { x: shift, y: 0, zoom: 1 };
    const box = throughCamera(g, camera, () => {
      g.save();
      g.translate(shift * 0.4, 0);
      drawGround(g, ground, 3);
      g.restore();
      const body = drawThing(g, "box", look, x, y, size);
      const cabin = drawThing(
        g,
        "box",
        { ...look, colour: "#d8d4c8" },
        x - Math.sign(speed) * 0.62 * size,
        y,
        0.7 * size,
      );
      for (const wheel of [-0.55, 0.2]) {
        g.fillStyle = "#1d1c1b";
        g.beginPath();
        g.arc(x + Math.sign(speed) * wheel * size, y, 0.17 * size, 0, 7);
        g.fill();
      }
      const [left, right] = [Math.min(body.x, cabin.x), Math.max(body.x + body.width, cabin.x + cabin.width)];
      return { x: left, y: body.y, width: right - left, height: 1.17 * size };
    });
    return { things: [onStage(box, camera)] };
  };
};

/** A plate with something on it is what a table is about, whatever small things are beside it. */
const food: Sketch = (random, { grounds, textures }) => {
  const [table, look, aside] = [pick(random, grounds), someLook(random, textures), someLook(random, textures)];
  const [x, y, size] = [between(random, 0.28, 0.72) * W, between(random, 0.45, 0.6) * H, between(random, 130, 180)];
  const other = x < W / 2 ? x + 0.38 * W : x - 0.38 * W;
  const camera = someCamera(random);
  return (g, t) => {
    const view = camera(t);
    throughCamera(g, view, () => {
      drawGround(g, table, 9, 0.7);
      g.fillStyle = "#e9e6de";
      g.beginPath();
      g.ellipse(x, y, size, 0.62 * size, 0, 0, 7);
      g.fill();
      g.fillStyle = "#cfcabd";
      g.beginPath();
      g.ellipse(x, y, 0.72 * size, 0.42 * size, 0, 0, 7);
      g.fill();
      for (const [dx, dy] of [
        [-0.25, 0.1],
        [0.2, 0.12],
        [0, -0.05],
      ] as const) {
        drawThing(g, "toy", look, x + dx * size, y + dy * size + 0.2 * size, 0.5 * size);
      }
      drawThing(g, "cup", aside, other, y + 40, 90);
    });
    return { things: [onStage({ x: x - size, y: y - 0.62 * size, width: 2 * size, height: 1.24 * size }, view)] };
  };
};

/** A screen on a desk on which something goes on. */
const screen: Sketch = (random, { grounds, textures }) => {
  const [wall] = hues(random);
  const [x, width] = [between(random, 0.25, 0.75) * W, between(random, 300, 390)];
  const looks = [someLook(random, textures), someLook(random, textures)];
  const camera = someCamera(random);
  const ground = pick(random, grounds);
  return (g, t) => {
    const view = camera(t);
    const box = { x: x - width / 2, y: 0.24 * H, width, height: 0.66 * width };
    throughCamera(g, view, () => {
      drawStudio(g, wall!, 62);
      g.fillStyle = "#17181a";
      g.fillRect(box.x, box.y, box.width, box.height);
      g.fillRect(x - 14, box.y + box.height, 28, 60);
      g.save();
      g.beginPath();
      g.rect(box.x + 10, box.y + 10, box.width - 20, box.height - 20);
      g.clip();
      g.drawImage(ground, box.x - 60 * t, box.y, box.width * 2, box.height * 2);
      drawThing(g, "toy", looks[0]!, box.x + (0.2 + 0.15 * t) * width, box.y + 0.6 * width, 0.3 * width, t);
      g.restore();
    });
    return { things: [onStage(box, view)] };
  };
};

/** A real photograph that a camera goes over. */
const photographed: Sketch = (random, { subjects }) => {
  const { photograph, box } = pick(random, subjects);
  const camera = someCamera(random);
  const scale = Math.max(W / photograph.width, H / photograph.height) * 1.12;
  const [width, height] = [photograph.width * scale, photograph.height * scale];
  const [left, top] = [(W - width) / 2, (H - height) / 2];
  return (g, t) => {
    const { x, y, zoom } = camera(t);
    const view = { x: 0.35 * x, y: 0.35 * y, zoom };
    throughCamera(g, view, () => g.drawImage(photograph, left, top, width, height));
    const at = {
      x: left + box.x * width,
      y: top + box.y * height,
      width: box.width * width,
      height: box.height * height,
    };
    return { things: [onStage(at, view)] };
  };
};

/** Sets that are about a thing. */
const THING_SETS: Record<string, Sketch> = {
  "even ground": onEvenGround,
  "busy ground": onBusyGround,
  "in a hand": inHand,
  turned,
  creature,
  "two creatures": twoCreatures,
  near,
  vehicle,
  food,
  screen,
  photographed,
};

const REAL_SETS: Record<string, Sketch> = {
  "real creature": real("creatures"),
  "real thing": real("things"),
};

const SETS: Record<string, Sketch> = { ...THING_SETS, ...TEXT_SETS, ...REAL_SETS };
/** Sets in which a shot is about something that can be followed. */
export const FOLLOWED_SETS = [...Object.keys(THING_SETS), ...Object.keys(REAL_SETS)];

const SIZES = [
  { width: 1280, height: 720 },
  { width: 640, height: 360 },
  { width: 1920, height: 1080 },
  { width: 1280, height: 720 },
  { width: 854, height: 480 },
];
const QUALITIES = [
  { grain: 2, crf: 22 },
  { grain: 5, crf: 30 },
  { grain: 3, crf: 38 },
  { grain: 9, crf: 26 },
  { grain: 4, crf: 34 },
];
/** Variants of each set that the method was tuned on. */
const TUNED = 4;

/** Neighbouring seeds begin alike; these are far from one another. */
const seedOf = (set: number, variant: number) => Math.imul(1 + 100 * set + variant, 2654435761) >>> 0;

/** A scene of a set as it is drawn. */
export const drawingOf = (
  set: string,
  variant: number,
  pictures: Pictures,
  isApart = variant >= TUNED,
): ThingScene["draw"] => SETS[set]!(seeded(seedOf(Object.keys(SETS).indexOf(set), variant)), pictures, isApart);

/**
 * All scenes: the variants of each set that the method was tuned on, and those that are kept apart.
 * @param more scenes of each set to keep apart beyond the first
 */
export function planThings(pictures: Pictures, more = 0): ThingScene[] {
  return Object.keys(SETS).flatMap((set, s) =>
    Array.from({ length: TUNED + 1 + more }, (_, variant) => ({
      name: `${set} ${variant}`,
      set,
      apart: variant >= TUNED,
      size: SIZES[(variant + s) % SIZES.length]!,
      seconds: 4,
      ...QUALITIES[(variant + 2 * s) % QUALITIES.length]!,
      draw: drawingOf(set, variant, pictures),
    })),
  );
}

/** Draws a scene in the size of its film, with grain. */
export class ThingPainter {
  private readonly canvas: Canvas;
  private readonly grain: Int8Array;

  constructor(private readonly scene: ThingScene) {
    this.canvas = createCanvas(scene.size.width, scene.size.height);
    const random = seeded(scene.name.length * 31);
    this.grain = Int8Array.from({ length: 1 << 16 }, () => scene.grain * (random() + random() + random() - 1.5) * 2);
  }

  /** @returns the frame as RGBA, and what is to be seen in it, in pixels of the film */
  draw(seconds: number): { frame: Buffer; shown: Shown } {
    const { size } = this.scene;
    const scale = size.width / STAGE.width;
    const g = this.canvas.getContext("2d");
    g.save();
    g.scale(scale, size.height / STAGE.height);
    const { things, heads, text } = this.scene.draw(g, seconds);
    g.restore();
    const data = this.canvas.data();
    let at = Math.floor(seconds * 7919) * 977;
    for (let i = 0; i < data.length; i += 4) {
      const noise = this.grain[at++ & 0xffff]!;
      for (let c = 0; c < 3; c++) data[i + c] = Math.min(255, Math.max(0, data[i + c]! + noise));
    }
    const inFilm = (box: Box) => scaleBox(box, scale);
    const shown = {
      things: things.map(inFilm),
      ...(heads && { heads: heads.map(inFilm) }),
      ...(text && { text: inFilm(text) }),
    };
    return { frame: data, shown };
  }
}
