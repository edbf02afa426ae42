import { expect, test } from "@jest/globals";
import { TWO_SHOTS } from "../../../tests/support/film-state";
import { applyEdit } from "./apply";
import type { Command } from "./command";
import { Difference } from "./difference";
import { everythingSetIn, stateOf } from "./checkpoint";

const WORK: Command = {
  type: "batch",
  commands: [
    { type: "set-key", versionId: "tall", key: { pane: 0, frame: 10, x: 700, y: 540, height: 1080, easing: null } },
    { type: "change-shots", shotIds: ["one"], change: { name: "The kite" } },
    { type: "put-mark", thing: "kite", frame: 20, box: { x: 10, y: 10, width: 50, height: 50 } },
    { type: "edit-track", trackId: "t1", edit: { removed: [{ start: 0, end: 5 }], joinedTo: null } },
    { type: "change-person", person: { id: "p1", name: "Ada", mergedInto: null } },
    { type: "set-attention", attention: { shortestStay: 3, switchBy: "pan", mustHave: ["p1"] } },
    { type: "trim-version", versionId: "tall", in: 5, out: null },
  ],
};

test("a state that was kept, as text, is the film as it was, whatever has been done since", () => {
  const then = applyEdit(TWO_SHOTS, WORK).state;
  const kept = Difference.parse(JSON.parse(JSON.stringify(everythingSetIn(then))));
  const later = [
    { type: "remove-key", versionId: "tall", pane: 0, frame: 10 },
    { type: "split-shot", frame: 200, kind: "cut" },
    { type: "duplicate-version", versionId: "tall", id: "other", name: "Other" },
    { type: "change-person", person: { id: "p2", name: "Ben", mergedInto: null } },
    { type: "set-sensitivity", sensitivity: 20 },
    { type: "set-attention", attention: { shortestStay: 1, switchBy: "auto", mustHave: [] } },
  ] satisfies Command[];
  const now = later.reduce((state, command) => applyEdit(state, command).state, then);
  expect(stateOf(kept, now)).toEqual(then);
  expect(stateOf(everythingSetIn(TWO_SHOTS), now)).toEqual(TWO_SHOTS);
});

test("who was recognised since a state was kept stays", () => {
  const kept = everythingSetIn(TWO_SHOTS);
  const newcomer = { id: "p3", number: 2, name: "Cleo", mergedInto: null };
  const now = { ...TWO_SHOTS, people: [...TWO_SHOTS.people, newcomer] };
  expect(stateOf(kept, now).people).toEqual([...TWO_SHOTS.people, { ...newcomer, name: null }]);
});
