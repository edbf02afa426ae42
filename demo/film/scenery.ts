/** Places and things: sky, cloud, hills, meadow, workshop, kites. Backgrounds are painted once a shot. */
import { type Canvas, createCanvas, type SKRSContext2D } from "@napi-rs/canvas";
import { shade } from "./people";
import { fractal, seeded } from "./random";

export interface Palette {
  zenith: string;
  horizon: string;
  cloud: [number, number, number];
  hill: string;
  meadow: string;
  sun: string;
}
export const NOON: Palette = {
  zenith: "#3f78b8",
  horizon: "#cfe0ea",
  cloud: [255, 255, 255],
  hill: "#6f8f8a",
  meadow: "#6d8f43",
  sun: "rgba(255,244,214,0.55)",
};
export const EVENING: Palette = {
  zenith: "#33446f",
  horizon: "#f0b883",
  cloud: [255, 214, 184],
  hill: "#5d5a70",
  meadow: "#5a6438",
  sun: "rgba(255,186,110,0.65)",
};

/** A tile of cloud, transparent between; repeats sideways. */
export function cloudTile(
  width: number,
  height: number,
  seed: number,
  cover: number,
  [r, g, b]: [number, number, number],
): Canvas {
  const canvas = createCanvas(width, height);
  const context = canvas.getContext("2d");
  const image = context.createImageData(width, height);
  const noise = fractal(seed, 4, 6);
  const lit = fractal(seed, 4, 6);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const u = x / width;
      const v = y / height;
      const density = Math.max(0, noise(u, v) - (1 - cover)) / cover;
      const slope = lit(u, v) - lit(u + 0.01, v + 0.02);
      const light = 0.9 + Math.max(-0.18, Math.min(0.1, slope * 2.4));
      const i = (y * width + x) * 4;
      image.data[i] = r * light;
      image.data[i + 1] = g * light;
      image.data[i + 2] = b * light;
      image.data[i + 3] = 255 * Math.min(1, density * 2.6) * Math.min(1, (1 - v) * 3) * Math.min(1, v * 8 + 0.3);
    }
  }
  context.putImageData(image, 0, 0);
  return canvas;
}

/** Draws a cloud tile again and again along the picture, `offset` px to the left. */
export function drawClouds(
  g: SKRSContext2D,
  tile: Canvas,
  offset: number,
  y: number,
  left: number,
  right: number,
): void {
  const start = left - (((offset % tile.width) + tile.width) % tile.width);
  for (let x = start; x < right; x += tile.width) g.drawImage(tile, x, y);
}

export function drawSky(g: SKRSContext2D, palette: Palette, left: number, width: number, horizonY: number): void {
  const sky = g.createLinearGradient(0, -200, 0, horizonY);
  sky.addColorStop(0, palette.zenith);
  sky.addColorStop(1, palette.horizon);
  g.fillStyle = sky;
  g.fillRect(left, -400, width, horizonY + 420);
}

