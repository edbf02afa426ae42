import { expect, test } from "@jest/globals";
import { addSwitch, asSwitches, followBetween, giveSwitch, moveSwitch, removeSwitch } from "./edit-switches";

const SHOT = { start: 100, end: 400 };
const SWITCHES = asSwitches([
  { start: 100, end: 200, trackIds: ["a"] },
  { start: 200, end: 300, trackIds: ["b"] },
  { start: 300, end: 400, trackIds: ["a"] },
]);
const said = (rule: ReturnType<typeof addSwitch>) =>
  rule.kind === "switches" ? rule.switches.map(({ frame, trackIds }) => `${frame} ${trackIds.join("+")}`) : rule;

test("a switch is moved, and stays between its neighbours", () => {
  expect(said(moveSwitch(SWITCHES, 1, 230, SHOT))).toEqual(["100 a", "230 b", "300 a"]);
  expect(said(moveSwitch(SWITCHES, 1, 20, SHOT))).toEqual(["100 a", "101 b", "300 a"]);
  expect(said(moveSwitch(SWITCHES, 2, 900, SHOT))).toEqual(["100 a", "200 b", "399 a"]);
});

test("a switch is given to somebody else, or to several", () => {
  expect(said(giveSwitch(SWITCHES, 1, ["c"]))).toEqual(["100 a", "200 c", "300 a"]);
  expect(said(giveSwitch(SWITCHES, 2, ["a", "b"]))).toEqual(["100 a", "200 b", "300 a+b"]);
  expect(said(giveSwitch(SWITCHES, 1, ["a"]))).toEqual(["100 a"]);
});

test("a switch is taken out, also the first", () => {
  expect(said(removeSwitch(SWITCHES, 1))).toEqual(["100 a"]);
  expect(said(removeSwitch(SWITCHES, 2))).toEqual(["100 a", "200 b"]);
  expect(said(removeSwitch(SWITCHES, 0))).toEqual(["100 b", "300 a"]);
});

test("a switch is added, in the place of one at the same frame", () => {
  expect(said(addSwitch(SWITCHES, 250, ["c"]))).toEqual(["100 a", "200 b", "250 c", "300 a"]);
  expect(said(addSwitch(SWITCHES, 200, ["c"]))).toEqual(["100 a", "200 c", "300 a"]);
});

test("somebody is followed in a range, and after it whoever was followed there before", () => {
  const between = (start: number, end: number) => said(followBetween(SWITCHES, { start, end }, ["c"], SHOT));
  expect(between(150, 180)).toEqual(["100 a", "150 c", "180 a", "200 b", "300 a"]);
  expect(between(250, 350)).toEqual(["100 a", "200 b", "250 c", "350 a"]);
  expect(between(200, 300)).toEqual(["100 a", "200 c", "300 a"]);
  expect(between(350, 400)).toEqual(["100 a", "200 b", "300 a", "350 c"]);
  expect(between(50, 150)).toEqual(["100 c", "150 a", "200 b", "300 a"]);
});
