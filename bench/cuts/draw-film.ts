/** Draws a planned film frame by frame: joints, light, what passes before the lens, motion blur and grain. */
import { createCanvas, type SKRSContext2D } from "@napi-rs/canvas";
import { seeded } from "../../demo/film/random";
import type { FilmPlan, Happening, PlannedShot } from "./plan";
import { drawScene, PICTURE, speedAt } from "./scenes";

export interface TrueTransition {
  kind: PlannedShot["joint"]["kind"];
  /** First frame of the new shot; of a gradual one, where the new picture takes over. */
  frame: number;
  range: { start: number; end: number };
}

/** First frame of every shot, and at the end the film's length. */
function starts(plan: FilmPlan): number[] {
  const at = [0];
  for (const { frames } of plan.shots) at.push(at.at(-1)! + frames);
  return at;
}

export function truthOf(plan: FilmPlan): TrueTransition[] {
  return starts(plan)
    .slice(1, -1)
    .map((frame, i) => {
      const { kind, frames } = plan.shots[i + 1]!.joint;
      const start = frame - (frames >> 1);
      return { kind, frame, range: { start, end: start + frames } };
    });
}

/** Factor on the light at a moment of a shot. */
function lightAt(happenings: Happening[], seconds: number): { gain: number; lift: number } {
  let gain = 1;
  let lift = 0;
  for (const event of happenings) {
    if (event.kind === "flash" && seconds >= event.at && seconds < event.at + event.seconds) {
      gain *= 1 + event.strength;
      lift += 120 * event.strength;
    } else if (event.kind === "strobe" && seconds >= event.at && seconds < event.at + event.seconds) {
      gain *= Math.floor((seconds - event.at) * 2 * event.hertz) % 2 === 0 ? 0.25 : 1.3;
    } else if (event.kind === "light") {
      const share = Math.min(1, Math.max(0, (seconds - event.at) / event.seconds));
      gain *= event.from + (event.to - event.from) * share;
    }
  }
  return { gain, lift };
}

function drawHappening(g: SKRSContext2D, event: Happening, seconds: number): void {
  const { width, height } = PICTURE;
  if (event.kind === "passing") {
    const share = (seconds - event.at) / event.seconds;
    if (share < 0 || share > 1) return;
    const reach = width * event.size;
    const x = -reach / 2 + (width + reach) * share;
    const body = g.createLinearGradient(x - reach / 2, 0, x + reach / 2, 0);
    body.addColorStop(0, `hsla(${event.hue} 20% 14% / 0)`);
    body.addColorStop(0.15, `hsl(${event.hue} 22% 16%)`);
    body.addColorStop(0.85, `hsl(${event.hue} 22% 22%)`);
    body.addColorStop(1, `hsla(${event.hue} 20% 14% / 0)`);
    g.fillStyle = body;
    g.fillRect(x - reach / 2, height * (0.5 - event.size * 0.6), reach, height * 2);
  } else if (event.kind === "explosion") {
    const age = seconds - event.at;
    if (age < 0 || age > 1.6) return;
    const size = 40 + 420 * (1 - Math.exp(-age * 7));
    const strength = Math.min(1, age * 12) * Math.exp(-Math.max(0, age - 0.2) * 3);
    const fire = g.createRadialGradient(event.x, event.y, 4, event.x, event.y, size);
    fire.addColorStop(0, `rgba(255,250,220,${strength})`);
    fire.addColorStop(0.5, `rgba(255,150,40,${0.9 * strength})`);
    fire.addColorStop(1, "rgba(90,40,20,0)");
    g.fillStyle = fire;
    g.fillRect(0, 0, width, height);
  }
}

/** Cuts out the part of the picture that a wipe has uncovered at a share. */
function clipWipe(g: SKRSContext2D, style: number, share: number): void {
  const { width, height } = PICTURE;
  g.beginPath();
  if (style === 0) g.rect(0, 0, width * share, height);
  else if (style === 1) g.rect(width * (1 - share), 0, width, height);
  else if (style === 2) g.rect(0, 0, width, height * share);
  else if (style === 3) g.ellipse(width / 2, height / 2, share * 370, share * 370, 0, 0, 7);
  else {
    const edge = share * (width + height);
    g.moveTo(0, 0);
    g.lineTo(edge, 0);
    g.lineTo(edge - height, height);
    g.lineTo(0, height);
  }
  g.clip();
}

const clamp = (value: number) => (value < 0 ? 0 : value > 255 ? 255 : value);

