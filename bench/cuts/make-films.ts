/** Makes the benchmark's film files, once; they are kept until the code that makes them changes. */
import { createHash } from "node:crypto";
import { existsSync, mkdirSync, readFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { encode } from "../encode";
import { FilmPainter } from "./draw-film";
import { type FilmPlan, planFilms } from "./plan";
import { PICTURE } from "./scenes";
import { fetchPhotographs } from "./worlds";

/** Changes with the code that draws, so that a kept film is never an older one. */
function version(): string {
  const hash = createHash("sha256");
  for (const file of ["plan.ts", "scenes.ts", "worlds.ts", "draw-film.ts", "make-films.ts"]) {
    hash.update(readFileSync(join(import.meta.dirname, file)));
  }
  return hash.digest("hex").slice(0, 12);
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
  const plans = planFilms().filter(wanted);
  if (plans.some(({ shots }) => shots.some(({ scene }) => scene.world === "photograph"))) {
    await fetchPhotographs();
  }
  for (const plan of plans) {
    const file = join(folder, `${plan.name.replaceAll(" ", "-")}.mp4`);
    if (!existsSync(file)) {
      process.stderr.write(`\rmaking ${plan.name}        `);
      const painter = new FilmPainter(plan);
      const { rate, crf } = plan;
      await encode({ size: PICTURE, rate, crf, frames: painter.frames, draw: (frame) => painter.draw(frame) }, file);
    }
    films.push({ plan, file });
  }
  process.stderr.write("\r");
  return films;
}
