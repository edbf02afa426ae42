import { expect, test } from "@jest/globals";
import { TWO_SHOTS } from "../../../../tests/support/film-state";
import { applyEdit } from "~/core/edits/apply";
import type { DeskShot } from "./desk-types";
import { isSameShape, sidesOf } from "./comparison";

const state = applyEdit(TWO_SHOTS, {
  type: "duplicate-version",
  versionId: "tall",
  id: "other",
  name: "Other",
}).state;
const [version] = state.versions;
const framed = { state, version: version! };
const shot = { ...state.shots[0]!, pane: 0 } as DeskShot;

test("a movement is compared by the film as it would be with it", () => {
  const [still] = sidesOf({ kind: "movements", movements: ["still"] }, framed, shot, null);
  expect(still).toMatchObject({ name: "Still", size: { width: 1080, height: 1920 } });
  expect(still!.framedFrom!.version.shots.get("one")).toMatchObject({ movement: "still" });
  expect(state.versions[0]!.shots.has("one")).toBe(false);
  expect(sidesOf({ kind: "movements", movements: ["still"] }, framed, undefined, null)).toEqual([]);
});

test("versions are compared but for the one on the desk, and a centre crop is framed from nothing", () => {
  const sides = sidesOf({ kind: "versions", versionIds: ["other", "tall"] }, framed, shot, null);
  expect(sides.map(({ name }) => name)).toEqual(["Other"]);
  expect(sidesOf({ kind: "centre" }, framed, shot, null)[0]!.framedFrom).toBeNull();
});

test("a checkpoint is compared by its version of that id, when it is there", () => {
  const named = { kind: "state", checkpointId: "s", name: "before client" } as const;
  expect(sidesOf(named, framed, shot, null)).toEqual([]);
  expect(sidesOf(named, framed, shot, { ...state, versions: [] })).toEqual([]);
  expect(sidesOf(named, framed, shot, TWO_SHOTS)[0]).toMatchObject({
    name: "before client",
    framedFrom: { state: TWO_SHOTS },
  });
});

test("frames of one shape lie over each other whatever their sizes", () => {
  expect(isSameShape({ width: 1080, height: 1920 }, { width: 720, height: 1280 })).toBe(true);
  expect(isSameShape({ width: 1080, height: 1920 }, { width: 1080, height: 1350 })).toBe(false);
});