export class FilmPainter {
  readonly frames: number;
  private readonly canvas = createCanvas(PICTURE.width, PICTURE.height);
  private readonly upper = createCanvas(PICTURE.width, PICTURE.height);
  private readonly moment = createCanvas(PICTURE.width, PICTURE.height);
  private readonly starts: number[];
  private readonly fps: number;
  private readonly grain: Int8Array;

  constructor(private readonly plan: FilmPlan) {
    this.starts = starts(plan);
    this.frames = this.starts.at(-1)!;
    this.fps = plan.rate.num / plan.rate.den;
    const random = seeded(4711);
    this.grain = Int8Array.from({ length: 1 << 19 }, () => (random() + random() + random() - 1.5) * 2 * plan.grain);
  }

  /** One frame of one shot, with its motion blur, light and what happens in it. */
  private drawShot(g: SKRSContext2D, index: number, frame: number): void {
    const shot = this.plan.shots[index]!;
    // A shot that is mixed in began before it took over.
    const seconds = (frame - this.starts[index]! + (shot.joint.frames >> 1)) / this.fps;
    const open = this.plan.shutter / this.fps;
    const moving = speedAt(shot.scene, seconds, open);
    const samples = Math.min(10, Math.max(1, Math.ceil(moving / 5)));
    for (let k = 0; k < samples; k++) {
      const at = seconds + (open * k) / samples;
      if (k === 0) {
        drawScene(g, shot.scene, at);
        continue;
      }
      drawScene(this.moment.getContext("2d"), shot.scene, at);
      g.globalAlpha = 1 / (k + 1);
      g.drawImage(this.moment, 0, 0);
      g.globalAlpha = 1;
    }
    for (const event of shot.happenings) drawHappening(g, event, seconds);
    this.light(g, shot.happenings, seconds);
  }

  private light(g: SKRSContext2D, happenings: Happening[], seconds: number): void {
    const { gain, lift } = lightAt(happenings, seconds);
    const { width, height } = PICTURE;
    const factor = gain * this.plan.exposure;
    g.save();
    if (factor < 1) {
      g.fillStyle = `rgba(0,0,0,${1 - factor})`;
      g.fillRect(0, 0, width, height);
    } else if (factor > 1) {
      g.globalCompositeOperation = "color-dodge";
      const level = Math.round(255 * (1 - 1 / factor));
      g.fillStyle = `rgb(${level},${level},${level})`;
      g.fillRect(0, 0, width, height);
    }
    if (lift > 0) {
      g.globalCompositeOperation = "lighter";
      g.fillStyle = `rgb(${lift},${lift},${lift})`;
      g.fillRect(0, 0, width, height);
    }
    g.restore();
  }

  /** Draws a frame and returns it as RGBA; the buffer is used again for the next. */
  draw(frame: number): Buffer {
    const g = this.canvas.getContext("2d");
    const { width, height } = PICTURE;
    const index = this.starts.findLastIndex((start) => start <= frame);
    /** The joint that this frame lies in, by the index of the shot it leads to. */
    const into = [index, index + 1].find((i) => {
      const joint = this.plan.shots[i]?.joint;
      if (i < 1 || !joint || joint.frames === 0) return false;
      const first = this.starts[i]! - (joint.frames >> 1);
      return frame >= first && frame < first + joint.frames;
    });
    if (into === undefined) this.drawShot(g, index, frame);
    else {
      const { kind, frames, style } = this.plan.shots[into]!.joint;
      const share = (frame - (this.starts[into]! - (frames >> 1)) + 1) / (frames + 1);
      if (kind === "fade") {
        this.drawShot(g, share < 0.5 ? into - 1 : into, frame);
        const [r, v, b] = style === 0 ? [250, 250, 250] : [3, 3, 3];
        g.fillStyle = `rgba(${r},${v},${b},${1 - Math.abs(2 * share - 1)})`;
        g.fillRect(0, 0, width, height);
      } else {
        this.drawShot(g, into - 1, frame);
        this.drawShot(this.upper.getContext("2d"), into, frame);
        g.save();
        if (kind === "wipe") clipWipe(g, style, share);
        else g.globalAlpha = share;
        g.drawImage(this.upper, 0, 0);
        g.restore();
      }
    }
    const data = this.canvas.data();
    this.addGrain(data, frame);
    return data;
  }

  private addGrain(data: Buffer, frame: number): void {
    if (this.plan.grain === 0) return;
    const { grain } = this;
    let at = Math.floor(seeded(frame + 31)() * grain.length);
    for (let i = 0; i < data.length; i += 4) {
      const value = grain[at]!;
      at = (at + 1) & (grain.length - 1);
      data[i] = clamp(data[i]! + value);
      data[i + 1] = clamp(data[i + 1]! + value);
      data[i + 2] = clamp(data[i + 2]! + value);
    }
  }
}
