/**
 * Renders a window with Glad Pan and with ffmpeg's own crop and scale, in turn and with the same encoder, standing and
 * moving; compares layouts with a window that fills the frame; tells how far from its place a window is in the render, at
 * speeds from 0.05 to 40 pixels per frame; and how much of a picture an enlargement gives back, beside ffmpeg's filters.
 *
 *   ./glad-pan bench render [--rounds 5] [--only speed|layouts|places|filters] [--frames 200] [--json OUT.json]
 */
import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { parseArgs } from "node:util";
import { pictureArguments, USUAL_OUTPUT } from "~/core/formats/output-settings";
import { fill, type ShownAt } from "~/core/composition/composition";
import { median } from "~/core/numbers/median";
import { REC709_TAGS } from "~/media/film-tool.server";
import { probeFilm } from "~/media/probe.server";
import { renderFilm } from "~/media/render/render.server";
import { photographs } from "../photographs";
import { compareFilters } from "./filters";
import { comparedLayouts } from "./layouts";
import { makeStillFilm, measurePlacement, TARGET } from "./placement";

const { values } = parseArgs({
  options: {
    rounds: { type: "string" },
    only: { type: "string" },
    frames: { type: "string" },
    json: { type: "string" },
  },
});
const rounds = Number(values.rounds ?? 5);
const FRAMES = Number(values.frames ?? 200);
/** Pixels of the source that a moving window goes in a frame, whole ones, which ffmpeg's crop can do as well. */
const PACE = 4;
const SPEEDS = [0.05, 0.2, 0.7, 1, 3.3, 10, 40];
const GOAL = { ratio: 1.1, rms: 0.05 };

const folder = mkdtempSync(join(tmpdir(), "glad-pan-render-"));

/** A camera that moves over a photograph, with grain, at 1080p. */
function makeFilm(): string {
  const file = join(folder, "film.mp4");
  execFileSync("ffmpeg", [
    ...["-y", "-v", "error", "-loop", "1", "-framerate", "25", "-i", photographs()[3]!],
    ...[
      "-vf",
      "scale=2600:-2,crop=1920:1080:x='2*n':y=100,noise=alls=6:allf=t,format=yuv420p",
      "-frames:v",
      `${FRAMES}`,
    ],
    ...["-c:v", "libx264", "-preset", "veryfast", "-crf", "18", ...REC709_TAGS, file],
  ]);
  return file;
}

const film = makeFilm();
const info = await probeFilm(film);

/** The same by ffmpeg alone: whole pixels, and an even width. */
function byFfmpeg(left: string): void {
  execFileSync("ffmpeg", [
    ...["-y", "-v", "error", "-nostdin", "-i", film, "-an"],
    ...["-vf", `crop=608:1080:x='${left}':y=0:exact=1,scale=${TARGET.width}:${TARGET.height}:flags=bicubic,setsar=1`],
    ...pictureArguments(USUAL_OUTPUT, 8),
    ...REC709_TAGS,
    join(folder, "ffmpeg.mp4"),
  ]);
}

const byGladPan = (shown: ShownAt) =>
  renderFilm(
    {
      file: film,
      name: "film",
      info,
      target: TARGET,
      ranges: [{ start: 0, end: info.frames }],
      shown,
      output: USUAL_OUTPUT,
    },
    join(folder, "glad-pan.mp4"),
  );

async function seconds(work: () => unknown): Promise<number> {
  const start = performance.now();
  await work();
  return (performance.now() - start) / 1000;
}

const windowAt = (left: number) => fill({ x: left + 304, y: 540, height: 1080 }, TARGET);

/** Layouts and layers against a window alone, in turn. */
async function compareLayouts() {
  const compared = [];
  for (const { name, shown, goal } of comparedLayouts(info.picture, TARGET, info.frames)) {
    const ratios = [];
    for (let round = 0; round < rounds; round++) {
      const alone = await seconds(() => byGladPan(() => windowAt(600)));
      ratios.push((await seconds(() => byGladPan(() => shown))) / alone);
    }
    compared.push({ layout: name, ratio: median(ratios), goal });
  }
  console.log("\nagainst a window alone, with the same encoder: how many times as long");
  console.table(compared.map(({ ratio, goal, ...rest }) => ({ ...rest, ratio: ratio.toFixed(3), goal: `≤ ${goal}` })));
  return compared;
}

/** Windows against ffmpeg's own crop and scale, in turn. */
async function compareSpeed() {
  const cases = [
    { name: "standing", left: "600", shown: () => windowAt(600) },
    {
      name: `moving ${PACE} px a frame`,
      left: `100+${PACE}*n`,
      shown: (frame: number) => windowAt(100 + PACE * frame),
    },
  ];
  const speed = [];
  for (const { name, left, shown } of cases) {
    const [ours, theirs]: number[][] = [[], []];
    for (let round = 0; round < rounds; round++) {
      theirs!.push(await seconds(() => byFfmpeg(left)));
      ours!.push(await seconds(() => byGladPan(shown)));
    }
    const ratios = ours!.map((value, i) => value / theirs![i]!);
    speed.push({ window: name, ffmpeg: median(theirs!), gladPan: median(ours!), ratio: median(ratios) });
  }
  console.log(
    `\n${FRAMES} frames of 1920 × 1080 to ${TARGET.width} × ${TARGET.height}, seconds, median of ${rounds} pairs`,
  );
  console.table(
    speed.map(({ window, ffmpeg, gladPan, ratio }) => ({
      window,
      "ffmpeg crop + scale": ffmpeg.toFixed(2),
      "Glad Pan": gladPan.toFixed(2),
      ratio: ratio.toFixed(3),
      goal: `≤ ${GOAL.ratio}`,
    })),
  );
  return speed;
}

/** Where windows are in the render. */
async function comparePlaces() {
  const still = await makeStillFilm(folder);
  const placement = [];
  for (const pace of SPEEDS) placement.push({ pace, ...(await measurePlacement(still, folder, pace)) });
  console.log("\nwhere the window is, against where it should be, in pixels of the render");
  console.table(
    placement.map(({ pace, composed, encoded }) => ({
      "px a frame": pace,
      "composed: RMS": composed.rms.toFixed(4),
      largest: composed.largest.toFixed(4),
      "range over eighths of a pixel": composed.stepping.toFixed(4),
      "in the file: RMS": encoded.rms.toFixed(4),
      "in the file: largest": encoded.largest.toFixed(4),
      goal: `≤ ${GOAL.rms}`,
    })),
  );
  return placement;
}

try {
  const wants = (part: string) => values.only === undefined || values.only === part;
  const found = {
    ...(wants("speed") ? { speed: await compareSpeed() } : {}),
    ...(wants("layouts") ? { layouts: await compareLayouts() } : {}),
    ...(wants("places") ? { placement: await comparePlaces() } : {}),
  };
  if (wants("filters")) {
    console.log("\nphotographs reduced, enlarged again, and compared with what they were");
    compareFilters(folder);
  }
  if (values.json) writeFileSync(values.json, `${JSON.stringify(found, null, 2)}\n`);
} finally {
  rmSync(folder, { recursive: true });
}
