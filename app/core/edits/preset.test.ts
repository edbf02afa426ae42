import { expect, test } from "@jest/globals";
import { type Layer, newText } from "../composition/layers/layer";
import { newVersion } from "../version/film-state";
import { Preset, presetOf, versionsOf } from "./preset";

test("a style has no layer for a range of one film, and none twice", () => {
  const [bare] = presetOf([newVersion({ id: "tall", name: "Tall", width: 1080, height: 1920 })]);
  const preset = (layers: Layer[]) =>
    Preset.safeParse({ id: "s", name: "Ferry", versions: [{ ...bare!, layers }] }).success;
  const layer = newText("a", "Wind");
  expect(preset([layer, newText("b", "Sea")])).toBe(true);
  expect(preset([{ ...layer, range: { start: 0, end: 9000 } }])).toBe(false);
  expect(preset([layer, newText("a", "Sea")])).toBe(false);
});

test("a style keeps all of a version but what is of one film", () => {
  const version = {
    ...newVersion({ id: "tall", name: "Tall", width: 1080, height: 1920 }),
    trim: { in: 40, out: null, leftOut: [{ start: 80, end: 90 }] },
    limitSeconds: 60,
    usual: { movement: "still" as const, calm: 80, follow: { kind: "speaker" as const } },
  };
  const ofOne = { ...version, id: "other", usual: { calm: 20, follow: { kind: "person" as const, who: "p1" } } };
  const versions = presetOf([version, ofOne]);
  const preset = Preset.parse(JSON.parse(JSON.stringify({ id: "s", name: "  Nightly talk ", versions })));
  expect(preset.name).toBe("Nightly talk");
  let n = 0;
  expect(versionsOf(preset, () => `v${n++}`)).toEqual([
    { ...version, id: "v0", trim: { in: null, out: null, leftOut: [] } },
    { ...ofOne, id: "v1", trim: { in: null, out: null, leftOut: [] }, usual: { calm: 20 } },
  ]);
});
