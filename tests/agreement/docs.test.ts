/** What the pages for developers name is there: files, commands, scripts, benchmarks. */
import { existsSync, readdirSync, readFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { expect, test } from "@jest/globals";

const PAGES = [
  ...["README.md", "CONTRIBUTING.md", "CHANGELOG.md"],
  ...readdirSync("docs")
    .filter((name) => name.endsWith(".md"))
    .map((name) => join("docs", name)),
];
const script = readFileSync("glad-pan", "utf8");
const { scripts } = JSON.parse(readFileSync("package.json", "utf8")) as { scripts: Record<string, string> };

/** The words of a case of the script: "bars | cuts) …". */
const cases = new Set(
  [...script.matchAll(/^ +([a-z-]+(?: \| [a-z-]+)*)\)/gm)].flatMap(([, words]) => words!.split(" | ")),
);

test.each(PAGES)("%s names what there is", (page) => {
  const text = readFileSync(page, "utf8");
  const all = (pattern: RegExp) => [...text.matchAll(pattern)].map(([, found]) => found!);

  const paths = all(/`((?:app|bench|cli|demo|docs|models|server|tests|tools)\/[\w./-]*)`/g);
  expect(paths.filter((path) => !existsSync(path))).toEqual([]);

  const links = all(/\]\(([^)#:]+)(?:#[^)]*)?\)/g);
  expect(links.filter((link) => !existsSync(join(dirname(page), link)))).toEqual([]);

  const commands = all(/\.\/glad-pan ([a-z-]+)/g);
  expect(commands.filter((command) => !cases.has(command))).toEqual([]);
  const benches = all(/\.\/glad-pan bench ([a-z-]+)/g);
  expect(benches.filter((bench) => !cases.has(bench))).toEqual([]);

  const ran = all(/npm run ([a-z0-9:]+)/g);
  expect(ran.filter((name) => !(name in scripts))).toEqual([]);
});

test("every benchmark is in CONTRIBUTING", () => {
  const page = readFileSync("CONTRIBUTING.md", "utf8");
  const [, listed] = /the benchmarks are: ([a-z, -]+)/.exec(script)!;
  const names = listed!.split(", ");
  expect(names.length).toBeGreaterThan(5);
  expect(names.filter((name) => !page.includes(`./glad-pan bench ${name}`))).toEqual([]);
  expect(names.filter((name) => !cases.has(name))).toEqual([]);
});

test("the architecture page's table names functions where they are", () => {
  const page = readFileSync("docs/architecture.md", "utf8");
  const rows = [...page.matchAll(/`(\w+)` in `(app\/[\w./-]+\.ts)`/g)];
  expect(rows.length).toBeGreaterThan(5);
  for (const [, name, file] of rows) {
    expect([file, readFileSync(file!, "utf8")]).toEqual([
      file,
      expect.stringMatching(new RegExp(`export (?:async )?(?:const|function|class|type|interface) ${name!}\\b`)),
    ]);
  }
});
