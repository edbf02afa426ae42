import { describe, expect, test } from "@jest/globals";
import { carveShots, type FoundShot } from "./found-shots";
import { freshShot } from "./shot";
import { hardTransition } from "./transition";

const WHOLE = freshShot("f.0", { start: 0, end: 1000 }, null);
const found = (start: number, end: number, kind: "cut" | "jump" = "cut"): FoundShot => ({
  range: { start, end },
  begins: start === 0 ? null : hardTransition(start, kind),
  active: null,
});
const carve = (shots: Parameters<typeof carveShots>[0], ...shotsFound: FoundShot[]) =>
  carveShots(shots, shotsFound, (start) => `f.${start}`);
const ranges = (shots: readonly { start: number; end: number }[]) => shots.map(({ start, end }) => [start, end]);

describe("shots that are found", () => {
  test("are cut out of what was one shot until then, and the rest waits", () => {
    const first = carve([WHOLE], found(0, 300), found(300, 420, "jump"));
    expect(ranges(first.shots)).toEqual([
      [0, 300],
      [300, 420],
      [420, 1000],
    ]);
    expect(first.shots.map(({ id, begins, carry }) => [id, begins, carry])).toEqual([
      ["f.0", "cut", false],
      ["f.300", "jump", true],
      ["f.420", "cut", false],
    ]);
    expect([...first.partOf]).toEqual([
      ["f.300", "f.0"],
      ["f.420", "f.0"],
    ]);
    const second = carve(first.shots, found(420, 1000, "jump"));
    expect(ranges(second.shots)).toEqual(ranges(first.shots));
    expect(second.shots[2]).toMatchObject({ begins: "jump", carry: true });
    // Found again, they change nothing.
    expect(carve(second.shots, found(300, 420, "jump"), found(420, 1000, "jump")).shots).toEqual(second.shots);
  });

  test("keep what the editor has set, and the boundaries that the editor has placed", () => {
    const follow = { kind: "none" } as const;
    const worked = [
      { ...WHOLE, end: 200, name: "Opening" },
      { ...freshShot("x", { start: 200, end: 598 }, hardTransition(200, "switch")), follow },
      { ...freshShot("y", { start: 598, end: 1000 }, hardTransition(598, "cut")), excluded: true },
    ];
    const { shots, partOf } = carve(worked, found(0, 400), found(400, 600), found(600, 900, "jump"));
    expect(ranges(shots)).toEqual([
      [0, 200],
      [200, 400],
      [400, 598],
      [598, 900],
      [900, 1000],
    ]);
    expect(shots.map(({ name, follow, excluded }) => [name, follow.kind, excluded])).toEqual([
      ["Opening", "auto", false],
      [null, "none", false],
      [null, "none", false],
      [null, "auto", true],
      [null, "auto", true],
    ]);
    expect(shots[1]!.begins).toBe("switch");
    expect([...partOf]).toEqual([
      ["f.400", "x"],
      ["f.900", "y"],
    ]);
  });

  test("bring what of the picture is no bars, where nobody has said so", () => {
    const box = { x: 0, y: 100, width: 1920, height: 880 };
    const own = { ...WHOLE, active: { ...box, y: 140, height: 800 } };
    const active = (shots: Parameters<typeof carveShots>[0]) =>
      carve(shots, { ...found(0, 400), active: box }).shots.map((shot) => shot.active?.y ?? null);
    expect(active([WHOLE])).toEqual([100, null]);
    expect(active([own])).toEqual([140, 140]);
  });
});
