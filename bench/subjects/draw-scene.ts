/** Draws a planned scene frame by frame, and says where everybody and everything in it is. */
import { type Canvas, createCanvas, type SKRSContext2D } from "@napi-rs/canvas";
import { drawBust, drawFigure, shade } from "../../demo/film/people";
import { seeded, wander } from "../../demo/film/random";
import { WORLD, world } from "../cuts/worlds";
import { type Actor, type Cover, PICTURE, RATE, type ScenePlan } from "./plan";

export type BoxTuple = [number, number, number, number];

/** Where an actor is in a frame; a box is null where none of it is to be seen. */
export interface Seen {
  id: string;
  main: boolean;
  face: BoxTuple | null;
  body: BoxTuple | null;
  /** Share of it that something covers, or that is outside the picture. */
  hidden: number;
}

const mix = ([a, b]: readonly [number, number], t: number) => a + (b - a) * t;
const FPS = RATE.num / RATE.den;

/** When the middle of an actor passes a place across the picture, in seconds. */
export function passes(actor: Actor, x: number): number {
  const [from, to] = actor.moving;
  let seconds = from;
  const isBefore = () =>
    Math.sign(actor.to.x - actor.from.x) * (x - mix([actor.from.x, actor.to.x], progress(actor, seconds))) > 0;
  while (seconds < to && isBefore()) seconds += 1 / FPS;
  return seconds;
}

function progress({ moving: [from, to] }: Actor, seconds: number): number {
  const t = Math.min(1, Math.max(0, (seconds - from) / (to - from)));
  return t * t * (3 - 2 * t);
}

/** How far a mouth is open: syllables of uneven length while its owner speaks. */
function mouthOf({ speaks }: Actor, seconds: number): number {
  const speaking = speaks?.some(([from, to]) => seconds >= from && seconds < to);
  if (!speaking) return 0;
  return 0.55 * Math.max(0, Math.sin(seconds * 27 + 1.3 * Math.sin(seconds * 7)) * 0.6 + 0.4);
}

/** How far a figure's arms are raised: up and down, a little more than once a second, while it waves. */
function armsOf({ waves }: Actor, seconds: number): { leftArm: number; rightArm: number } {
  const waving = waves?.some(([from, to]) => seconds >= from && seconds < to);
  const raised = (phase: number) => (waving ? 0.55 + 0.4 * Math.sin(seconds * 7.5 + phase) : 0);
  return { leftArm: raised(0), rightArm: raised(1.9) };
}

function drawDog(g: SKRSContext2D, x: number, y: number, size: number, seconds: number): BoxTuple {
  const unit = size / 100;
  g.save();
  g.translate(x, y);
  g.scale(unit, unit);
  g.fillStyle = "#8a5a34";
  g.lineWidth = 9;
  g.lineCap = "round";
  g.strokeStyle = "#6f4527";
  for (const [leg, phase] of [
    [-52, 0],
    [-38, Math.PI],
    [34, Math.PI],
    [48, 0],
  ] as const) {
    const swing = 14 * Math.sin(seconds * 11 + phase);
    g.beginPath();
    g.moveTo(leg, 10);
    g.lineTo(leg + swing, 48);
    g.stroke();
  }
  g.beginPath();
  g.ellipse(0, 0, 62, 23, 0, 0, 7);
  g.fill();
  g.beginPath();
  g.ellipse(62, -26, 24, 19, -0.2, 0, 7);
  g.ellipse(84, -20, 14, 10, 0, 0, 7);
  g.fill();
  g.fillStyle = "#5a371f";
  g.beginPath();
  g.ellipse(52, -34, 9, 17, 0.5, 0, 7);
  g.ellipse(96, -23, 5, 4, 0, 0, 7);
  g.fill();
  g.beginPath();
  g.arc(68, -31, 2.6, 0, 7);
  g.fillStyle = "#111";
  g.fill();
  g.beginPath();
  g.moveTo(-58, -6);
  g.quadraticCurveTo(-84, -24, -78, -44 + 8 * Math.sin(seconds * 15));
  g.strokeStyle = "#8a5a34";
  g.lineWidth = 8;
  g.stroke();
  g.restore();
  return [x - 84 * unit, y - 46 * unit, 186 * unit, 98 * unit];
}

