/**
 * Made-up places for the benchmark's films, each painted once from a seed and larger than the picture, so that a
 * camera can move over it.
 */
import { type Canvas, createCanvas, ImageData, loadImage, type SKRSContext2D } from "@napi-rs/canvas";
import { seeded } from "../../demo/film/random";
import { photographs } from "../photographs";

export const WORLD = { width: 1600, height: 900 };
export const WORLD_KINDS = ["hills", "street", "rocks", "flat", "room"] as const;
export type WorldKind = (typeof WORLD_KINDS)[number] | "photograph";

type Random = () => number;

/** A colour near a hue, with how far saturation and lightness may stray. */
function colour(random: Random, hue: number, saturation = 45, lightness = 45): string {
  const s = Math.max(0, saturation + (random() - 0.5) * 30);
  return `hsl(${hue + (random() - 0.5) * 40} ${s}% ${lightness + (random() - 0.5) * 30}%)`;
}

/** Grey noise of a given coarseness. */
function noise(random: Random, columns: number, rows: number): Canvas {
  const data = new Uint8ClampedArray(columns * rows * 4);
  for (let i = 0; i < columns * rows; i++) {
    const value = random() * 255;
    data.set([value, value, value, 255], i * 4);
  }
  const canvas = createCanvas(columns, rows);
  canvas.getContext("2d").putImageData(new ImageData(data, columns, rows), 0, 0);
  return canvas;
}

/** Lays fractal noise over a rectangle: photographs have structure at every scale. */
function texture(g: SKRSContext2D, random: Random, strength: number, x = 0, y = 0, w = WORLD.width, h = WORLD.height) {
  g.save();
  g.beginPath();
  g.rect(x, y, w, h);
  g.clip();
  g.globalCompositeOperation = "soft-light";
  for (let cell = 160; cell >= 5; cell /= 2) {
    g.globalAlpha = strength;
    g.drawImage(noise(random, Math.ceil(w / cell) + 2, Math.ceil(h / cell) + 2), x, y, w + 2 * cell, h + 2 * cell);
  }
  g.restore();
}

function hills(g: SKRSContext2D, random: Random): void {
  const hue = random() * 360;
  const sky = g.createLinearGradient(0, 0, 0, WORLD.height);
  sky.addColorStop(0, colour(random, hue + 150, 50, 65));
  sky.addColorStop(1, colour(random, hue + 180, 40, 80));
  g.fillStyle = sky;
  g.fillRect(0, 0, WORLD.width, WORLD.height);
  texture(g, random, 0.5, 0, 0, WORLD.width, WORLD.height / 2);
  for (let ridge = 0; ridge < 5; ridge++) {
    const base = WORLD.height * (0.25 + ridge * 0.17);
    const phases = [random() * 9, random() * 9, random() * 9];
    g.fillStyle = colour(random, hue + ridge * 12, 40, 55 - ridge * 9);
    g.beginPath();
    g.moveTo(0, WORLD.height);
    for (let x = 0; x <= WORLD.width; x += 8) {
      const wave = Math.sin(x / 310 + phases[0]!) * 50 + Math.sin(x / 97 + phases[1]!) * 22;
      g.lineTo(x, base + wave + Math.sin(x / 23 + phases[2]!) * 6);
    }
    g.lineTo(WORLD.width, WORLD.height);
    g.fill();
    for (let tree = 0; tree < 40; tree++) {
      g.fillStyle = colour(random, hue + 30, 40, 30);
      const size = (5 + random() * 14) * (1 + ridge / 2);
      g.beginPath();
      g.ellipse(random() * WORLD.width, base + 40 + random() * 90, size, size * 1.4, 0, 0, 7);
      g.fill();
    }
  }
  texture(g, random, 0.45);
}

function street(g: SKRSContext2D, random: Random): void {
  const hue = random() * 360;
  g.fillStyle = colour(random, hue + 190, 25, 75);
  g.fillRect(0, 0, WORLD.width, WORLD.height);
  for (let x = -60; x < WORLD.width;) {
    const width = 150 + random() * 220;
    const top = 60 + random() * 300;
    g.fillStyle = colour(random, hue + random() * 60, 30, 50);
    g.fillRect(x, top, width, WORLD.height);
    const [columns, rows] = [2 + Math.floor(random() * 4), 4 + Math.floor(random() * 4)];
    for (let c = 0; c < columns; c++) {
      for (let r = 0; r < rows; r++) {
        g.fillStyle = colour(random, random() < 0.3 ? 48 : 215, 35, random() < 0.3 ? 75 : 25);
        g.fillRect(x + ((c + 0.25) * width) / columns, top + 30 + r * 110, (0.5 * width) / columns, 64);
      }
    }
    x += width;
  }
  g.fillStyle = colour(random, hue, 8, 32);
  g.fillRect(0, WORLD.height * 0.8, WORLD.width, WORLD.height * 0.2);
  texture(g, random, 0.35);
}

