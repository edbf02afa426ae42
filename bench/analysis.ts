/**
 * Times the whole analysis of a film against bare decoding of it, in turn and in the same run, and tells how much memory
 * it has taken after a quarter of the film and at its end.
 *
 *   ./glad-pan bench analysis [FILM] [--json OUT.json]
 */
import { spawnSync } from "node:child_process";
import { writeFileSync } from "node:fs";
import { parseArgs } from "node:util";
import { analyseFilm } from "~/pipelines/analyse-film.server";
import { forgetfulStore } from "~/pipelines/analysis-store";
import { probeFilm } from "~/media/probe.server";

const { values, positionals } = parseArgs({ allowPositionals: true, options: { json: { type: "string" } } });
const file = positionals[0] ?? "demo/ferrow-kite-day.mp4";
const info = await probeFilm(file);

const ROUNDS = 2;
async function timed<T>(work: () => T | Promise<T>): Promise<{ seconds: number; result: T }> {
  const start = performance.now();
  const result = await work();
  return { seconds: (performance.now() - start) / 1000, result };
}
const decode = () => spawnSync("ffmpeg", ["-v", "error", "-i", file, "-f", "null", "-"]);
const megabytes = () => Math.round(process.memoryUsage().rss / 1e6);

/** Megabytes after a quarter of the film and at its end. */
async function analyse(): Promise<{ quarter: number; end: number }> {
  let quarter = 0;
  const onProgress = (share: number) => {
    if (quarter === 0 && share >= 0.25) quarter = megabytes();
  };
  await analyseFilm({ file, name: file, info }, { store: forgetfulStore(), onProgress });
  return { quarter, end: megabytes() };
}

const rounds: { decoding: number; analysis: number; ratio: number; memory: { quarter: number; end: number } }[] = [];
for (let round = 0; round < ROUNDS; round++) {
  const { seconds: decoding } = await timed(decode);
  const { seconds: analysis, result: memory } = await timed(analyse);
  rounds.push({ decoding, analysis, ratio: analysis / decoding, memory });
}
console.table(
  rounds.map(({ decoding, analysis, ratio, memory }) => ({
    "decoding s": decoding.toFixed(1),
    "analysis s": analysis.toFixed(1),
    ratio: ratio.toFixed(2),
    "MB at a quarter": memory.quarter,
    "MB at the end": memory.end,
    "ms a frame": ((1000 * analysis) / info.frames).toFixed(1),
  })),
);
const ratio = Math.min(...rounds.map((round) => round.ratio));
console.log(`${info.frames} frames; least ratio ${ratio.toFixed(2)}`);
if (values.json)
  writeFileSync(values.json, `${JSON.stringify({ file, frames: info.frames, rounds, ratio }, null, 2)}\n`);