function drawBall(g: SKRSContext2D, x: number, y: number, size: number, seconds: number): BoxTuple {
  const r = size / 2;
  const turn = seconds * 3;
  const light = g.createRadialGradient(x - r / 3, y - r / 3, r / 6, x, y, r);
  light.addColorStop(0, "#fff3d8");
  light.addColorStop(1, "#c8782c");
  g.fillStyle = light;
  g.beginPath();
  g.arc(x, y, r, 0, 7);
  g.fill();
  g.strokeStyle = "#7a3a12";
  g.lineWidth = r / 9;
  for (const k of [0, 1]) {
    g.beginPath();
    g.ellipse(x, y, r * Math.abs(Math.cos(turn + k * 1.6)) + 1, r, turn, 0, 7);
    g.stroke();
  }
  return [x - r, y - r, size, size];
}

function drawCart(g: SKRSContext2D, x: number, y: number, size: number, seconds: number): BoxTuple {
  const unit = size / 100;
  g.save();
  g.translate(x, y);
  g.scale(unit, unit);
  g.fillStyle = "#a8352c";
  g.fillRect(-90, -45, 180, 60);
  g.fillStyle = "#e8e2d0";
  g.fillRect(-80, -36, 70, 26);
  g.fillStyle = "#37566b";
  g.fillRect(10, -36, 66, 26);
  for (const wheel of [-55, 55]) {
    g.fillStyle = "#22201e";
    g.beginPath();
    g.arc(wheel, 22, 24, 0, 7);
    g.fill();
    g.strokeStyle = "#b5b0a6";
    g.lineWidth = 4;
    for (let k = 0; k < 4; k++) {
      const angle = seconds * 7 + (k * Math.PI) / 4;
      g.beginPath();
      g.moveTo(wheel - 18 * Math.cos(angle), 22 - 18 * Math.sin(angle));
      g.lineTo(wheel + 18 * Math.cos(angle), 22 + 18 * Math.sin(angle));
      g.stroke();
    }
  }
  g.restore();
  return [x - 90 * unit, y - 45 * unit, 180 * unit, 91 * unit];
}

function drawActor(g: SKRSContext2D, actor: Actor, seconds: number): { face: BoxTuple | null; body: BoxTuple } {
  const t = progress(actor, seconds);
  const x = mix([actor.from.x, actor.to.x], t);
  const y = mix([actor.from.y, actor.to.y], t);
  const size = mix(actor.size, t);
  const seed = actor.id.length + actor.id.charCodeAt(actor.id.length - 1);
  const sway = wander(seconds, seed);
  const yaw = mix(actor.yaw ?? [0, 0], Math.min(1, seconds / 5)) + 0.12 * wander(seconds * 0.7, seed + 3);
  const pose = { yaw, tilt: (actor.tilt ?? 0) + 0.03 * sway, mouth: mouthOf(actor, seconds) };
  switch (actor.kind) {
    case "bust":
      return drawBust(g, x + 0.03 * size * sway, y, size, actor.person!, pose);
    case "figure": {
      const moves = Math.abs(actor.to.x - actor.from.x) > 0.2 * size && t > 0 && t < 1;
      const speed = Math.abs(actor.to.x - actor.from.x) / (actor.moving[1] - actor.moving[0]) / size;
      // It sets off and halts within half a second.
      const walked = Math.min(1, (seconds - actor.moving[0]) / 0.5, (actor.moving[1] - seconds) / 0.5);
      const walk = moves ? { step: seconds * 7, stride: speed > 0.6 ? 1.8 : 1, walk: walked } : {};
      const facing = Math.sign(actor.to.x - actor.from.x) || 1;
      const { face, body } = drawFigure(g, x, y, size, actor.person!, {
        ...pose,
        ...armsOf(actor, seconds),
        ...walk,
        facing,
      });
      return { face, body };
    }
    case "dog":
      return { face: null, body: drawDog(g, x, y, size, seconds) };
    case "ball":
      return { face: null, body: drawBall(g, x, y, size, seconds) };
    case "cart":
      return { face: null, body: drawCart(g, x, y, size, seconds) };
  }
}

