/**
 * Finds the transitions of made-up, difficult films and holds them against the truth, for the films that the method
 * was tuned on and, apart, for those that were not looked at; and times the finding against bare decoding.
 *
 *   ./glad-pan bench cuts [--json OUT.json] [--set NAME] [--held FRAMES]
 *
 * With `--held` every picture stands for so many frames, and those between are left out, as where a film was animated, or
 * taken, with fewer pictures than its frames; without films whose shots are too short for that.
 */
import { spawnSync } from "node:child_process";
import { writeFileSync } from "node:fs";
import { parseArgs } from "node:util";
import { decideTransitions, weighTransitions } from "~/core/shots/detect-transitions";
import { type FrameFeatures, frameFeatures } from "~/core/shots/frame-features";
import { probeFilm } from "~/media/probe.server";
import { decodeReduced } from "~/media/small-frames.server";
import { type TrueTransition, truthOf } from "./draw-film";
import { makeFilms } from "./make-films";
import type { FilmPlan } from "./plan";
import { addScores, f1, type Mistake, NO_SCORE, type Score, scoreFilm } from "./score";

const { values } = parseArgs({
  options: { json: { type: "string" }, set: { type: "string" }, held: { type: "string", default: "1" } },
});
const held = Number(values.held);
/** Pictures that a shot has at the least where they are held. */
const PICTURES_OF_SHOT = 6;

interface Found {
  features: FrameFeatures[];
  featureMilliseconds: number;
}

/** Features of every frame of a file, and the time that they alone take. */
async function featuresOf(file: string): Promise<Found> {
  const info = await probeFilm(file);
  const features: FrameFeatures[] = [];
  let featureMilliseconds = 0;
  for await (const image of decodeReduced({ file, name: file, info })) {
    const before = performance.now();
    features.push(frameFeatures(image));
    featureMilliseconds += performance.now() - before;
  }
  return { features, featureMilliseconds };
}

/** The first frame of the held picture that first shows what a frame does, or comes after it. */
const heldFrom = (frame: number) => held * Math.ceil(frame / held);

/** What there is to find in a film, as far as its pictures are held. */
function truthHeld(plan: FilmPlan): TrueTransition[] {
  return truthOf(plan).map(({ kind, frame, range: { start, end } }) => ({
    kind,
    frame: heldFrom(frame),
    range: { start: heldFrom(start), end: heldFrom(end) },
  }));
}

const hasLongShots = (plan: FilmPlan) =>
  held === 1 || truthOf(plan).every(({ frame }, i, all) => frame - (all[i - 1]?.frame ?? 0) >= PICTURES_OF_SHOT * held);

const percent = (share: number) => (100 * share).toFixed(2);

function summary(score: Score) {
  const ratio = (part: number, whole: number) => (whole === 0 ? 1 : part / whole);
  return {
    hardPrecision: ratio(score.hardFound, score.hardFound + score.hardFalse),
    hardRecall: ratio(score.hardFound, score.hard),
    hardF1: f1(score.hardFound, score.hardFalse, score.hard),
    hardExact: ratio(score.hardExact, score.hardFound),
    gradualPrecision: ratio(score.gradualFound, score.gradualFound + score.gradualFalse),
    gradualRecall: ratio(score.gradualFound, score.gradual),
    gradualF1: f1(score.gradualFound, score.gradualFalse, score.gradual),
    /** Mean intersection over union of the ranges of those found. */
    gradualOverlap: ratio(score.overlap, score.gradualFound),
    kindRight: ratio(score.kindRight, score.hardFound + score.gradualFound),
  };
}

const sets = new Map<string, Score>();
const parts = { tuned: { ...NO_SCORE }, apart: { ...NO_SCORE } };
const mistakes: (Mistake & { film: string })[] = [];
const films = await makeFilms((plan) => hasLongShots(plan) && (!values.set || plan.set === values.set));
for (const { plan, file } of films) {
  const { features } = await featuresOf(file);
  const shown = features.map((_, frame) => features[frame - (frame % held)]!);
  const found = decideTransitions(weighTransitions(shown, plan.rate));
  const { score, mistakes: wrong } = scoreFilm(found, truthHeld(plan));
  const part = plan.apart ? "apart" : "tuned";
  parts[part] = addScores(parts[part], score);
  sets.set(plan.set, addScores(sets.get(plan.set) ?? NO_SCORE, score));
  mistakes.push(...wrong.map((mistake) => ({ film: plan.name, ...mistake })));
  process.stderr.write(`\r${plan.name}: ${found.length} found        `);
}
process.stderr.write("\r");

console.table(
  Object.fromEntries(
    [...sets].map(([set, s]) => [
      set,
      {
        "hard cuts": s.hard,
        found: s.hardFound,
        exact: s.hardExact,
        false: s.hardFalse,
        gradual: s.gradual,
        "found ": s.gradualFound,
        "false ": s.gradualFalse,
      },
    ]),
  ),
);
console.table(
  Object.fromEntries(
    Object.entries(parts).map(([name, score]) => {
      const s = summary(score);
      return [
        name,
        {
          transitions: score.hard + score.gradual,
          "hard F1 %": percent(s.hardF1),
          "exact %": percent(s.hardExact),
          "gradual F1 %": percent(s.gradualF1),
          "overlap %": percent(s.gradualOverlap),
          "kind right %": percent(s.kindRight),
        },
      ];
    }),
  ),
);
for (const { film, what, kind, frame } of mistakes) console.log(`${film}: ${what} ${kind} at ${frame}`);

/** Time for features and decision as a share of the time for decoding alone, in turn, on the demo film. */
async function timing() {
  const file = "demo/ferrow-kite-day.mp4";
  const rounds = [];
  for (let round = 0; round < 3; round++) {
    const start = performance.now();
    spawnSync("ffmpeg", ["-v", "error", "-i", file, "-an", "-f", "null", "-"]);
    const decoding = performance.now() - start;
    const { features, featureMilliseconds } = await featuresOf(file);
    const before = performance.now();
    weighTransitions(features, (await probeFilm(file)).rate);
    const deciding = performance.now() - before;
    rounds.push({
      decoding,
      features: featureMilliseconds,
      deciding,
      share: (featureMilliseconds + deciding) / decoding,
    });
  }
  return rounds.sort((a, b) => a.share - b.share)[1]!;
}
const cost = await timing();
console.log(
  `demo film: decoding alone ${(cost.decoding / 1000).toFixed(1)} s, features ${(cost.features / 1000).toFixed(1)} s, ` +
    `decision ${(cost.deciding / 1000).toFixed(1)} s: ${percent(cost.share)} % of decoding`,
);
if (values.json) {
  const figures = {
    tuned: { ...parts.tuned, ...summary(parts.tuned) },
    apart: { ...parts.apart, ...summary(parts.apart) },
    sets: Object.fromEntries(sets),
    mistakes,
    cost,
  };
  writeFileSync(values.json, `${JSON.stringify(figures, null, 2)}\n`);
}
