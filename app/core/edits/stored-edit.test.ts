import { expect, test } from "@jest/globals";
import { TALL, TWO_SHOTS } from "../../../tests/support/film-state";
import { applyEdit } from "./apply";
import { readStoredEdit } from "./stored-edit";

const KEY = { frame: 10, x: 700, y: 540, height: 1080 };
const read = (edit: unknown, state = TWO_SHOTS) => applyEdit(state, readStoredEdit(JSON.stringify(edit), state)).state;

/** A shot as it was stored before shots had a rule for whom to follow, and a part that is active. */
const older = (id: string, start: number, end: number) => ({
  id,
  start,
  end,
  begins: "cut",
  mixed: { start, end: start },
  carry: false,
  subject: "track:mark-m",
  name: null,
  excluded: false,
});

test("subjects that were text are rules", () => {
  const change = { type: "change-shots", shotIds: ["one"], change: { subject: "person:p1" } };
  expect(read(change).shots[0]!.follow).toEqual({ kind: "person", who: "p1" });
});

test("a mark that said what the shot follows from then on says it still", () => {
  const box = { x: 1, y: 2, width: 30, height: 40 };
  const mark = { type: "put-mark", thing: "m", frame: 5, box };
  const state = read({ ...mark, follow: { shotId: "one", subject: "track:mark-m" } });
  expect(state.marks).toEqual([{ thing: "m", frame: 5, box }]);
  expect(state.shots[0]!.follow).toEqual({ kind: "track", trackId: "mark-m" });
  expect(read({ ...mark, follow: null }).shots).toEqual(TWO_SHOTS.shots);
});

test("keys that were put back are", () => {
  const state = { ...TWO_SHOTS, versions: [{ ...TALL, handKeys: [{ ...KEY, pane: 0, frame: 20, easing: null }] }] };
  const restored = read({ type: "restore-keys", versionId: "tall", frames: [20, 30], keys: [KEY] }, state);
  expect(restored.versions[0]!.handKeys).toEqual([{ ...KEY, pane: 0, easing: null }]);
});

test("shots that were put back are, with what versions said of them and nothing since", () => {
  const split = applyEdit(TWO_SHOTS, { type: "split-shot", frame: 40, kind: "cut" }).state;
  const since = applyEdit(split, {
    type: "set-framing",
    versionId: "tall",
    shotIds: ["one"],
    change: { calm: 3 },
  }).state;
  const restored = read(
    {
      type: "restore-shots",
      remove: ["film.40"],
      shots: [older("one", 0, 100)],
      framings: [{ versionId: "tall", shotId: "one", settings: { movement: "still" } }],
      sensitivity: 61,
    },
    since,
  );
  expect(restored.shots.map(({ id, end }) => [id, end])).toEqual([
    ["one", 100],
    ["two", 300],
  ]);
  expect(restored.shots[0]).toMatchObject({
    follow: { kind: "track", trackId: "mark-m" },
    protect: null,
    active: null,
  });
  expect([...restored.versions[0]!.shots]).toEqual([["one", { movement: "still" }]]);
  expect(restored.sensitivity).toBe(61);
});

test("anything else is not read", () => {
  expect(() => readStoredEdit('{"type":"explode"}', TWO_SHOTS)).toThrow();
});
