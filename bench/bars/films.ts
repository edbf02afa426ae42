/** Films with and without bars of their own, each shot a photograph that a camera moves over, with its true active area. */
import { execFileSync } from "node:child_process";
import { join } from "node:path";
import type { Box } from "~/core/geometry/box";
import { photographs } from "../photographs";

export const FRAME = { width: 1280, height: 720 };
export const FPS = 25;
export const SHOT_SECONDS = 3;

interface BarShot {
  /** Filters on the photograph before it is fitted into the frame. */
  grade?: string;
  /** Where it is fitted; the whole frame if left out. */
  area?: Box;
  colour?: string;
  /** Filters on the whole frame. */
  over?: string;
  /** What is filmed, in place of a photograph: an ffmpeg source of the frame's size. */
  source?: string;
}

export interface BarFilm {
  name: string;
  shots: BarShot[];
  /** Quality of the encoder; more is worse. */
  crf?: number;
  /** Pixels by which the edges of bars are soft, which must be left out with them. */
  soft?: number;
}

const area = (x: number, y: number, width: number, height: number): Box => ({ x, y, width, height });
const WIDE = area(0, 92, 1280, 536);
const OLD = area(160, 0, 960, 720);
const UPRIGHT = area(437, 0, 405, 720);
const STAMP = area(160, 92, 960, 536);

const DARK = "eq=brightness=-0.28:contrast=0.55:saturation=0.6";
const NIGHT = "eq=brightness=-0.42:contrast=0.35:saturation=0.4";
const sixOf = (shot: BarShot): BarShot[] => Array.from({ length: 6 }, () => shot);
const text = (words: string, y: string, size = 34, x = "(w-tw)/2", when = "1") =>
  `drawtext=text='${words}':fontsize=${size}:fontcolor=white:x=${x}:y=${y}:enable='${when}'`;
const SUBTITLES = [0, 1, 2]
  .map((i) =>
    text(
      ["Did the kite hold", "It did until the wind turned", "Then we ran"][i]!,
      "h-70",
      34,
      "(w-tw)/2",
      `between(t,${i},${i + 0.8})`,
    ),
  )
  .join(",");
const TITLE = `color=black:s=1280x720:r=${FPS},${text("THE SALT MEADOWS OF FERROW", "(h-th)/2", 70)}`;
const LAMP = `color=0x050505:s=1280x720:r=${FPS},drawbox=x='200+90*t':y=300:w=60:h=50:color=0xfff0c0:t=fill,gblur=sigma=18`;

const WHITE = `color=white:s=1280x720:r=${FPS}`;
const TOWER = `${WHITE},drawbox=x=520:y=150:w=240:h=570:color=0x5a6070:t=fill,drawbox=x=560:y=200:w=40:h=480:color=0x303848:t=fill`;
const PARCEL = `${WHITE},drawbox=x=420:y=200:w=440:h=320:color=0x8a6a40:t=fill,drawbox=x=600:y=200:w=60:h=320:color=0xd0b080:t=fill`;
const SIGN = `color=black:s=1280x720:r=${FPS},drawbox=x=240:y=220:w=800:h=280:color=0x2050a0:t=fill,${text("FERROW KITE DAY", "(h-th)/2", 70)}`;

