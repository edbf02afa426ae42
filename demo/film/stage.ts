/** The stage a shot is played on: the picture's size, a camera that moves over it, and what is known to be where. */
import type { Canvas, SKRSContext2D } from "@napi-rs/canvas";
import type { Box } from "./people";

export const WIDTH = 1920;
export const HEIGHT = 1080;
export const RATE = 30;

export interface Camera {
  /** The point of the scene at the picture's centre, in pixels of the scene at zoom 1. */
  x: number;
  y: number;
  zoom: number;
  /** Radians. */
  roll: number;
}
export const FIXED: Camera = { x: WIDTH / 2, y: HEIGHT / 2, zoom: 1, roll: 0 };

/** What is where in one frame, in pixels of the picture. */
export interface Seen {
  people: { id: string; face: Box | null; body: Box }[];
  objects: { id: string; box: Box }[];
}

/** Draws as seen by the camera; `depth` 0 is infinitely far (does not shift), 1 the plane of the action. */
export function through(g: SKRSContext2D, camera: Camera, depth: number, draw: () => void): void {
  g.save();
  g.translate(WIDTH / 2, HEIGHT / 2);
  g.rotate(camera.roll);
  const zoom = 1 + (camera.zoom - 1) * (0.35 + 0.65 * depth);
  g.scale(zoom, zoom);
  g.translate(-WIDTH / 2 - (camera.x - WIDTH / 2) * depth, -HEIGHT / 2 - (camera.y - HEIGHT / 2) * depth);
  draw();
  g.restore();
}

/** A box on the plane of the action as the camera shows it; null when less than a quarter of it is in the picture. */
export function seenBox([x, y, w, h]: Box, camera: Camera): Box | null {
  const c = Math.cos(camera.roll);
  const s = Math.sin(camera.roll);
  const cx = (x + w / 2 - camera.x) * camera.zoom;
  const cy = (y + h / 2 - camera.y) * camera.zoom;
  const width = w * camera.zoom;
  const height = h * camera.zoom;
  const left = WIDTH / 2 + c * cx - s * cy - width / 2;
  const top = HEIGHT / 2 + s * cx + c * cy - height / 2;
  const insideX = Math.max(0, Math.min(WIDTH, left + width) - Math.max(0, left));
  const insideY = Math.max(0, Math.min(HEIGHT, top + height) - Math.max(0, top));
  return insideX * insideY < 0.25 * width * height ? null : [left, top, width, height];
}

/** Adds a person where the camera shows him, if it does. */
export function seePerson(seen: Seen, camera: Camera, id: string, boxes: { face: Box; body: Box }): void {
  const body = seenBox(boxes.body, camera);
  if (body) seen.people.push({ id, face: seenBox(boxes.face, camera), body });
}

/** Vignette and a warm light from the upper left, laid over every picture of a shot. */
export function finish(g: SKRSContext2D, light: string, strength = 0.35): void {
  g.save();
  g.globalCompositeOperation = "soft-light";
  const sun = g.createRadialGradient(420, 60, 60, 420, 60, 1500);
  sun.addColorStop(0, light);
  sun.addColorStop(1, "rgba(20,20,40,0.25)");
  g.fillStyle = sun;
  g.fillRect(0, 0, WIDTH, HEIGHT);
  g.restore();
  const edge = g.createRadialGradient(WIDTH / 2, HEIGHT / 2, 620, WIDTH / 2, HEIGHT / 2, 1180);
  edge.addColorStop(0, "rgba(0,0,0,0)");
  edge.addColorStop(1, `rgba(0,0,0,${strength})`);
  g.fillStyle = edge;
  g.fillRect(0, 0, WIDTH, HEIGHT);
}

export interface Shot {
  name: string;
  /** Frames it lasts, including any overlap with the next. */
  frames: number;
  /** How it begins, and over how many frames. */
  transition: "cut" | "dissolve" | "fade";
  overlap: number;
  /** Averages this many moments within one frame, for what moves fast. */
  blurSamples?: number;
  titles?: { from: number; to: number; box: Box }[];
  /** Draws the moment `frame` (may be fractional) and says what is where. */
  draw(g: SKRSContext2D, frame: number): Seen;
}

/** Renders lazily painted scenery once. */
export function once(paint: () => Canvas): () => Canvas {
  let painted: Canvas | undefined;
  return () => (painted ??= paint());
}
