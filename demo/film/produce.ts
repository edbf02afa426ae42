/** Turns a list of shots into a film file with its sound, and into its ground truth. */
import { spawn } from "node:child_process";
import { once as onceEvent } from "node:events";
import { rmSync, writeFileSync } from "node:fs";
import { type Canvas, createCanvas, ImageData, type SKRSContext2D } from "@napi-rs/canvas";
import { type Cutting, GroundTruth } from "./ground-truth";
import { seeded } from "./random";
import type { Mouth } from "./shots";
import { HEIGHT, RATE, type Seen, type Shot, WIDTH } from "./stage";
import { blendAt, place, type Placed } from "./timeline";
import { type Line, mix, mouthAt, SAMPLE_RATE, speak } from "./voices";

export interface Production {
  /** The shots, given how far each person's mouth is open. */
  shots: (mouth: Mouth) => Shot[];
  lines: { shot: string; at: number; person: string; text: string }[];
  file: string;
  truthFile: string;
  /** Frames per second of the film; the stage itself runs at 30. */
  rate: number;
  /** The part of the stage that is filmed, and the size it is filmed at. */
  cutting: Cutting;
  sound: boolean;
  /** Arguments for the encoder. */
  quality: string[];
}

function drawShot(g: SKRSContext2D, shot: Shot, moment: number): Seen {
  const samples = shot.blurSamples ?? 1;
  const seen = shot.draw(g, moment);
  if (samples === 1) return seen;
  const other = createCanvas(WIDTH, HEIGHT);
  for (let k = 1; k < samples; k++) {
    shot.draw(other.getContext("2d"), moment + (k / samples) * 0.5);
    g.globalAlpha = 1 / (k + 1);
    g.drawImage(other, 0, 0);
  }
  g.globalAlpha = 1;
  return seen;
}

const GRAIN_TILE = 512;

/** Grain: a picture of noise that is laid over each frame at another place. */
function grainTile(): Canvas {
  const random = seeded(77);
  const data = new Uint8ClampedArray(GRAIN_TILE * GRAIN_TILE * 4);
  for (let i = 0; i < GRAIN_TILE * GRAIN_TILE; i++) {
    const value = 128 + (random() + random() + random() - 1.5) * 90;
    data.set([value, value, value, 22], i * 4);
  }
  const canvas = createCanvas(GRAIN_TILE, GRAIN_TILE);
  canvas.getContext("2d").putImageData(new ImageData(data, GRAIN_TILE, GRAIN_TILE), 0, 0);
  return canvas;
}

/** Draws moments of a film, one after the other, on its canvas. */
export class Stage {
  readonly canvas = createCanvas(WIDTH, HEIGHT);
  private readonly g = this.canvas.getContext("2d");
  private readonly upper = createCanvas(WIDTH, HEIGHT);
  private readonly grain = grainTile();

  constructor(private readonly placed: Placed[]) {}

  /** Draws a moment of the stage's clock and returns what the topmost shot shows. */
  draw(moment: number): Seen {
    const { g } = this;
    const { layers, black } = blendAt(this.placed, moment);
    let seen: Seen = { people: [], objects: [] };
    for (const { at, opacity } of layers) {
      if (opacity >= 1) seen = drawShot(g, at.shot, moment - at.start);
      else {
        const above = drawShot(this.upper.getContext("2d"), at.shot, moment - at.start);
        if (opacity >= 0.5) seen = above;
        g.globalAlpha = opacity;
        g.drawImage(this.upper, 0, 0);
        g.globalAlpha = 1;
      }
    }
    if (black > 0) {
      g.fillStyle = `rgba(0,0,0,${black})`;
      g.fillRect(0, 0, WIDTH, HEIGHT);
    }
    const random = seeded(Math.round(moment * 31) + 5);
    g.globalCompositeOperation = "overlay";
    const dx = -Math.floor(random() * GRAIN_TILE);
    const dy = -Math.floor(random() * GRAIN_TILE);
    for (let y = dy; y < HEIGHT; y += GRAIN_TILE) {
      for (let x = dx; x < WIDTH; x += GRAIN_TILE) g.drawImage(this.grain, x, y);
    }
    g.globalCompositeOperation = "source-over";
    return seen;
  }
}

/** Speaks the lines and gives the shots mouths that move with them. */
export function rehearse({ shots, lines }: Production) {
  const silent = place(shots(() => 0));
  const startOf = (name: string) => silent.find(({ shot }) => shot.name === name)!.start;
  const spoken = speak(lines.map(({ shot, at, person, text }): Line => ({ person, text, frame: startOf(shot) + at })));
  const mouth: Mouth = (person, shot, frame) => mouthAt(spoken, person, startOf(shot) + Math.floor(frame), RATE);
  return { placed: place(shots(mouth)), spoken };
}

/** Draws, encodes and writes a film, and its ground truth beside it. */
export async function produce(production: Production): Promise<void> {
  const { file, truthFile, rate, cutting, sound, quality } = production;
  const { placed, spoken } = rehearse(production);
  const seconds = placed.at(-1)!.end / RATE;
  const frames = Math.round(seconds * rate);
  const stage = new Stage(placed);
  const truth = new GroundTruth(placed, spoken, cutting, rate);
  const soundFile = `${file}.pcm`;
  writeFileSync(soundFile, mix(spoken, placed.at(-1)!.end, RATE));
  const { crop, size } = cutting;
  const soundInput = ["-f", "s16le", "-ar", `${SAMPLE_RATE}`, "-ac", "2", "-i", soundFile];
  const ffmpeg = spawn(
    "ffmpeg",
    [
      ...["-y", "-v", "error", "-f", "rawvideo", "-pix_fmt", "rgba", "-s", `${WIDTH}x${HEIGHT}`, "-r", `${rate}`],
      ...["-i", "pipe:0", ...(sound ? soundInput : [])],
      "-vf",
      `crop=${crop.width}:${crop.height}:${crop.x}:${crop.y},scale=${size.width}:${size.height}:out_color_matrix=bt709:out_range=tv,setsar=1,format=yuv420p`,
      ...["-c:v", "libx264", "-preset", "slow", "-tune", "film", ...quality, "-color_primaries", "bt709"],
      ...["-color_trc", "bt709", "-colorspace", "bt709", ...(sound ? ["-c:a", "aac", "-b:a", "48k", "-ac", "1"] : [])],
      ...["-movflags", "+faststart", file],
    ],
    { stdio: ["pipe", "inherit", "inherit"] },
  );
  for (let frame = 0; frame < frames; frame++) {
    truth.add(frame, stage.draw((frame * RATE) / rate));
    if (!ffmpeg.stdin.write(stage.canvas.data())) await onceEvent(ffmpeg.stdin, "drain");
    if (frame % 60 === 0) console.error(`${file}: frame ${frame} of ${frames}`);
  }
  ffmpeg.stdin.end();
  await onceEvent(ffmpeg, "close");
  writeFileSync(truthFile, truth.toJson(frames));
  rmSync(soundFile);
}