export const FILMS: BarFilm[] = [
  { name: "letterbox", shots: sixOf({ area: WIDE }) },
  { name: "pillarbox 4:3", shots: sixOf({ area: OLD }) },
  { name: "pillarbox 9:16", shots: sixOf({ area: UPRIGHT }) },
  { name: "bars on all sides", shots: sixOf({ area: STAMP }) },
  { name: "grey bars", shots: sixOf({ area: WIDE, colour: "0x707070" }) },
  { name: "white bars", shots: sixOf({ area: OLD, colour: "white" }) },
  { name: "soft edges", shots: sixOf({ area: WIDE, over: "gblur=sigma=1.2:sigmaV=1.2" }), soft: 2 },
  { name: "odd, and one line more below", shots: sixOf({ area: area(0, 91, 1280, 535) }) },
  { name: "a thin black edge on the left", shots: sixOf({ area: area(7, 0, 1273, 720) }) },
  { name: "a logo in the bar", shots: sixOf({ area: WIDE, over: text("FERROW", "28", 40, "60") }) },
  { name: "subtitles in the bar", shots: sixOf({ area: WIDE, over: SUBTITLES }) },
  { name: "dark film, letterbox", shots: sixOf({ area: WIDE, grade: DARK }) },
  { name: "night film, letterbox", shots: sixOf({ area: WIDE, grade: NIGHT }) },
  { name: "fades, letterbox", shots: sixOf({ area: WIDE, grade: "fade=in:0:20,fade=out:55:20" }) },
  { name: "compressed hard, letterbox", shots: sixOf({ area: WIDE }), crf: 38 },
  { name: "letterbox in single shots", shots: [{}, { area: WIDE }, {}, {}, { area: WIDE }, {}] },
  { name: "pillarbox in one shot", shots: [{}, {}, { area: OLD }, {}, {}, {}] },
  {
    name: "whole shots in a letterboxed film",
    shots: [{ area: WIDE }, { area: WIDE }, {}, { area: WIDE }, { area: WIDE }, { area: WIDE }],
  },
  { name: "no bars", shots: sixOf({}) },
  { name: "dark film, no bars", shots: sixOf({ grade: DARK }) },
  { name: "night film, no bars", shots: sixOf({ grade: NIGHT }) },
  { name: "vignettes, no bars", shots: sixOf({ grade: "vignette=angle=PI/2.6" }) },
  { name: "titles on black, no bars", shots: [{}, { source: TITLE }, {}, { source: TITLE }, {}, {}] },
  { name: "a lamp at night, no bars", shots: [{ source: LAMP }, {}, { source: LAMP }, {}, { source: LAMP }, {}] },
  { name: "a tower before a white sky, no bars", shots: [{ source: TOWER }, {}, {}, { source: TOWER }, {}, {}] },
  { name: "a parcel on white, no bars", shots: sixOf({ source: PARCEL }) },
  { name: "a sign on black, no bars", shots: [{}, { source: SIGN }, {}, {}, { source: SIGN }, {}] },
  {
    name: "a black desk in front, no bars",
    shots: sixOf({ over: "drawbox=x=0:y=600:w=1280:h=120:color=black:t=fill" }),
  },
  { name: "a dark doorway, no bars", shots: sixOf({ over: "drawbox=x=0:y=0:w=230:h=720:color=black:t=fill" }) },
];

/** Draws a film into a file. */
export function drawBarFilm({ shots, crf = 21 }: BarFilm, folder: string, name: string): string {
  const photos = photographs();
  const inputs: string[] = [];
  const chains = shots.map(({ grade, area: fitted, colour = "black", over, source }, i) => {
    const { width, height } = fitted ?? FRAME;
    if (source) inputs.push("-f", "lavfi", "-t", String(SHOT_SECONDS), "-i", source);
    else
      inputs.push(
        "-loop",
        "1",
        "-framerate",
        String(FPS),
        "-t",
        String(SHOT_SECONDS),
        "-i",
        photos[(7 * i + name.length) % photos.length]!,
      );
    const across = i % 2 ? `(iw-ow)*t/${SHOT_SECONDS}` : `(iw-ow)*(1-t/${SHOT_SECONDS})`;
    const camera = `scale=${Math.ceil(width * 1.3)}:${Math.ceil(height * 1.3)}:force_original_aspect_ratio=increase,crop=${width}:${height}:${across}:(ih-oh)/2`;
    const steps = [
      ...(source ? [] : [camera]),
      ...(grade ? [grade] : []),
      "format=yuv444p,noise=alls=7:allf=t",
      ...(fitted ? [`pad=${FRAME.width}:${FRAME.height}:${fitted.x}:${fitted.y}:${colour}`] : []),
      ...(over ? [over] : []),
      "setsar=1,format=yuv420p",
    ];
    return `[${i}:v]${steps.join(",")}[s${i}]`;
  });
  const graph = `${chains.join(";")};${shots.map((_, i) => `[s${i}]`).join("")}concat=n=${shots.length}[film]`;
  const file = join(folder, `${name}.mp4`);
  const encoder = ["-c:v", "libx264", "-preset", "veryfast", "-crf", String(crf), "-g", "100", "-pix_fmt", "yuv420p"];
  execFileSync("ffmpeg", [
    "-y",
    "-v",
    "error",
    "-nostdin",
    ...inputs,
    "-filter_complex",
    graph,
    "-map",
    "[film]",
    ...encoder,
    file,
  ]);
  return file;
}
