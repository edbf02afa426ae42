/** A plugin of Stryker's that leaves only the mutants which were drawn: others lie within the same stretches of code. */
import { readFileSync } from "node:fs";
import { declareClassPlugin, PluginKind } from "@stryker-mutator/api/plugin";

/** What tells a mutant from all others, in whichever folder its file is. */
export const mutantKey = ({ fileName, mutatorName, replacement, location: { start, end } }) =>
  [
    fileName.slice(fileName.lastIndexOf("app/")),
    mutatorName,
    replacement,
    start.line,
    start.column,
    end.line,
    end.column,
  ].join("|");

class SampleChecker {
  async init() {
    this.drawn = new Set(JSON.parse(readFileSync(process.env.GLAD_PAN_MUTANTS, "utf8")));
  }

  group(mutants) {
    return [mutants.map(({ id }) => id)];
  }

  async check(mutants) {
    const answer = (mutant) =>
      this.drawn.has(mutantKey(mutant)) ? { status: "passed" } : { status: "compileError", reason: "was not drawn" };
    return Object.fromEntries(mutants.map((mutant) => [mutant.id, answer(mutant)]));
  }
}

export const strykerPlugins = [declareClassPlugin(PluginKind.Checker, "sample", SampleChecker)];
