/**
 * Makes the demo film "Ferrow Kite Day" and its ground truth (`npm run demo:film`).
 *
 *   node --import tsx demo/film/make.ts [--still FRAME OUT.png]
 *
 * Writes demo/ferrow-kite-day.mp4 and demo/ferrow-kite-day.truth.json (see demo/README.md).
 */
import { spawn } from "node:child_process";
import { once as onceEvent } from "node:events";
import { rmSync, writeFileSync } from "node:fs";
import { createCanvas, ImageData, type SKRSContext2D } from "@napi-rs/canvas";
import { seeded } from "./random";
import { type Mouth, shots } from "./shots";
import { HEIGHT, RATE, type Seen, type Shot, WIDTH } from "./stage";
import { type Line, mix, mouthAt, SAMPLE_RATE, speak, type Spoken } from "./voices";

const FILE = "demo/ferrow-kite-day.mp4";
const TRUTH = "demo/ferrow-kite-day.truth.json";

interface Placed {
  shot: Shot;
  /** Frame at which its first picture appears (under a dissolve, still mixed). */
  start: number;
  end: number;
}

/** A dissolve overlaps the shot before it; a fade goes through black, with half of it on either side. */
function place(list: Shot[]): Placed[] {
  let at = 0;
  return list.map((shot) => {
    const start = shot.transition === "dissolve" ? at - shot.overlap : at;
    at = start + shot.frames;
    return { shot, start, end: at };
  });
}

const LINES: { shot: string; at: number; person: string; text: string }[] = [
  {
    shot: "presenter",
    at: 14,
    person: "nela",
    text: "Good afternoon from Ferrow! The wind came up at noon, and half the town is out on the salt meadows with a kite.",
  },
  { shot: "makers", at: 8, person: "bram", text: "My grandfather cut these spars from willow." },
  { shot: "makers", at: 104, person: "ilse", text: "And I sew the sails, each one by hand." },
  { shot: "makers", at: 196, person: "bram", text: "She does it better than I ever could." },
  { shot: "close-up", at: 8, person: "ilse", text: "A good kite wants to leave you. That is the art." },
  { shot: "farewell", at: 62, person: "nela", text: "That was our kite day. See you next year." },
];

function spokenLines(placed: Placed[]): Line[] {
  return LINES.map(({ shot, at, person, text }) => ({
    person,
    text,
    frame: placed.find((p) => p.shot.name === shot)!.start + at,
  }));
}

/** How much of each shot is in the picture at a frame: [shot, opacity] from the bottom up, and black on top. */
function blendAt(placed: Placed[], frame: number): { layers: { at: Placed; opacity: number }[]; black: number } {
  const layers: { at: Placed; opacity: number }[] = [];
  let black = 0;
  placed.forEach((at, i) => {
    if (frame < at.start || frame >= at.end) return;
    const since = frame - at.start;
    const next = placed[i + 1];
    const opacity = at.shot.transition === "dissolve" ? Math.min(1, (since + 1) / (at.shot.overlap + 1)) : 1;
    layers.push({ at, opacity });
    if (at.shot.transition === "fade") black = Math.max(black, 1 - (since + 1) / (at.shot.overlap / 2 + 1));
    if (next?.shot.transition === "fade") black = Math.max(black, 1 - (at.end - frame) / (next.shot.overlap / 2 + 1));
  });
  return { layers, black: Math.max(0, black) };
}

function drawShot(g: SKRSContext2D, shot: Shot, frame: number): Seen {
  const samples = shot.blurSamples ?? 1;
  const seen = shot.draw(g, frame);
  if (samples === 1) return seen;
  const moment = createCanvas(WIDTH, HEIGHT);
  const m = moment.getContext("2d");
  for (let k = 1; k < samples; k++) {
    shot.draw(m, frame + (k / samples) * 0.5);
    g.globalAlpha = 1 / (k + 1);
    g.drawImage(moment, 0, 0);
  }
  g.globalAlpha = 1;
  return seen;
}

/** Grain: a picture of noise laid over each frame at another place. */
function grainTile() {
  const size = 512;
  const random = seeded(77);
  const data = new Uint8ClampedArray(size * size * 4);
  for (let i = 0; i < size * size; i++) {
    const value = 128 + (random() + random() + random() - 1.5) * 90;
    data.set([value, value, value, 22], i * 4);
  }
  const canvas = createCanvas(size, size);
  canvas.getContext("2d").putImageData(new ImageData(data, size, size), 0, 0);
  return canvas;
}

class Renderer {
  readonly canvas = createCanvas(WIDTH, HEIGHT);
  private readonly g = this.canvas.getContext("2d");
  private readonly upper = createCanvas(WIDTH, HEIGHT);
  private readonly grain = grainTile();

  constructor(private readonly placed: Placed[]) {}

