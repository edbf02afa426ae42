/** Which mutants of the code are tried: so many of all there are, drawn by a seed. */
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { Instrumenter } from "@stryker-mutator/instrumenter";
import { seeded } from "../../demo/film/random";

/** A change of the code that a test should notice. */
export interface Mutant {
  fileName: string;
  mutatorName: string;
  replacement: string;
  /** Lines and columns from 0. */
  location: { start: Place; end: Place };
}
interface Place {
  line: number;
  column: number;
}

const FOLDERS = ["app/core", "app/db"];
const NOT_MUTATED = /\.(test|as)\.ts$|kernel-code\.ts$|^app\/db\/migrations\//;

const silent = () => {};
const LOGGER = {
  isTraceEnabled: () => false,
  isDebugEnabled: () => false,
  isInfoEnabled: () => false,
  isWarnEnabled: () => false,
  isErrorEnabled: () => true,
  isFatalEnabled: () => true,
  trace: silent,
  debug: silent,
  info: silent,
  warn: silent,
  error: console.error,
  fatal: console.error,
};

/** All mutants that there are. */
async function mutantsOf(files: readonly string[]): Promise<Mutant[]> {
  const sources = files.map((name) => ({ name, mutate: true, content: readFileSync(name, "utf8") }));
  const options = { plugins: null, excludedMutations: [], ignorers: [] };
  return (await new Instrumenter(LOGGER).instrument(sources, options)).mutants;
}

/** @param within the beginning of the names of the files that are looked at */
export async function drawMutants(count: number, seed: number, within: string): Promise<Mutant[]> {
  const names = FOLDERS.flatMap((folder) =>
    readdirSync(folder, { recursive: true }).map((name) => join(folder, String(name))),
  );
  const files = names.filter((name) => name.endsWith(".ts") && !NOT_MUTATED.test(name) && name.startsWith(within));
  const all = await mutantsOf(files.sort());
  const random = seeded(seed);
  // The first of a shuffled row, after Fisher and Yates.
  for (let i = 0; i < Math.min(count, all.length); i++) {
    const j = i + Math.floor(random() * (all.length - i));
    [all[i], all[j]] = [all[j]!, all[i]!];
  }
  return all.slice(0, count);
}
