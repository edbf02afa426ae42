/** Follows the benchmark's things, and tells how much of them the windows show. */
import { createHash } from "node:crypto";
import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { aspectRatio, windowBox } from "~/core/geometry/crop-window";
import { frameShots } from "~/core/path/version-paths";
import { USUAL_FRAMING } from "~/core/path/framing-settings";
import { boxAt } from "~/core/subjects/tracking/track";
import { analyseAtOnce } from "~/pipelines/analyse-film.server";
import { probeFilm } from "~/media/probe.server";
import type { FilmFile } from "~/media/film-file";
import { encode } from "../../encode";
import { loadPictures } from "./pictures";
import { planThings, type Shown, ThingPainter, type ThingScene } from "./plan-things";
import { type Made, scoreThings, type ThingScore } from "./score-things";

const RATE = { num: 25, den: 1 };
const TARGET = { width: 1080, height: 1920 };

function codeVersion(): string {
  const hash = createHash("sha256");
  for (const file of ["draw-things.ts", "plan-things.ts", "plan-texts.ts", "pictures.ts", "../../encode.ts"]) {
    hash.update(readFileSync(join(import.meta.dirname, file)));
  }
  return hash.digest("hex").slice(0, 12);
}

/** A scene as a film, made the first time, with what is to be seen in each frame. */
async function filmOf(scene: ThingScene, folder: string): Promise<{ film: FilmFile; shown: Shown[] }> {
  const file = join(folder, `${scene.name.replaceAll(" ", "-")}.mp4`);
  const truth = `${file}.json`;
  if (!existsSync(file)) {
    const painter = new ThingPainter(scene);
    const { size, crf, seconds } = scene;
    const shown: Shown[] = [];
    const draw = (frame: number) => {
      const drawn = painter.draw((frame * RATE.den) / RATE.num);
      shown[frame] = drawn.shown;
      return drawn.frame;
    };
    const frames = Math.round((seconds * RATE.num) / RATE.den);
    await encode({ size, rate: RATE, crf, frames, draw }, `${file}.part.mp4`);
    writeFileSync(truth, JSON.stringify(shown));
    renameSync(`${file}.part.mp4`, file);
  }
  const shown = JSON.parse(readFileSync(truth, "utf8")) as Shown[];
  return { film: { file, name: scene.name, info: await probeFilm(file) }, shown };
}

async function scoreScene(scene: ThingScene, folder: string): Promise<ThingScore> {
  const { film, shown } = await filmOf(scene, folder);
  const { shots } = await analyseAtOnce(film);
  const { picture, rate } = film.info;
  const framed = frameShots(
    shots.map(({ range, tracks, active }) => ({
      range,
      kept: [range],
      settings: USUAL_FRAMING,
      tracks,
      rule: { kind: "auto" },
      handKeys: [],
      others: [],
      protect: null,
      active,
      carry: false,
      atSwitch: false,
    })),
    picture,
    TARGET,
    rate,
  );
  const made = framed.flatMap(({ windows, subjectId }, s): Made[] => {
    const { range, tracks } = shots[s]!;
    const subject = tracks.find(({ id }) => id === subjectId);
    return windows.map((window, i) => ({
      window: windowBox(window, aspectRatio(TARGET)),
      followed: subject ? boxAt(subject, range.start + i) : null,
      texts: tracks.flatMap((track) => (track.kind === "text" ? (boxAt(track, range.start + i) ?? []) : [])),
    }));
  });
  return scoreThings(shown, made);
}

/**
 * Scores the scenes that are wanted, one after the other.
 * @param more scenes of each set to keep apart beyond the first
 */
export async function* runThings(
  more: number,
  wanted: (scene: Pick<ThingScene, "name" | "set" | "apart">) => boolean,
): AsyncGenerator<{ scene: ThingScene; score: ThingScore }> {
  const folder = join(tmpdir(), `glad-pan-bench-things-${codeVersion()}`);
  mkdirSync(folder, { recursive: true });
  const scenes = planThings(await loadPictures(), more).filter(wanted);
  for (const scene of scenes) yield { scene, score: await scoreScene(scene, folder) };
}
