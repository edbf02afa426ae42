import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  utimesSync,
  writeFileSync,
} from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { compose } from "~/core/composition/composition";
import { layOut } from "~/core/composition/layout";
import { USUAL_OUTPUT } from "~/core/formats/output-settings";
import { wholeOf } from "~/core/geometry/box";
import { USUAL_FRAMING } from "~/core/path/framing-settings";
import { FrameMaker } from "../frame-maker.server";
import { NOTHING_OWN } from "../own/load-pictures.server";
import { probeFilm } from "../probe.server";
import { digestOf, forgetParts, makeParts, partsOf, writePartList } from "./parts.server";
import { type Output, outputOf, type RenderPlan } from "./plan";

const RATE = { num: 10, den: 1 };
/** Frames of the film from one up to another. */
const frames = (...ranges: [number, number][]) =>
  ranges.flatMap(([from, to]) => Array.from({ length: to - from }, (_, i) => ({ frame: from + i })));
const borders = (cuts: number[], ...ranges: [number, number][]) =>
  partsOf({ cuts }, { rate: RATE, frames: frames(...ranges) }).map(({ from, to }) => [from, to]);

describe("the parts of a render", () => {
  test("end at cuts, but last two seconds at least", () => {
    expect(borders([], [0, 50])).toEqual([[0, 50]]);
    expect(borders([20, 30, 45], [0, 100])).toEqual([
      [0, 20],
      [20, 45],
      [45, 100],
    ]);
    expect(borders([19, 39], [0, 60])).toEqual([
      [0, 39],
      [39, 60],
    ]);
  });

  test("end after twenty seconds in a long shot", () => {
    expect(borders([], [0, 450])).toEqual([
      [0, 200],
      [200, 400],
      [400, 450],
    ]);
  });

  test("end where something is left out of the film, and are counted in what is written", () => {
    expect(borders([], [0, 25], [60, 100])).toEqual([
      [0, 25],
      [25, 65],
    ]);
    expect(borders([80], [0, 25], [60, 100])).toEqual([
      [0, 25],
      [25, 45],
      [45, 65],
    ]);
  });

  test("do not end between two copies of one frame", () => {
    const twice = frames([0, 30]).flatMap((frame) => [frame, frame]);
    expect(partsOf({ cuts: [15] }, { rate: RATE, frames: twice })).toEqual([
      { from: 0, to: 30 },
      { from: 30, to: 60 },
    ]);
  });
});

