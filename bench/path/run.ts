/**
 * Lays paths over made-up movements and over what the analysis finds in the demo films, and compares them with paths
 * that are simple to lay and with the exact optimum.
 *
 *   ./glad-pan bench path [--json OUT.json] [--plot OUT.png] [--quick]
 *
 * --quick leaves the films out
 */
import { writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { parseArgs } from "node:util";
import { centreBounds } from "~/core/geometry/crop-window";
import { median } from "~/core/numbers/median";
import { chooseMovement } from "~/core/path/choose-movement";
import { axisGoals } from "~/core/path/framing-goals";
import { USUAL_FRAMING } from "~/core/path/framing-settings";
import { MOVEMENT_WEIGHTS, type Movement } from "~/core/path/movement";
import { axisProgram, type AxisProblem, solveAxis } from "~/core/path/solve-axis";
import { solveShot } from "~/core/path/solve-shot";
import { framesPerSecond } from "~/core/time/rate";
import { referenceOptimum } from "../../tests/support/lp-reference";
import { filmCases, longCase, movementCases, type PathCase } from "./cases";
import { clampPath, measure, type PathFigures, windowWidth } from "./measure";
import { movingAverage, subjectMiddles } from "./naive";
import { plot, type Plotted } from "./plot";

const { values } = parseArgs({
  options: { json: { type: "string" }, plot: { type: "string" }, quick: { type: "boolean" } },
});
const TARGET = { width: 1080, height: 1920 };
const FILMS = ["demo/ferrow-kite-day.mp4", "demo/clips/two-shots.mp4", "demo/clips/runner-60.mp4"];
/** Seconds over which moving averages are taken, to choose from. */
const AVERAGES = [0.2, 0.4, 0.7, 1, 1.5, 2, 3];
/** Takes of so many seconds are laid, and those to which the general solver comes to an end within minutes compared. */
const TAKES = [10, 30, 60, 120, 240, 3600];
const LONGEST_REFERENCE = 240;
/** A solution takes the median time of so many, after as many that let the compiler do its work. */
const ROUNDS = 9;

function problemOf(of: PathCase, movement: Movement): AxisProblem {
  const count = of.shot.end - of.shot.start;
  const width = windowWidth(of);
  const [low, high] = centreBounds(of.picture.width, width);
  const fps = framesPerSecond(of.rate);
  const lengths = new Float64Array(count).fill(width);
  return {
    goals: axisGoals({ ...of, axis: "x", lengths, fps, headroom: 0, eyeLine: 0.33, offset: 0, protect: [] }),
    windowLength: width,
    bounds: [new Float64Array(count).fill(low), new Float64Array(count).fill(high)],
    fixed: new Map(),
    fps,
    weights: MOVEMENT_WEIGHTS[movement],
  };
}

/** What of the face could be kept inside at all under a movement's limits, if nothing else counted. */
function bound(of: PathCase): number {
  const problem = problemOf(of, "glide");
  const free = { travel: 0, acceleration: 0, jerk: 1e-6, away: 0, tie: 1e-3, bodyCut: 0 };
  const { positions } = solveAxis({ ...problem, weights: { ...problem.weights, ...free, cut: 1e3 } });
  return measure(positions, of).inside;
}

const solved = (of: PathCase, movement: Movement) =>
  solveShot({
    ...of,
    target: TARGET,
    settings: { ...USUAL_FRAMING, movement },
    handKeys: [],
    protect: null,
    texts: [],
  });

/** The smoothest moving average that keeps as much inside as another path, or else the one that keeps most. */
function bestAverage(of: PathCase, inside: number): Float64Array {
  const middles = subjectMiddles(of);
  const fps = framesPerSecond(of.rate);
  const averages = AVERAGES.map((seconds) => clampPath(movingAverage(middles, Math.round(seconds * fps)), of));
  const good = averages.filter((path) => measure(path, of).inside >= inside - 1e-9);
  return good.at(-1) ?? averages[0]!;
}

function millisecondsFor(problem: AxisProblem, rounds: number): number {
  const times = Array.from({ length: 2 * rounds }, () => {
    const started = performance.now();
    solveAxis(problem);
    return performance.now() - started;
  });
  return median(times.slice(rounds));
}

/** Our cost and how many times quicker it was found, beside the exact optimum by a general solver. */
async function compareWithReference(problem: AxisProblem): Promise<{ cost: number; timesQuicker: number }> {
  const exact = await referenceOptimum(axisProgram(problem));
  return {
    cost: solveAxis(problem).solution.objective / Math.max(1e-9, exact.objective),
    timesQuicker: exact.milliseconds / millisecondsFor(problem, ROUNDS),
  };
}

interface Outcome {
  name: string;
  chosen: Movement;
  bound: number;
  seconds: number;
  keys: number;
  lostByKeys: number;
  figures: Record<"glide" | "dense" | "centre" | "raw" | "average", PathFigures>;
  reference: { cost: number; timesQuicker: number };
}

const plotted: Plotted[] = [];

async function tryOut(of: PathCase): Promise<Outcome> {
  const { keys, windows } = solved(of, "glide");
  const path = Float64Array.from(windows, ({ x }) => x);
  const problem = problemOf(of, "glide");
  const { positions } = solveAxis(problem);
  const glide = measure(path, of);
  const dense = measure(positions, of);
  const average = bestAverage(of, glide.inside);
  const count = of.shot.end - of.shot.start;
  plotted.push({ of, path, average, keys });
  return {
    name: of.name,
    chosen: chooseMovement(of.subject, of.shot, windowWidth(of), framesPerSecond(of.rate)).movement,
    bound: bound(of),
    seconds: count / framesPerSecond(of.rate),
    keys: keys.length,
    lostByKeys: dense.inside - glide.inside,
    figures: {
      glide,
      dense,
      centre: measure(new Float64Array(count).fill(of.picture.width / 2), of),
      raw: measure(clampPath(subjectMiddles(of), of), of),
      average: measure(average, of),
    },
    reference: await compareWithReference(problem),
  };
}

const cases = [...movementCases(), ...(values.quick ? [] : filmCases(FILMS, join(tmpdir(), "glad-pan-bench-path")))];
const outcomes: Outcome[] = [];
for (const of of cases) {
  process.stderr.write(`\r${of.name}                    `);
  outcomes.push(await tryOut(of));
}
process.stderr.write("\r");

const percent = (value: number) => (100 * value).toFixed(1);
console.table(
  Object.fromEntries(
    outcomes.map(({ name, chosen, bound: most, keys, figures, reference }) => [
      name,
      {
        chosen,
        "inside %": percent(figures.glide.inside),
        "possible %": percent(most),
        "centre %": percent(figures.centre.inside),
        "average %": percent(figures.average.inside),
        off: figures.glide.off.toFixed(3),
        "speed mean/top": `${figures.glide.speed.toFixed(2)} / ${figures.glide.topSpeed.toFixed(2)}`,
        moves: figures.glide.moves,
        "jerk / average's": (figures.glide.jerk / Math.max(1e-9, figures.average.jerk)).toFixed(3),
        keys,
        "cost / optimum": reference.cost.toFixed(4),
        "times quicker": Math.round(reference.timesQuicker),
      },
    ]),
  ),
);

const mean = (numbers: number[]) => numbers.reduce((a, b) => a + b, 0) / Math.max(1, numbers.length);
const PATHS = { ours: "glide", "centre crop": "centre", "raw follow": "raw", "moving average": "average" } as const;
console.table(
  Object.fromEntries(
    Object.entries(PATHS).map(([name, path]) => {
      const all = outcomes.map(({ figures }) => figures[path]);
      const share = (of: "inside" | "wholeInside") => percent(mean(all.map((figures) => figures[of])));
      const overall = (of: Exclude<keyof PathFigures, "inside" | "wholeInside">) =>
        mean(all.map((figures) => figures[of])).toFixed(2);
      return [
        name,
        {
          "face inside %": share("inside"),
          "whole inside %": share("wholeInside"),
          off: overall("off"),
          speed: overall("speed"),
          "top speed": overall("topSpeed"),
          jerk: overall("jerk"),
          "top jerk": overall("topJerk"),
          moves: overall("moves"),
        },
      ];
    }),
  ),
);
const moving = outcomes.filter(({ chosen }) => chosen !== "still");
const summary = {
  insideOfPossible: mean(
    outcomes.map(({ figures, bound: most }) => (most > 0 ? Math.min(1, figures.glide.inside / most) : 1)),
  ),
  insideAverage: mean(outcomes.map(({ figures }) => figures.average.inside)),
  insideCentre: mean(outcomes.map(({ figures }) => figures.centre.inside)),
  jerkBesideAverage: median(moving.map(({ figures }) => figures.glide.jerk / Math.max(1e-9, figures.average.jerk))),
  keysPer10Seconds: median(moving.map(({ keys, seconds }) => (10 * keys) / seconds)),
  mostKeysWhereItSits: Math.max(0, ...outcomes.filter(({ chosen }) => chosen === "still").map(({ keys }) => keys)),
  lostByKeys: mean(outcomes.map(({ lostByKeys }) => lostByKeys)),
  mostLostByKeys: Math.max(...outcomes.map(({ lostByKeys }) => lostByKeys)),
  worstCost: Math.max(...outcomes.map(({ reference }) => reference.cost)),
  timesQuicker: median(outcomes.map(({ reference }) => reference.timesQuicker)),
};
console.table(summary);

const takes: { seconds: number; frames: number; milliseconds: number; cost?: number; timesQuicker?: number }[] = [];
for (const seconds of values.quick ? [] : TAKES) {
  process.stderr.write(`\ra take of ${seconds} s        `);
  const problem = problemOf(longCase(seconds), "glide");
  const milliseconds = millisecondsFor(problem, seconds > LONGEST_REFERENCE ? 1 : ROUNDS);
  const reference = seconds > LONGEST_REFERENCE ? {} : await compareWithReference(problem);
  takes.push({ seconds, frames: problem.goals.wanted.length, milliseconds, ...reference });
}
process.stderr.write("\r");
console.table(takes);
if (values.plot) plot(plotted, values.plot);
if (values.json) writeFileSync(values.json, `${JSON.stringify({ summary, takes, outcomes }, null, 2)}\n`);
