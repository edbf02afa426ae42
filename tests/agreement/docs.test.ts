/** What the docs name is there: files, commands, scripts, benchmarks, texts of the interface; examples of files are read. */
import { existsSync, readdirSync, readFileSync } from "node:fs";
import { dirname, join, resolve } from "node:path";
import { expect, test } from "@jest/globals";
import { z } from "zod";
import { FlagList } from "~/core/formats/flags";
import { LayersFile } from "~/core/formats/layers";
import { Project } from "~/core/formats/project";
import { AnalysisReport, Report } from "~/core/formats/report";

const PAGES = [
  "README.md",
  "CONTRIBUTING.md",
  "CHANGELOG.md",
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

/** Every text of the interface, and the code of those that are made of figures, as one. */
async function textsOfInterface(): Promise<string> {
  const flat = (value: unknown): string[] => {
    if (typeof value === "object" && value !== null) return Object.values(value).flatMap(flat);
    return [String(value)];
  };
  const files = readdirSync("app/texts").filter((name) => !name.endsWith(".test.ts"));
  const modules = await Promise.all(files.map((name) => import(resolve("app/texts", name))));
  return modules.flatMap(flat).join("\n");
}

test.each(["README.md", "docs/handbook.md", "docs/troubleshooting.md"])(
  "%s quotes what the interface says",
  async (page) => {
    const prose = readFileSync(page, "utf8").replaceAll(/```[\s\S]*?```|`[^`]*`|^ {4}.*$/gm, "");
    const quoted = [...prose.matchAll(/["“]([^"“”]+)["”]/g)].map(([, text]) => text!.replaceAll(/\s+/g, " "));
    const texts = await textsOfInterface();
    expect(quoted.filter((text) => !texts.includes(text))).toEqual([]);
  },
);

const FORMATS: Readonly<Record<string, z.ZodType>> = { Report, AnalysisReport, FlagList, Project, LayersFile };

/** The schema of a part of a document: "Report.shots[].keys[]". */
function schemaAt(path: string): z.ZodType {
  const bare = (schema: z.ZodType): z.ZodType =>
    schema instanceof z.ZodOptional || schema instanceof z.ZodNullable || schema instanceof z.ZodDefault
      ? bare(schema.unwrap() as z.ZodType)
      : schema;
  const [format, ...steps] = path.replaceAll("[]", ".[]").split(".");
  return steps.reduce((schema, step) => {
    const inside = bare(schema);
    if (step === "[]") return (inside as z.ZodArray<z.ZodType>).element;
    return (inside as z.ZodObject<Record<string, z.ZodType>>).shape[step]!;
  }, FORMATS[format!]!);
}

test("every example of a file is one that is read", () => {
  const page = readFileSync("docs/formats.md", "utf8");
  const examples = [...page.matchAll(/```json (\S+)\n([\s\S]*?)```/g)];
  expect(examples.length).toBeGreaterThan(15);
  for (const [, path, text] of examples) {
    const parsed = schemaAt(path!).safeParse(JSON.parse(text!));
    expect([path, parsed.error?.issues]).toEqual([path, undefined]);
  }
});