describe("what was rendered already", () => {
  const FILM = "tests/fixtures/two-shots.mp4";
  const TARGET = { width: 90, height: 160 };
  let folder = "";
  let plan: RenderPlan;
  let output: Output;
  let maker: FrameMaker;
  /** The window stands left up to a frame, and right from there on. */
  const shownFrom = (turn: number): RenderPlan["shown"] => {
    const laid = layOut(USUAL_FRAMING, wholeOf(plan.info.picture), TARGET);
    return (frame) => compose([{ x: frame < turn ? 80 : 240, y: 90, height: 180 }], laid, TARGET);
  };
  const make = (changed: Partial<RenderPlan> = {}, more: Partial<Parameters<typeof makeParts>[3]> = {}) =>
    makeParts({ ...plan, ...changed }, output, maker, { folder, film: "film", onProgress: () => {}, ...more });

  beforeAll(async () => {
    folder = join(mkdtempSync(join(tmpdir(), "glad-pan-parts-")), "parts");
    const info = await probeFilm(FILM);
    plan = {
      file: FILM,
      name: "two-shots.mp4",
      info,
      target: TARGET,
      output: USUAL_OUTPUT,
      ranges: [{ start: 0, end: info.frames }],
      cuts: [60],
      shown: () => [] as never,
    };
    plan.shown = shownFrom(60);
    output = outputOf(plan);
    maker = await FrameMaker.open(info.picture, TARGET, NOTHING_OWN, output.depth);
  });
  afterAll(async () => {
    await maker.close();
    rmSync(join(folder, ".."), { recursive: true });
  });

  test("is used again; only the parts whose picture has changed are made", async () => {
    const done: number[] = [];
    const first = await make({}, { onProgress: (count) => done.push(count) });
    expect([first.made, first.files.length]).toEqual([first.files.length, 2]);
    expect(first.files.reduce((sum, part) => sum + part.frames, 0)).toBe(output.frames.length);
    expect(done.at(0)).toBe(0);
    expect(done.at(-1)).toBe(output.frames.length);
    expect(await make()).toEqual({ files: first.files, made: 0 });
    const later = await make({ shown: shownFrom(output.frames.length - 1) });
    expect([later.made, later.files[0]]).toEqual([1, first.files[0]]);
    expect(readdirSync(folder)).toHaveLength(3);
  });

  test("is another for another film, size, rate or quality", () => {
    const some = output.frames.slice(0, 3);
    const digests = [
      digestOf(plan, output, some, "film"),
      digestOf(plan, output, some, "another"),
      digestOf({ ...plan, target: { width: 92, height: 160 } }, output, some, "film"),
      digestOf(plan, { ...output, rate: RATE }, some, "film"),
      digestOf({ ...plan, output: { ...USUAL_OUTPUT, quality: 1 } }, output, some, "film"),
      digestOf(plan, output, output.frames.slice(0, 4), "film"),
    ];
    expect(new Set(digests).size).toBe(digests.length);
    expect(digestOf({ ...plan }, { ...output }, [...some], "film")).toBe(digests[0]);
  });

  test("is made in shares", async () => {
    const apart = join(folder, "../shares");
    const second = await make({}, { folder: apart, only: (place) => place === 1 });
    expect([second.made, existsSync(second.files[0]!.file), existsSync(second.files[1]!.file)]).toEqual([
      1,
      false,
      true,
    ]);
    expect(await make({}, { folder: apart })).toMatchObject({ made: 1 });
  });

  test("leaves no half part when it is stopped", async () => {
    const apart = join(folder, "../stopped");
    const controller = new AbortController();
    const onProgress = (count: number) => count > 10 && controller.abort();
    await expect(make({}, { folder: apart, signal: controller.signal, onProgress })).rejects.toThrow("cancelled");
    expect(readdirSync(apart)).toEqual([]);
  });

  test("is forgotten when it was not used for long; a part that is being made is left alone", async () => {
    const old = join(folder, "../old");
    mkdirSync(old);
    const now = 1_000_000_000_000;
    const put = (name: string, age: number) => {
      writeFileSync(join(old, name), "x");
      utimesSync(join(old, name), (now - age) / 1000, (now - age) / 1000);
    };
    put("new.nut", 1000);
    put("old.nut", 60_000);
    await forgetParts(old, 60_000, now);
    expect(readdirSync(old).sort()).toEqual(["new.nut", "old.nut"]);
    await forgetParts(old, 59_999, now);
    expect(readdirSync(old)).toEqual(["new.nut"]);
    await forgetParts(join(old, "missing"), 1, now);
  });
});

test("a list of parts names each file from the root on, whatever is in its name, with how long it lasts", async () => {
  const folder = mkdtempSync(join(tmpdir(), "glad-pan-list-"));
  const list = join(folder, "list");
  await writePartList(
    list,
    [
      { file: "/films/Ada's kite.nut", frames: 30 },
      { file: "/b.nut", frames: 1 },
    ],
    {
      rate: { num: 30_000, den: 1001 },
    },
  );
  expect(readFileSync(list, "utf8")).toBe(
    "ffconcat version 1.0\nfile '/films/Ada'\\''s kite.nut'\nduration 1.001000000\nfile '/b.nut'\nduration 0.033366667\n",
  );
  rmSync(folder, { recursive: true });
});
