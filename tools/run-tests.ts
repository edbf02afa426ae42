/**
 * Runs every kind of test in two lanes beside each other, and prints which files took longest. `./glad-pan test` comes here
 * when all that is needed is installed and built.
 *
 *   node --import tsx tools/run-tests.ts [all]
 */
import { spawn } from "node:child_process";
import { existsSync, mkdirSync, readFileSync, rmSync } from "node:fs";
import { join, relative } from "node:path";

const FOLDER = "test-results";
const SLOWEST = 10;

interface Step {
  name: string;
  command: readonly string[];
  /** Reads what the step has written of its tests; left out where it has none. */
  results?: () => FileResult[];
}

/** What became of the tests of one file. */
interface FileResult {
  file: string;
  seconds: number;
  passed: number;
  failed: number;
  skipped: number;
}

const readJson = (name: string): unknown => JSON.parse(readFileSync(join(FOLDER, name), "utf8"));

interface JestReport {
  testResults: { name: string; startTime: number; endTime: number; assertionResults: { status: string }[] }[];
}
function jestResults(name: string): FileResult[] {
  return (readJson(name) as JestReport).testResults.map(({ name: file, startTime, endTime, assertionResults }) => {
    const count = (...states: string[]) => assertionResults.filter(({ status }) => states.includes(status)).length;
    return {
      file: relative(process.cwd(), file),
      seconds: (endTime - startTime) / 1000,
      // A file that cannot be loaded has no tests, and has failed all the same.
      passed: count("passed"),
      failed: assertionResults.length === 0 ? 1 : count("failed"),
      skipped: count("pending", "todo", "skipped"),
    };
  });
}

interface PlaywrightSuite {
  file: string;
  specs: { tests: { status: "expected" | "unexpected" | "flaky" | "skipped"; results: { duration: number }[] }[] }[];
  suites?: PlaywrightSuite[];
}
function playwrightResults(name: string): FileResult[] {
  const testsIn = (suite: PlaywrightSuite): PlaywrightSuite["specs"][number]["tests"] => [
    ...suite.specs.flatMap(({ tests }) => tests),
    ...(suite.suites ?? []).flatMap(testsIn),
  ];
  return (readJson(name) as { suites: PlaywrightSuite[] }).suites.map((suite) => {
    const tests = testsIn(suite);
    const count = (...states: string[]) => tests.filter(({ status }) => states.includes(status)).length;
    const milliseconds = tests.flatMap(({ results }) => results).reduce((sum, { duration }) => sum + duration, 0);
    return {
      file: join("tests", suite.file),
      seconds: milliseconds / 1000,
      passed: count("expected", "flaky"),
      failed: count("unexpected"),
      skipped: count("skipped"),
    };
  });
}

const jest = (name: string, ...args: string[]): Step => ({
  name,
  command: ["npm", "test", "--silent", "--", "--json", `--outputFile=${join(FOLDER, `${name}.json`)}`, ...args],
  results: () => jestResults(`${name}.json`),
});
/** What a project of Playwright needs was prepared by an earlier step. */
const playwright = (project: string): Step => ({
  name: project,
  command: [
    "env",
    `PLAYWRIGHT_JSON_OUTPUT_NAME=${join(FOLDER, `${project}.json`)}`,
    ...["npx", "playwright", "test", `--project=${project}`, "--no-deps", "--reporter=list,json"],
    `--output=${join(FOLDER, project)}`,
  ],
  results: () => playwrightResults(`${project}.json`),
});

/** Lanes run beside each other, the steps of a lane one after the other. The browser takes about one core of two. */
const LANES: Step[][] = [
  [
    { name: "lint", command: ["npm", "run", "--silent", "lint"] },
    { name: "types", command: ["npm", "run", "--silent", "typecheck"] },
    jest("unit"),
    playwright("hostile"),
  ],
  [playwright("prepare"), playwright("e2e")],
];

const say = (text: string) => console.log(`glad-pan: ${text}`);

/** Runs a step; its output is shown if it fails, when it has ended, so that those of two lanes do not mix. */
async function run({ name, command: [program, ...args] }: Step): Promise<boolean> {
  const began = Date.now();
  let output = "";
  const child = spawn(program!, args, { stdio: ["ignore", "pipe", "pipe"] });
  for (const stream of [child.stdout, child.stderr]) stream.setEncoding("utf8").on("data", (text) => (output += text));
  const code = await new Promise<number | null>((resolve) => child.once("close", resolve));
  const took = `${((Date.now() - began) / 1000).toFixed(0)} s`;
  if (code !== 0) console.log(output);
  say(code === 0 ? `${name}: ${took}` : `${name} failed after ${took}`);
  return code === 0;
}

/** Runs the steps of a lane up to the first that fails. */
async function runLane(steps: readonly Step[], files: FileResult[]): Promise<boolean> {
  for (const step of steps) {
    const isGood = await run(step);
    // One that ended before it could write down its results has failed all the same.
    if (isGood || existsSync(join(FOLDER, `${step.name}.json`))) files.push(...(step.results?.() ?? []));
    if (!isGood) return false;
  }
  return true;
}

if (process.argv[2] === "all") process.env.GLAD_PAN_TESTS = "all";
rmSync(FOLDER, { recursive: true, force: true });
mkdirSync(FOLDER, { recursive: true });
const began = Date.now();
const files: FileResult[] = [];
const passed = (await Promise.all(LANES.map((lane) => runLane(lane, files)))).every(Boolean);

const sum = (of: (file: FileResult) => number) => files.reduce((total, file) => total + of(file), 0);
console.log(`\nThe ${SLOWEST} slowest files, in seconds:`);
for (const { file, seconds } of files.toSorted((a, b) => b.seconds - a.seconds).slice(0, SLOWEST)) {
  console.log(`${seconds.toFixed(1).padStart(7)}  ${file}`);
}
say(`${((Date.now() - began) / 60_000).toFixed(1)} minutes`);
const counted = { passed: sum((file) => file.passed), failed: sum((file) => file.failed) };
console.log(`${counted.passed} passed, ${counted.failed} failed, ${sum((file) => file.skipped)} skipped`);
process.exitCode = passed ? 0 : 1;
