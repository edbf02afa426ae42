import { expect, test } from "@jest/globals";
import { framingOf } from "../../../tests/support/shot-framing";
import type { Track } from "../subjects/tracking/track";
import { USUAL_FRAMING } from "./framing-settings";
import type { ShotFraming } from "./shot-framing";
import { VersionPaths } from "./version-paths";

const PICTURE = { width: 1920, height: 1080 };
const TALL = { width: 1080, height: 1920 };
const face = (start: number, x: number, who?: string): Track => ({
  id: `face-${start}`,
  kind: "face",
  start,
  confidence: 0.9,
  who,
  boxes: Array.from({ length: 40 }, () => ({ x: x - 60, y: 300, width: 120, height: 120 })),
});
const framing = (start: number, x: number, more: Partial<ShotFraming> = {}): ShotFraming =>
  framingOf({ start, end: start + 40 }, { tracks: [face(start, x)], ...more });
const open = () => new VersionPaths(PICTURE, TALL, { num: 25, den: 1 });
function solveAll(paths: VersionPaths, first?: ReadonlySet<string>) {
  const solved: [string, number | "error"][] = [];
  for (let next = paths.solveNext(first); next; next = paths.solveNext(first)) {
    solved.push([next.id, "error" in next ? "error" : Math.round(next.framed.windows[0]!.x)]);
  }
  return solved;
}

test("a shot is solved once, and again only when it is given another framing", () => {
  const paths = open();
  const shots = Array.from({ length: 12 }, (_, i) => ({ id: `s${i}`, framing: framing(40 * i, 500 + 50 * i) }));
  paths.take(shots);
  expect(solveAll(paths, new Set(["s7"]))[0]![0]).toBe("s7");
  paths.take(shots);
  expect(solveAll(paths)).toEqual([]);
  const changed = shots.map((shot) => (shot.id === "s3" ? { ...shot, framing: framing(120, 1200) } : shot));
  paths.take(changed);
  expect(solveAll(paths)).toEqual([["s3", 1200]]);
});

test("a window that goes on waits for the path before it, and follows when that changes", () => {
  const paths = open();
  const after = { id: "after", framing: framing(40, 1300, { carry: true }) };
  paths.take([{ id: "before", framing: framing(0, 500) }, after]);
  expect(solveAll(paths, new Set(["after"]))).toEqual([
    ["before", 500],
    ["after", 500],
  ]);
  paths.take([{ id: "before", framing: framing(0, 700) }, after]);
  expect(solveAll(paths)).toEqual([
    ["before", 700],
    ["after", 700],
  ]);
});

test("a shot that is not known yet is left out, and the others are solved", () => {
  const paths = open();
  const known = { id: "known", framing: framing(40, 900) };
  paths.take([{ id: "unknown", framing: null }, known]);
  expect(solveAll(paths)).toEqual([["known", 900]]);
  paths.take([{ id: "unknown", framing: framing(0, 600) }, known]);
  expect(solveAll(paths)[0]).toEqual(["unknown", 600]);
});

test("a shot that cannot be solved says so once, and keeps nobody from the others", () => {
  const paths = open();
  const broken = framing(0, 500, { settings: { ...USUAL_FRAMING, movement: "wild" as "still" } });
  paths.take([
    { id: "broken", framing: broken },
    { id: "sound", framing: framing(40, 900, { carry: true }) },
  ]);
  const solved = solveAll(paths);
  expect(solved.map(([id]) => id)).toEqual(["broken", "sound"]);
  expect(solved[0]![1]).toBe("error");
});