  /** Draws one frame of the film and returns what the topmost shot shows. */
  render(frame: number): Seen {
    const { g } = this;
    const { layers, black } = blendAt(this.placed, frame);
    let seen: Seen = { people: [], objects: [] };
    for (const { at, opacity } of layers) {
      if (opacity >= 1) seen = drawShot(g, at.shot, frame - at.start);
      else {
        const above = drawShot(this.upper.getContext("2d"), at.shot, frame - at.start);
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
    const random = seeded(frame * 31 + 5);
    g.globalCompositeOperation = "overlay";
    const dx = -Math.floor(random() * 512);
    const dy = -Math.floor(random() * 512);
    for (let y = dy; y < HEIGHT; y += 512) for (let x = dx; x < WIDTH; x += 512) g.drawImage(this.grain, x, y);
    g.globalCompositeOperation = "source-over";
    return seen;
  }
}

/** Ground truth: a track for each person and thing in each shot, with a box or null for every frame of it. */
class Truth {
  private readonly tracks = new Map<
    string,
    { shot: number; id: string; kind: string; start: number; face?: unknown[]; boxes: unknown[] }
  >();

  constructor(
    private readonly placed: Placed[],
    private readonly spoken: Spoken[],
  ) {}

  /** Where each shot takes over: half-way through a dissolve, at the darkest frame of a fade. */
  private switches(): number[] {
    return this.placed.map(({ shot, start }) => (shot.transition === "dissolve" ? start + shot.overlap / 2 : start));
  }

  add(frame: number, seen: Seen): void {
    const starts = this.switches();
    const shot = starts.findLastIndex((start) => frame >= start);
    const round = (box: number[] | null) => box && box.map((value) => Math.round(value));
    const put = (id: string, kind: string, box: number[], face?: number[] | null) => {
      const key = `${shot}/${id}`;
      let track = this.tracks.get(key);
      if (!track)
        this.tracks.set(
          key,
          (track = { shot, id, kind, start: frame, boxes: [], ...(kind === "person" ? { face: [] } : {}) }),
        );
      while (track.boxes.length < frame - track.start) {
        track.boxes.push(null);
        track.face?.push(null);
      }
      track.boxes.push(round(box));
      track.face?.push(round(face ?? null));
    };
    for (const person of seen.people) put(person.id, "person", person.body, person.face);
    for (const object of seen.objects) put(object.id, "object", object.box);
  }

  toJson(frames: number): string {
    const starts = this.switches();
    const shots = this.placed.map(({ shot, start }, i) => ({
      name: shot.name,
      start: starts[i],
      end: starts[i + 1] ?? frames,
      transition: shot.transition,
      ...(shot.transition === "dissolve" ? { range: [start, start + shot.overlap] } : {}),
      ...(shot.transition === "fade" ? { range: [start - shot.overlap / 2, start + shot.overlap / 2] } : {}),
    }));
    const speech = this.spoken.map(({ person, frame, samples }) => ({
      person,
      start: frame,
      end: frame + Math.ceil((samples.length / SAMPLE_RATE) * RATE),
    }));
    const titles = this.placed.flatMap(({ shot, start }) =>
      (shot.titles ?? []).map(({ from, to, box }) => ({ start: start + from, end: start + to, box })),
    );
    const head = JSON.stringify({ width: WIDTH, height: HEIGHT, rate: [RATE, 1], frames, shots, speech, titles });
    return `${head.slice(0, -1)},"tracks":[\n${[...this.tracks.values()].map((track) => JSON.stringify(track)).join(",\n")}\n]}\n`;
  }
}

const quiet: Mouth = () => 0;
const placed = place(shots(quiet));
const total = placed.at(-1)!.end;
const spoken = speak(spokenLines(placed));
const mouth: Mouth = (person, shot, frame) =>
  mouthAt(spoken, person, placed.find((p) => p.shot.name === shot)!.start + Math.floor(frame), RATE);
const film = place(shots(mouth));
const renderer = new Renderer(film);

const still = process.argv.indexOf("--still");
if (still > 0) {
  renderer.render(Number(process.argv[still + 1]));
  writeFileSync(process.argv[still + 2]!, renderer.canvas.toBuffer("image/png"));
} else {
  const truth = new Truth(film, spoken);
  const sound = `${FILE}.pcm`;
  writeFileSync(sound, mix(spoken, total, RATE));
  const encode = [
    ...[
      "-y",
      "-v",
      "error",
      "-f",
      "rawvideo",
      "-pix_fmt",
      "rgba",
      "-s",
      `${WIDTH}x${HEIGHT}`,
      "-r",
      `${RATE}`,
      "-i",
      "pipe:0",
    ],
    ...["-f", "s16le", "-ar", `${SAMPLE_RATE}`, "-ac", "2", "-i", sound],
    ...[
      "-vf",
      "scale=out_color_matrix=bt709:out_range=tv,format=yuv420p",
      "-c:v",
      "libx264",
      "-preset",
      "slow",
      "-tune",
      "film",
      "-b:v",
      "460k",
      "-maxrate",
      "1500k",
      "-bufsize",
      "3000k",
      "-g",
      "250",
    ],
    ...[
      "-color_primaries",
      "bt709",
      "-color_trc",
      "bt709",
      "-colorspace",
      "bt709",
      "-c:a",
      "aac",
      "-b:a",
      "48k",
      "-ac",
      "1",
      "-movflags",
      "+faststart",
      FILE,
    ],
  ];
  const ffmpeg = spawn("ffmpeg", encode, { stdio: ["pipe", "inherit", "inherit"] });
  for (let frame = 0; frame < total; frame++) {
    truth.add(frame, renderer.render(frame));
    if (!ffmpeg.stdin.write(renderer.canvas.data())) await onceEvent(ffmpeg.stdin, "drain");
    if (frame % 60 === 0) console.error(`frame ${frame} of ${total}`);
  }
  ffmpeg.stdin.end();
  await onceEvent(ffmpeg, "close");
  writeFileSync(TRUTH, truth.toJson(total));
  rmSync(sound);
}