function drawCover(g: SKRSContext2D, { x, width, top }: Cover): void {
  const wood = g.createLinearGradient(x, 0, x + width, 0);
  wood.addColorStop(0, "#4b4036");
  wood.addColorStop(0.4, "#8b7a66");
  wood.addColorStop(1, "#3d342c");
  g.fillStyle = wood;
  g.fillRect(x, top, width, PICTURE.height);
  const random = seeded(Math.round(x));
  for (let k = 0; k < 40; k++) {
    g.fillStyle = shade("#6b5c4c", 0.7 + 0.6 * random());
    g.fillRect(x + random() * width, top, 1 + random() * 2, PICTURE.height);
  }
}

/** About what a figure's body hides of what is behind it. */
const silhouette = ([x, y, width, height]: BoxTuple): Hiding => ({
  x: x + 0.2 * width,
  width: 0.6 * width,
  top: y,
  bottom: y + height,
});

/** A part of the picture in which nothing behind it is to be seen; to the bottom unless it ends before. */
type Hiding = Cover & { bottom?: number };

/** Share of a box that covers hide, or that lies outside the picture. */
function hiddenShare([x, y, w, h]: BoxTuple, covers: readonly Hiding[]): number {
  let seen = 0;
  const steps = 12;
  for (let i = 0; i < steps; i++) {
    for (let j = 0; j < steps; j++) {
      const [px, py] = [x + ((i + 0.5) / steps) * w, y + ((j + 0.5) / steps) * h];
      const inside = px >= 0 && py >= 0 && px < PICTURE.width && py < PICTURE.height;
      const covered = covers.some(
        (cover) => px >= cover.x && px < cover.x + cover.width && py >= cover.top && py < (cover.bottom ?? Infinity),
      );
      if (inside && !covered) seen++;
    }
  }
  return 1 - seen / steps ** 2;
}

/** Offset and zoom of the camera at a moment. */
function cameraAt({ camera, seed }: ScenePlan, seconds: number): { dx: number; dy: number } {
  const hand = (rate: number, k: number) =>
    camera.shake * (wander(seconds * rate, k) + 0.5 * wander(seconds * 3.3 * rate, k + 5));
  return { dx: hand(2.1, seed % 17), dy: hand(2.6, seed % 23) };
}

export class ScenePainter {
  readonly frames: number;
  private readonly canvas = createCanvas(PICTURE.width, PICTURE.height);
  private readonly moment = createCanvas(PICTURE.width, PICTURE.height);
  private readonly grain: Int8Array;
  private readonly place: Canvas;

  constructor(private readonly plan: ScenePlan) {
    this.frames = Math.round(plan.seconds * FPS);
    const random = seeded(4711);
    this.grain = Int8Array.from({ length: 1 << 19 }, () => (random() + random() + random() - 1.5) * 2 * plan.grain);
    // Scaled once; it is drawn in every frame, and in every moment of a blurred one.
    const scale = PICTURE.height / WORLD.height;
    this.place = createCanvas(WORLD.width * scale, PICTURE.height + 40);
    this.place.getContext("2d").drawImage(world(plan.world, plan.seed), 0, 0, this.place.width, this.place.height);
  }