/** Hills, a line of trees, a textured meadow: painted once into a canvas as wide as the camera may roam. */
export function paintLand(width: number, height: number, horizonY: number, palette: Palette, seed: number): Canvas {
  const canvas = createCanvas(width, height);
  const g = canvas.getContext("2d");
  const random = seeded(seed);
  const ridge = fractal(seed, 4, 5);
  for (let layer = 0; layer < 3; layer++) {
    const base = horizonY - 70 + layer * 34;
    g.fillStyle = shade(palette.hill, 1.25 - layer * 0.2);
    g.beginPath();
    g.moveTo(0, horizonY + 10);
    for (let x = 0; x <= width; x += 6)
      g.lineTo(x, base - 90 * (ridge(x / width, layer * 0.31) - 0.35) * (3 - layer) * 0.6);
    g.lineTo(width, horizonY + 10);
    g.fill();
  }
  for (let i = 0; i < width / 16; i++) {
    const x = random() * width;
    const size = 14 + random() * 30;
    const y = horizonY - size * 0.35;
    g.fillStyle = shade("#4c6240", 0.7 + random() * 0.45);
    for (let k = 0; k < 7; k++) {
      g.beginPath();
      g.arc(
        x + (random() - 0.5) * size,
        y + (random() - 0.5) * size * 0.8,
        size * (0.25 + random() * 0.25),
        0,
        Math.PI * 2,
      );
      g.fill();
    }
  }
  const ground = g.createLinearGradient(0, horizonY, 0, height);
  ground.addColorStop(0, shade(palette.meadow, 1.12));
  ground.addColorStop(1, shade(palette.meadow, 0.62));
  g.fillStyle = ground;
  g.fillRect(0, horizonY, width, height - horizonY);
  g.lineCap = "round";
  for (let i = 0; i < width * 7; i++) {
    const depth = random() ** 1.6;
    const y = horizonY + 3 + depth * (height - horizonY);
    const length = 3 + depth * 26;
    const x = random() * width;
    g.strokeStyle = shade(palette.meadow, 0.55 + random() * 0.85);
    g.globalAlpha = 0.5;
    g.lineWidth = 0.8 + depth * 1.8;
    g.beginPath();
    g.moveTo(x, y);
    g.quadraticCurveTo(
      x + (random() - 0.5) * length * 0.4,
      y - length * 0.6,
      x + (random() - 0.3) * length * 0.7,
      y - length,
    );
    g.stroke();
  }
  g.globalAlpha = 1;
  for (let i = 0; i < width / 7; i++) {
    const depth = random();
    g.fillStyle = random() < 0.5 ? "#e9dc7a" : "#e7e6e0";
    g.beginPath();
    g.arc(random() * width, horizonY + 20 + depth * (height - horizonY), 1 + depth * 2.2, 0, Math.PI * 2);
    g.fill();
  }
  return canvas;
}

/** The kite makers' workshop, out of focus as behind a wide aperture, and the bench in front of it. */
export function paintWorkshop(width: number, height: number): Canvas {
  const canvas = createCanvas(width, height);
  const g = canvas.getContext("2d");
  const random = seeded(41);
  const wall = g.createLinearGradient(0, 0, width, height);
  wall.addColorStop(0, "#6a5846");
  wall.addColorStop(1, "#2e2620");
  g.fillStyle = wall;
  g.fillRect(0, 0, width, height);
  g.filter = "blur(7px)";
  for (let x = 0; x < width; x += 90) {
    g.fillStyle = `rgba(20,14,10,${0.12 + random() * 0.2})`;
    g.fillRect(x, 0, 6, height);
  }
  const glass = g.createLinearGradient(0, 90, 0, 520);
  glass.addColorStop(0, "#dbe8ee");
  glass.addColorStop(1, "#b6c7b0");
  g.fillStyle = glass;
  g.fillRect(width * 0.4, 70, 420, 400);
  g.fillStyle = "#3a2d22";
  for (const bar of [0, 205, 410]) g.fillRect(width * 0.4 + bar, 60, 14, 420);
  g.fillRect(width * 0.4, 260, 420, 14);
  const colours = ["#b8433a", "#d9a43b", "#2f8a8f", "#5a5f9c", "#e6e0d2", "#3f6b4f"];
  for (let shelf = 0; shelf < 3; shelf++) {
    const y = 180 + shelf * 150;
    g.fillStyle = "#4a3827";
    g.fillRect(0, y, width * 0.32, 14);
    for (let x = 14; x < width * 0.31; x += 26 + random() * 30) {
      g.fillStyle = shade(colours[Math.floor(random() * colours.length)]!, 0.7 + random() * 0.4);
      const tall = 30 + random() * 80;
      g.fillRect(x, y - tall, 16 + random() * 26, tall);
    }
  }
  drawKite(g, width * 0.86, 240, 120, 0.3, "#c9503f", "#e3c25a");
  g.filter = "none";
  const light = g.createRadialGradient(width * 0.5, 240, 60, width * 0.5, 300, width * 0.6);
  light.addColorStop(0, "rgba(255,240,205,0.34)");
  light.addColorStop(1, "rgba(20,12,6,0.4)");
  g.fillStyle = light;
  g.fillRect(0, 0, width, height);
  return canvas;
}