function rocks(g: SKRSContext2D, random: Random): void {
  const hue = random() * 360;
  g.fillStyle = colour(random, hue, 25, 40);
  g.fillRect(0, 0, WORLD.width, WORLD.height);
  for (let k = 0; k < 260; k++) {
    const [x, y] = [random() * WORLD.width, random() * WORLD.height];
    const size = 18 + random() ** 2 * 110;
    const shade = g.createRadialGradient(x - size / 3, y - size / 3, size / 8, x, y, size);
    shade.addColorStop(0, colour(random, hue + 20, 25, 65));
    shade.addColorStop(1, colour(random, hue, 30, 22));
    g.fillStyle = shade;
    g.beginPath();
    g.ellipse(x, y, size, size * (0.5 + random() * 0.5), random() * 3, 0, 7);
    g.fill();
  }
  texture(g, random, 0.6);
}

/** Drawn animation: few colours, hard edges, nothing in between. */
function flat(g: SKRSContext2D, random: Random): void {
  const hue = random() * 360;
  g.fillStyle = colour(random, hue, 55, 65);
  g.fillRect(0, 0, WORLD.width, WORLD.height);
  g.fillStyle = colour(random, hue + 120, 50, 50);
  g.fillRect(0, WORLD.height * (0.5 + random() * 0.2), WORLD.width, WORLD.height);
  for (let k = 0; k < 14; k++) {
    g.fillStyle = colour(random, hue + 360 * random(), 65, 55);
    g.beginPath();
    const [x, y, size] = [random() * WORLD.width, random() * WORLD.height, 30 + random() * 120];
    if (random() < 0.5) g.ellipse(x, y, size, size * 0.8, 0, 0, 7);
    else g.rect(x, y, size * 1.4, size);
    g.fill();
  }
}

/** The same furniture from one of several sides: like pictures that are not the same. */
function room(g: SKRSContext2D, random: Random, side: number): void {
  const hue = random() * 360;
  const items = Array.from({ length: 16 }, () => ({
    x: (random() - 0.5) * 10,
    z: 2 + random() * 6,
    width: 0.5 + random() * 1.2,
    height: 0.6 + random() * 1.8,
    lift: random() < 0.35 ? 1 + random() : 0,
    fill: colour(random, hue + random() * 140, 40, 45),
  }));
  g.fillStyle = colour(random, hue, 20, 62);
  g.fillRect(0, 0, WORLD.width, WORLD.height);
  g.fillStyle = colour(random, hue + 25, 30, 34);
  g.fillRect(0, WORLD.height * 0.62, WORLD.width, WORLD.height);
  texture(g, seeded(Math.round(hue) + side * 7), 0.22);
  const turn = side * 0.55;
  const seen = items.map((item) => ({
    ...item,
    across: item.x * Math.cos(turn) - (item.z - 5) * Math.sin(turn),
    depth: Math.max(1.5, item.x * Math.sin(turn) + (item.z - 5) * Math.cos(turn) + 6),
  }));
  for (const item of seen.sort((a, b) => b.depth - a.depth)) {
    const scale = 900 / item.depth;
    const left = WORLD.width / 2 + item.across * scale;
    const floor = WORLD.height * 0.55 + 1.3 * scale;
    g.fillStyle = item.fill;
    g.fillRect(left, floor - (item.height + item.lift) * scale, item.width * scale, item.height * scale);
    g.fillStyle = "rgba(0,0,0,0.25)";
    g.fillRect(
      left + item.width * scale * 0.8,
      floor - (item.height + item.lift) * scale,
      item.width * scale * 0.2,
      item.height * scale,
    );
  }
  texture(g, random, 0.25);
}

const photographed: Canvas[] = [];

/** Fetches photographs, each of which fills a place; to be called before films that show them are made. */
export async function fetchPhotographs(): Promise<void> {
  for (const file of photographs()) {
    const image = await loadImage(file);
    const scale = Math.max(WORLD.width / image.width, WORLD.height / image.height);
    const [width, height] = [image.width * scale, image.height * scale];
    const canvas = createCanvas(WORLD.width, WORLD.height);
    canvas.getContext("2d").drawImage(image, (WORLD.width - width) / 2, (WORLD.height - height) / 2, width, height);
    photographed.push(canvas);
  }
}

const painted = new Map<string, Canvas>();

/** Paints a place; `side` turns a room. The last few are kept, as shots come back to them. */
export function world(kind: WorldKind, seed: number, side = 0): Canvas {
  if (kind === "photograph") return photographed[seed % photographed.length]!;
  const key = `${kind} ${seed} ${side}`;
  const known = painted.get(key);
  if (known) return known;
  const canvas = createCanvas(WORLD.width, WORLD.height);
  const g = canvas.getContext("2d");
  const random = seeded(seed);
  switch (kind) {
    case "hills":
      hills(g, random);
      break;
    case "street":
      street(g, random);
      break;
    case "rocks":
      rocks(g, random);
      break;
    case "flat":
      flat(g, random);
      break;
    case "room":
      room(g, random, side);
      break;
  }
  if (painted.size > 12) painted.delete(painted.keys().next().value!);
  painted.set(key, canvas);
  return canvas;
}
