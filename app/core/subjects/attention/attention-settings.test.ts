import { expect, test } from "@jest/globals";
import { isMust, USUAL_ATTENTION, withMust } from "./attention-settings";

test("who has to be in the picture is known by their own id or by that of their track", () => {
  expect(isMust({ id: "t1", who: "p1" }, ["p1"])).toBe(true);
  expect(isMust({ id: "t1", who: "p1" }, ["t1"])).toBe(true);
  expect([isMust({ id: "t1", who: "p1" }, ["p2"]), isMust({ id: "t1" }, ["p1"]), isMust({ id: "t1" }, [])]).toEqual([
    false,
    false,
    false,
  ]);
});

test("somebody has to be in the picture once, or not any more; the others stay", () => {
  const both = withMust(withMust(withMust(USUAL_ATTENTION, "p1", true), "p2", true), "p1", true);
  expect(both).toEqual({ ...USUAL_ATTENTION, mustHave: ["p2", "p1"] });
  expect(withMust(both, "p2", false).mustHave).toEqual(["p1"]);
  expect(withMust(both, "p9", false).mustHave).toEqual(["p2", "p1"]);
});
