/** Makes the benchmark's film files, once; they are kept until the code that makes them changes. */
import { spawn } from "node:child_process";
import { createHash } from "node:crypto";
import { once } from "node:events";
import { existsSync, mkdirSync, readFileSync, renameSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { FilmPainter } from "./draw-film";
import { type FilmPlan, planFilms } from "./plan";
import { PICTURE } from "./scenes";

/** Changes with the code that draws, so that a kept film is never an older one. */
function version(): string {
  const hash = createHash("sha256");
  for (const file of ["plan.ts", "scenes.ts", "worlds.ts", "draw-film.ts", "make-films.ts"]) {
    hash.update(readFileSync(join(import.meta.dirname, file)));
  }
  return hash.digest("hex").slice(0, 12);
}

async function encode(plan: FilmPlan, file: string): Promise<void> {
  const painter = new FilmPainter(plan);
  const { num, den } = plan.rate;
  const aside = `${file}.part.mp4`;
  const ffmpeg = spawn(
    "ffmpeg",
    [
      ...["-y", "-v", "error", "-f", "rawvideo", "-pix_fmt", "rgba", "-s", `${PICTURE.width}x${PICTURE.height}`],
      ...["-r", `${num}/${den}`, "-i", "pipe:0", "-vf", "scale=out_color_matrix=bt709:out_range=tv,format=yuv420p"],
      ...["-c:v", "libx264", "-preset", "veryfast", "-crf", `${plan.crf}`, "-colorspace", "bt709", aside],
    ],
    { stdio: ["pipe", "inherit", "inherit"] },
  );
  const closed = once(ffmpeg, "close");
  for (let frame = 0; frame < painter.frames; frame++) {
    if (!ffmpeg.stdin.write(Buffer.from(painter.draw(frame)))) await once(ffmpeg.stdin, "drain");
  }
  ffmpeg.stdin.end();
  const [code] = (await closed) as [number];
  if (code !== 0) throw new Error(`${file}: the encoder ended with ${code}`);
  renameSync(aside, file);
}

export interface MadeFilm {
  plan: FilmPlan;
  file: string;
}

/** All films, made where they are not there yet. */
export async function makeFilms(wanted: (plan: FilmPlan) => boolean): Promise<MadeFilm[]> {
  const folder = join(tmpdir(), `glad-pan-bench-cuts-${version()}`);
  mkdirSync(folder, { recursive: true });
  const films: MadeFilm[] = [];
  for (const plan of planFilms().filter(wanted)) {
    const file = join(folder, `${plan.name.replaceAll(" ", "-")}.mp4`);
    if (!existsSync(file)) {
      process.stderr.write(`\rmaking ${plan.name}        `);
      await encode(plan, file);
    }
    films.push({ plan, file });
  }
  process.stderr.write("\r");
  return films;
}