  /** Where everybody is in a frame. */
  seen(frame: number): Seen[] {
    const scratch = this.moment.getContext("2d");
    const seconds = frame / FPS;
    const { dx, dy } = cameraAt(this.plan, seconds);
    const shift = (box: BoxTuple | null): BoxTuple | null => box && [box[0] - dx, box[1] - dy, box[2], box[3]];
    const covers = this.plan.covers.map((cover) => ({ ...cover, x: cover.x - dx, top: cover.top - dy }));
    const drawn = this.plan.actors.map((actor) => drawActor(scratch, actor, seconds));
    return this.plan.actors.map((actor, i) => {
      const [face, body] = [shift(drawn[i]!.face), shift(drawn[i]!.body)!];
      const judged = face ?? body;
      // Whoever is drawn later stands before whoever is drawn earlier.
      const before = [...covers, ...drawn.slice(i + 1).map((other) => silhouette(shift(other.body)!))];
      const hidden = hiddenShare(judged, before);
      const bodyHidden = hiddenShare(body, before);
      return {
        id: actor.id,
        main: actor.main ?? false,
        face: face && hidden < 0.6 ? face : null,
        body: bodyHidden < 0.85 ? body : null,
        hidden: face ? hidden : bodyHidden,
      };
    });
  }

  private drawMoment(g: SKRSContext2D, seconds: number): void {
    const { plan, place } = this;
    const { dx, dy } = cameraAt(plan, seconds);
    const left = (plan.camera.panX * seconds + 40 + dx) % place.width;
    g.filter = "none";
    g.setTransform(1, 0, 0, 1, 0, 0);
    for (const shiftX of [0, place.width]) {
      if (shiftX - left < PICTURE.width) g.drawImage(place, shiftX - left, -dy - 20);
    }
    g.setTransform(1, 0, 0, 1, -dx, -dy);
    for (const actor of plan.actors) drawActor(g, actor, seconds);
    for (const cover of plan.covers) drawCover(g, cover);
    g.setTransform(1, 0, 0, 1, 0, 0);
  }

  /** Draws a frame and returns it as RGBA; the buffer is used again for the next. */
  draw(frame: number): Buffer {
    const { plan } = this;
    const g = this.canvas.getContext("2d");
    const samples = plan.shutter > 0 ? 6 : 1;
    for (let k = 0; k < samples; k++) {
      // The shutter is open around the moment for which the truth is given.
      const seconds = (frame + plan.shutter * ((k + 0.5) / samples - 0.5) * (samples > 1 ? 1 : 0)) / FPS;
      if (k === 0) {
        this.drawMoment(g, seconds);
        continue;
      }
      this.drawMoment(this.moment.getContext("2d"), seconds);
      g.globalAlpha = 1 / (k + 1);
      g.drawImage(this.moment, 0, 0);
      g.globalAlpha = 1;
    }
    if (plan.blur > 0) {
      const other = this.moment.getContext("2d");
      other.filter = `blur(${plan.blur}px)`;
      other.drawImage(this.canvas, 0, 0);
      other.filter = "none";
      g.drawImage(this.moment, 0, 0);
    }
    if (plan.exposure < 1) {
      g.fillStyle = `rgba(4,6,12,${1 - plan.exposure})`;
      g.fillRect(0, 0, PICTURE.width, PICTURE.height);
    }
    const data = this.canvas.data();
    this.addGrain(data, frame);
    return data;
  }

  private addGrain(data: Buffer, frame: number): void {
    const { grain } = this;
    if (this.plan.grain === 0) return;
    const clamped = new Uint8ClampedArray(data.buffer, data.byteOffset, data.length);
    let at = Math.floor(seeded(frame + 31)() * grain.length);
    for (let i = 0; i < data.length; i += 4) {
      const value = grain[at]!;
      at = (at + 1) & (grain.length - 1);
      clamped[i]! += value;
      clamped[i + 1]! += value;
      clamped[i + 2]! += value;
    }
  }
}
