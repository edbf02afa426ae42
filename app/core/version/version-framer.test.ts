import { expect, test } from "@jest/globals";
import { USUAL_LIMITS } from "../checks/check-settings";
import { TALL, TWO_SHOTS } from "../../../tests/support/film-state";
import { STACK } from "../composition/stack";
import { TrackStock } from "../subjects/tracking/track-stock";
import type { Track } from "../subjects/tracking/track";
import { applyEdit } from "../edits/apply";
import type { Command } from "../edits/command";
import type { FilmState } from "./film-state";
import { shotSettings } from "./shot-settings";
import { VersionFramer } from "./version-framer";

const face = (id: string, start: number, frames: number, x: number): Track => ({
  id,
  kind: "face",
  start,
  boxes: Array.from({ length: frames }, () => ({ x: x - 50, y: 300, width: 100, height: 100 })),
  confidence: 0.9,
});
const ANALYSED = [
  { start: 0, end: 100, tracks: [face("left", 0, 100, 400)] },
  { start: 100, end: 300, tracks: [face("right", 100, 200, 1500)] },
];

/** Two who speak in the first shot, further apart than the window is wide. */
const APART: Track[] = [
  { ...face("left", 0, 100, 300), speaking: [{ start: 0, end: 50 }] },
  { ...face("right", 0, 100, 1600), speaking: [{ start: 50, end: 100 }] },
];

class Bench {
  readonly stock = new TrackStock();
  readonly framer = new VersionFramer(
    { picture: TWO_SHOTS.film.picture, rate: { num: 30, den: 1 }, target: TALL, limits: USUAL_LIMITS },
    this.stock,
  );
  state: FilmState = TWO_SHOTS;

  constructor(readonly analysed = ANALYSED) {}

  take(): void {
    const { marks, trackEdits, people } = this.state;
    this.framer.take(shotSettings(this.state, this.state.versions[0]!), {
      opinions: { marks, trackEdits, people },
      analysed: this.analysed,
    });
  }
  edit(command: Command): void {
    this.state = applyEdit(this.state, command).state;
    this.take();
  }
  /** Frames all that is due; where each shot's window is in its middle. */
  run(first?: ReadonlySet<string>): [string, number][] {
    const framed: [string, number][] = [];
    for (let next = this.framer.next(first); next; next = this.framer.next(first)) {
      if ("error" in next) throw next.error;
      const { windows } = next.result.framed;
      framed.push([next.id, Math.round(windows[windows.length >> 1]!.x)]);
    }
    return framed;
  }
}

test("shots are framed once their tracks are there, those that are waited for first, and only once", () => {
  const bench = new Bench();
  bench.take();
  expect(bench.run()).toEqual([]);
  bench.stock.add(ANALYSED, []);
  bench.take();
  expect(bench.run(new Set(["two"])).map(([id]) => id)).toEqual(["two", "one"]);
  bench.take();
  expect(bench.run()).toEqual([]);
});

test("only what depends on a change is framed anew", () => {
  const bench = new Bench();
  bench.stock.add(ANALYSED, []);
  bench.take();
  bench.run();
  bench.edit({
    type: "set-key",
    versionId: "tall",
    key: { pane: 0, frame: 150, x: 1000, y: 540, height: 1080, easing: null },
  });
  expect(bench.run().map(([id]) => id)).toEqual(["two"]);
  bench.edit({ type: "set-framing", versionId: "tall", shotIds: ["one"], change: { follow: { kind: "none" } } });
  expect(bench.run()).toEqual([["one", 960]]);
});

test("at a switch the window goes on where the version follows the same on both sides", () => {
  const bench = new Bench();
  bench.stock.add(ANALYSED, []);
  bench.edit({ type: "split-shot", frame: 200, kind: "switch" });
  const results = new Map<string, { x: number }[]>();
  const run = () => {
    for (let next = bench.framer.next(); next; next = bench.framer.next()) {
      if ("result" in next) results.set(next.id, next.result.framed.windows);
    }
  };
  bench.edit({
    type: "set-key",
    versionId: "tall",
    key: { pane: 0, frame: 199, x: 1300, y: 540, height: 1080, easing: null },
  });
  run();
  expect(results.get("film.200")![0]!.x).toBeCloseTo(results.get("two")!.at(-1)!.x, 3);
  bench.edit({ type: "set-framing", versionId: "tall", shotIds: ["film.200"], change: { follow: { kind: "none" } } });
  run();
  expect(Math.abs(results.get("film.200")![0]!.x - results.get("two")!.at(-1)!.x)).toBeGreaterThan(100);
});

test("two who speak and do not fit are told, and no more where a stack shows both; its panes have flags of their own", () => {
  const gone = APART[1]!.boxes.map((box, i) => (i >= 40 && i < 80 ? null : box));
  const analysed = [{ start: 0, end: 100, tracks: [APART[0]!, { ...APART[1]!, boxes: gone }] }, ANALYSED[1]!];
  const bench = new Bench(analysed);
  bench.stock.add(analysed, []);
  bench.take();
  const flags = () => {
    for (let next = bench.framer.next(); next; next = bench.framer.next()) {
      if ("error" in next) throw next.error;
      if (next.id === "one") return next.result.flags.map(({ kind, pane, otherId }) => [kind, pane, otherId]);
    }
    return null;
  };
  expect(flags()).toContainEqual(["two-apart", undefined, "right"]);
  const panes = [{ follow: { kind: "track" as const, trackId: "right" } }];
  bench.edit({ type: "set-framing", versionId: "tall", shotIds: ["one"], change: { layout: STACK, panes } });
  const stacked = flags();
  expect(stacked).not.toContainEqual(["two-apart", undefined, "right"]);
  expect(stacked).toContainEqual(["subject-lost", 1, undefined]);
});
