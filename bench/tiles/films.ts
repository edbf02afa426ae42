/** Films whose pictures are made of several, or have another laid over them, and films that only look as if they did. */
import { execFileSync } from "node:child_process";
import { existsSync, mkdirSync, renameSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Box, Size } from "~/core/geometry/box";
import { photographs } from "../photographs";

export interface TiledFilm {
  name: string;
  size: Size;
  crf: number;
  /** In pixels; the whole picture alone where there is no other. */
  tiles: Box[];
  /** Pictures laid over the first tile. */
  insets: Box[];
  /** What is between and around tiles. */
  ground: string;
  /** Pixels a second by which what is in a tile moves. */
  speed: number;
}

const SECONDS = 4;
/** Photographs that are shown alone. */
const ALONE = 8;
const SIZES: Size[] = [
  { width: 1920, height: 1080 },
  { width: 1280, height: 720 },
  { width: 854, height: 480 },
];

/** Tiles in shares of the picture. */
const LAYOUTS: Record<string, [number, number, number, number][]> = {
  "two side by side": [
    [0, 0, 0.5, 1],
    [0.5, 0, 0.5, 1],
  ],
  "two of unlike width": [
    [0, 0, 0.62, 1],
    [0.62, 0, 0.38, 1],
  ],
  "three side by side": [
    [0, 0, 1 / 3, 1],
    [1 / 3, 0, 1 / 3, 1],
    [2 / 3, 0, 1 / 3, 1],
  ],
  "one above another": [
    [0, 0, 1, 0.5],
    [0, 0.5, 1, 0.5],
  ],
  four: [
    [0, 0, 0.5, 0.5],
    [0.5, 0, 0.5, 0.5],
    [0, 0.5, 0.5, 0.5],
    [0.5, 0.5, 0.5, 0.5],
  ],
  "one and two": [
    [0, 0, 0.64, 1],
    [0.64, 0, 0.36, 0.5],
    [0.64, 0.5, 0.36, 0.5],
  ],
  "four on a ground": [
    [0.04, 0.06, 0.45, 0.42],
    [0.51, 0.06, 0.45, 0.42],
    [0.04, 0.52, 0.45, 0.42],
    [0.51, 0.52, 0.45, 0.42],
  ],
  "two on a ground": [
    [0.02, 0.2, 0.475, 0.6],
    [0.505, 0.2, 0.475, 0.6],
  ],
};
const INSETS: Record<string, [number, number, number, number]> = {
  "a picture in a corner": [0.7, 0.66, 0.27, 0.29],
  "a picture at the top": [0.03, 0.05, 0.22, 0.3],
};

const even = (value: number) => 2 * Math.round(value / 2);
const boxIn = ({ width, height }: Size, [x, y, w, h]: [number, number, number, number]): Box => {
  const [left, top] = [even(x * width), even(y * height)];
  return { x: left, y: top, width: even((x + w) * width) - left, height: even((y + h) * height) - top };
};

/** All films of the benchmark; every layout with pictures that stand and that move. */
export function planFilms(): TiledFilm[] {
  const films: TiledFilm[] = [];
  const add = (name: string, tiles: [number, number, number, number][], inset?: [number, number, number, number]) => {
    for (const speed of inset ? [60, 25] : [0, 40]) {
      const n = films.length;
      const size = SIZES[n % SIZES.length]!;
      films.push({
        name: `${name}, ${speed > 0 ? "moving" : "standing"}, ${size.height}p`,
        size,
        speed,
        crf: [20, 27, 33][(n >> 1) % 3]!,
        tiles: tiles.map((tile) => boxIn(size, tile)),
        insets: inset ? [boxIn(size, inset)] : [],
        ground: ["0x101010", "0x3a4048", "0xd8d8d8"][n % 3]!,
      });
    }
  };
  for (const [name, tiles] of Object.entries(LAYOUTS)) add(name, tiles);
  for (const [name, inset] of Object.entries(INSETS)) add(name, [[0, 0, 1, 1]], inset);
  for (let i = 0; i < ALONE; i++) add(`photograph ${i + 1} alone`, [[0, 0, 1, 1]]);
  return films;
}

/** One picture: a piece of a photograph that a camera goes over, with grain. */
function pieceOf(input: number, { width, height }: Size, speed: number, index: number): string {
  const reach = 1.3;
  const scaled = `${even(reach * width)}:${even(reach * height)}`;
  const phase = (0.9 * index).toFixed(2);
  const swing = (sine: string) => (speed > 0 ? `+${speed}*${sine}(1.1*t+${phase})` : "");
  const crop = `crop=${width}:${height}:'(iw-ow)/2${swing("sin")}':'(ih-oh)/2${swing("cos")}'`;
  return `[${input}:v]scale=${scaled}:force_original_aspect_ratio=increase,${crop},noise=alls=5:allf=t,setsar=1[p${input}]`;
}

/** Makes a film, the first time that it is asked for. */
export function makeFilm(film: TiledFilm, index: number): string {
  const folder = join(tmpdir(), "glad-pan-bench-tiles");
  mkdirSync(folder, { recursive: true });
  const file = join(folder, `${index}-${film.name.replaceAll(/[ ,]+/g, "-")}.mp4`);
  if (existsSync(file)) return file;
  const files = photographs();
  const pictures = [...film.tiles, ...film.insets];
  const { width, height } = film.size;
  // A photograph that stands alone is told from another by its number.
  const fileOf = (i: number) => files[(index * 3 + i * 5) % files.length]!;
  const single = pictures.length === 1 ? [files[(index >> 1) % files.length]!] : pictures.map((_, i) => fileOf(i));
  const chain = [
    ...pictures.map((box, i) => pieceOf(i, box, film.speed, i)),
    `color=c=${film.ground}:s=${width}x${height}:r=25[g0]`,
    ...pictures.map(({ x, y }, i) => `[g${i}][p${i}]overlay=${x}:${y}[g${i + 1}]`),
  ].join(";");
  const inputs = single.flatMap((name) => ["-loop", "1", "-framerate", "25", "-i", name]);
  const part = `${file}.part.mp4`;
  const output = [
    "-map",
    `[g${pictures.length}]`,
    "-t",
    String(SECONDS),
    "-pix_fmt",
    "yuv420p",
    "-crf",
    String(film.crf),
  ];
  execFileSync("ffmpeg", ["-v", "error", "-y", ...inputs, "-filter_complex", chain, ...output, part]);
  renameSync(part, file);
  return file;
}