export function drawBench(g: SKRSContext2D, left: number, right: number, y: number): void {
  const wood = g.createLinearGradient(0, y, 0, y + 240);
  wood.addColorStop(0, "#b58a57");
  wood.addColorStop(0.12, "#8f6a40");
  wood.addColorStop(1, "#4d3822");
  g.fillStyle = wood;
  g.fillRect(left, y, right - left, 400);
  const random = seeded(7);
  for (let i = 0; i < 60; i++) {
    g.strokeStyle = `rgba(40,24,10,${0.1 + random() * 0.2})`;
    g.lineWidth = 1 + random() * 2;
    const lineY = y + 8 + random() * 220;
    g.beginPath();
    g.moveTo(left, lineY);
    g.bezierCurveTo(left + 600, lineY + random() * 14, right - 600, lineY - random() * 14, right, lineY);
    g.stroke();
  }
}

/** A diamond kite of the given size (half its height), turned by `angle`, with a tail that waves by `time`. */
export function drawKite(
  g: SKRSContext2D,
  x: number,
  y: number,
  size: number,
  angle: number,
  first: string,
  second: string,
  time = 0,
): [number, number, number, number] {
  g.save();
  g.translate(x, y);
  g.rotate(angle);
  g.lineCap = "round";
  g.strokeStyle = shade(first, 0.9);
  g.lineWidth = Math.max(1.5, size * 0.035);
  g.beginPath();
  g.moveTo(0, size * 1.1);
  for (let k = 1; k <= 20; k++) g.lineTo(Math.sin(time * 7 - k * 0.55) * size * 0.02 * k, size * (1.1 + k * 0.085));
  g.stroke();
  for (let k = 3; k <= 19; k += 4) {
    g.fillStyle = k % 8 === 3 ? second : first;
    g.beginPath();
    g.ellipse(
      Math.sin(time * 7 - k * 0.55) * size * 0.02 * k,
      size * (1.1 + k * 0.085),
      size * 0.1,
      size * 0.04,
      0.5,
      0,
      Math.PI * 2,
    );
    g.fill();
  }
  const quarter = (corners: [number, number][], colour: string) => {
    g.fillStyle = colour;
    g.beginPath();
    corners.forEach(([px, py], i) => (i ? g.lineTo(px * size, py * size) : g.moveTo(px * size, py * size)));
    g.fill();
  };
  quarter(
    [
      [0, -0.9],
      [-0.72, -0.15],
      [0, -0.15],
    ],
    shade(first, 1.08),
  );
  quarter(
    [
      [0, -0.9],
      [0.72, -0.15],
      [0, -0.15],
    ],
    shade(second, 0.98),
  );
  quarter(
    [
      [-0.72, -0.15],
      [0, 1.1],
      [0, -0.15],
    ],
    shade(second, 0.86),
  );
  quarter(
    [
      [0.72, -0.15],
      [0, 1.1],
      [0, -0.15],
    ],
    shade(first, 0.8),
  );
  g.strokeStyle = "rgba(40,26,18,0.8)";
  g.lineWidth = Math.max(1, size * 0.02);
  g.beginPath();
  g.moveTo(0, -0.9 * size);
  g.lineTo(0, 1.1 * size);
  g.moveTo(-0.72 * size, -0.15 * size);
  g.lineTo(0.72 * size, -0.15 * size);
  g.stroke();
  g.restore();
  const c = Math.cos(angle);
  const s = Math.sin(angle);
  const corners = [
    [0, -0.9],
    [-0.72, -0.15],
    [0.72, -0.15],
    [0, 1.1],
  ].map(([px, py]) => [x + (c * px! - s * py!) * size, y + (s * px! + c * py!) * size]);
  const xs = corners.map((p) => p[0]!);
  const ys = corners.map((p) => p[1]!);
  return [Math.min(...xs), Math.min(...ys), Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys)];
}

/** The kite's line from the hand, sagging a little. */
export function drawLine(g: SKRSContext2D, from: [number, number], to: [number, number]): void {
  g.strokeStyle = "rgba(245,245,240,0.75)";
  g.lineWidth = 1.4;
  g.beginPath();
  g.moveTo(...from);
  g.quadraticCurveTo((from[0] + to[0]) / 2 + 20, (from[1] + to[1]) / 2 + 60, ...to);
  g.stroke();
}
