/**
 * Changes the code in so many places, one at a time, and looks whether a test notices. Prints which changes none did.
 *
 *   npm run mutants -- [--count 600] [--seed 1] [--within app/core/captions]
 */
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { availableParallelism, tmpdir } from "node:os";
import { join } from "node:path";
import { parseArgs } from "node:util";
import { Stryker } from "@stryker-mutator/core";
import { drawMutants, type Mutant } from "./sample";
import { mutantKey } from "./sample-checker.js";

const { values } = parseArgs({
  options: {
    count: { type: "string", default: "600" },
    seed: { type: "string", default: "1" },
    within: { type: "string", default: "app/" },
  },
});
const drawn = await drawMutants(Number(values.count), Number(values.seed), values.within);

/** A mutant's place as Stryker is told it. */
const rangeOf = ({ fileName, location: { start, end } }: Mutant): string =>
  `${fileName}:${start.line + 1}:${start.column}-${end.line + 1}:${end.column}`;

const folder = mkdtempSync(join(tmpdir(), "glad-pan-mutants-"));
process.env.GLAD_PAN_MUTANTS = join(folder, "drawn.json");
writeFileSync(process.env.GLAD_PAN_MUTANTS, JSON.stringify(drawn.map(mutantKey)));
const stryker = new Stryker({
  mutate: [...new Set(drawn.map(rangeOf))],
  plugins: ["@stryker-mutator/vitest-runner", "./tools/mutants/sample-checker.js"],
  testRunner: "vitest",
  vitest: { configFile: "tools/mutants/vitest.config.ts" },
  checkers: ["sample"],
  coverageAnalysis: "perTest",
  concurrency: availableParallelism(),
  reporters: ["progress-append-only"],
  tempDirName: join(folder, "sandbox"),
  ignorePatterns: ["/build", "/data", "/test-data", "/test-results", "/docs/screenshots", "/bench"],
  // The first run of all tests measures which of them go through which code.
  dryRunTimeoutMinutes: 30,
  timeoutMS: 15_000,
  allowConsoleColors: false,
});
try {
  const results = (await stryker.runMutationTest()).filter(({ status }) => status !== "CompileError");
  const noticed = results.filter(({ status }) => status === "Killed" || status === "Timeout").length;
  for (const { fileName, location, mutatorName, replacement, status } of results) {
    if (status === "Killed" || status === "Timeout") continue;
    const file = fileName.slice(fileName.lastIndexOf("app/"));
    console.log(`${file}:${location.start.line}  ${status}  ${mutatorName}: ${replacement.slice(0, 80)}`);
  }
  const share = ((100 * noticed) / results.length).toFixed(1);
  console.log(`${noticed} of ${results.length} changes noticed (${share} %), seed ${values.seed}`);
} finally {
  rmSync(folder, { recursive: true, force: true });
}
