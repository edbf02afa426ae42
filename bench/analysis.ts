/**
 * Times the whole analysis of a film against bare decoding of it, in turn and in the same run.
 *
 *   npm run bench:analysis [-- FILM] [--json OUT.json]
 */
import { spawnSync } from "node:child_process";
import { writeFileSync } from "node:fs";
import { parseArgs } from "node:util";
import { analyseFilm, forgetfulStore } from "~/jobs/analyse-film.server";
import { probeFilm } from "~/media/probe.server";

const { values, positionals } = parseArgs({ allowPositionals: true, options: { json: { type: "string" } } });
const file = positionals[0] ?? "demo/ferrow-kite-day.mp4";
const info = await probeFilm(file);

const ROUNDS = 2;
const seconds = async (work: () => unknown): Promise<number> => {
  const start = performance.now();
  await work();
  return (performance.now() - start) / 1000;
};
const decode = () => spawnSync("ffmpeg", ["-v", "error", "-i", file, "-f", "null", "-"]);
const analyse = () => analyseFilm({ file, name: file, info }, { store: forgetfulStore() });

const rounds: { decoding: number; analysis: number; ratio: number }[] = [];
for (let round = 0; round < ROUNDS; round++) {
  const decoding = await seconds(decode);
  const analysis = await seconds(analyse);
  rounds.push({ decoding, analysis, ratio: analysis / decoding });
}
console.table(
  rounds.map(({ decoding, analysis, ratio }) => ({
    "decoding s": decoding.toFixed(1),
    "analysis s": analysis.toFixed(1),
    ratio: ratio.toFixed(2),
    "ms a frame": ((1000 * analysis) / info.frames).toFixed(1),
  })),
);
const ratio = Math.min(...rounds.map((round) => round.ratio));
console.log(`${info.frames} frames; least ratio ${ratio.toFixed(2)}`);
if (values.json)
  writeFileSync(values.json, `${JSON.stringify({ file, frames: info.frames, rounds, ratio }, null, 2)}\n`);
