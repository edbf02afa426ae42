/** Draws paths over time, a case a strip, to be looked at. */
import { writeFileSync } from "node:fs";
import { createCanvas } from "@napi-rs/canvas";
import { focusBox } from "~/core/path/focus-box";
import type { Key } from "~/core/path/keys";
import type { PathCase } from "./cases";
import { windowWidth } from "./measure";

export interface Plotted {
  of: PathCase;
  path: Float64Array;
  average: Float64Array;
  keys: readonly Key[];
}

const STRIP = { width: 620, height: 150, gap: 14 };
const COLUMNS = 2;

export function plot(cases: readonly Plotted[], file: string): void {
  const rows = Math.ceil(cases.length / COLUMNS);
  const canvas = createCanvas(COLUMNS * (STRIP.width + STRIP.gap), rows * (STRIP.height + STRIP.gap));
  const c = canvas.getContext("2d");
  c.fillStyle = "#fff";
  c.fillRect(0, 0, canvas.width, canvas.height);
  cases.forEach(({ of, path, average, keys }, n) => {
    c.save();
    c.translate((n % COLUMNS) * (STRIP.width + STRIP.gap), Math.floor(n / COLUMNS) * (STRIP.height + STRIP.gap));
    c.fillStyle = "#f0f0f0";
    c.fillRect(0, 0, STRIP.width, STRIP.height);
    const at = (i: number, x: number) =>
      [(i * STRIP.width) / path.length, (x * STRIP.height) / of.picture.width] as const;
    const half = windowWidth(of) / 2;
    c.fillStyle = "rgba(30, 110, 200, 0.16)";
    c.beginPath();
    path.forEach((x, i) => c.lineTo(...at(i, x - half)));
    for (let i = path.length - 1; i >= 0; i--) c.lineTo(...at(i, path[i]! + half));
    c.fill();
    c.fillStyle = "rgba(200, 90, 30, 0.5)";
    path.forEach((_, i) => {
      const box = focusBox(of.subject, of.shot.start + i);
      if (!box) return;
      const [x, y] = at(i, box.x);
      c.fillRect(x, y, 1, (box.width * STRIP.height) / of.picture.width);
    });
    const line = (values: Float64Array, colour: string, width: number) => {
      c.strokeStyle = colour;
      c.lineWidth = width;
      c.beginPath();
      values.forEach((x, i) => c.lineTo(...at(i, x)));
      c.stroke();
    };
    line(average, "#888", 1);
    line(path, "#1e6ec8", 2);
    c.fillStyle = "#1e6ec8";
    for (const key of keys) {
      const [x, y] = at(key.frame - of.shot.start, key.x);
      c.beginPath();
      c.arc(x, y, 4, 0, 7);
      c.fill();
    }
    c.fillStyle = "#222";
    c.font = "12px sans-serif";
    c.fillText(of.name, 6, STRIP.height - 6);
    c.restore();
  });
  writeFileSync(file, canvas.toBuffer("image/png"));
}
