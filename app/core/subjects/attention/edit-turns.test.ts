import { expect, test } from "@jest/globals";
import { addTurn, asTurns, followBetween, giveTurn, moveTurn, removeTurn } from "./edit-turns";

const SHOT = { start: 100, end: 400 };
const TURNS = asTurns([
  { start: 100, end: 200, trackIds: ["a"] },
  { start: 200, end: 300, trackIds: ["b"] },
  { start: 300, end: 400, trackIds: ["a"] },
]);
const said = (rule: ReturnType<typeof addTurn>) =>
  rule.kind === "turns" ? rule.turns.map(({ frame, trackIds }) => `${frame} ${trackIds.join("+")}`) : rule;

test("a turn is moved, and stays between its neighbours", () => {
  expect(said(moveTurn(TURNS, 1, 230, SHOT))).toEqual(["100 a", "230 b", "300 a"]);
  expect(said(moveTurn(TURNS, 1, 20, SHOT))).toEqual(["100 a", "101 b", "300 a"]);
  expect(said(moveTurn(TURNS, 2, 900, SHOT))).toEqual(["100 a", "200 b", "399 a"]);
});

test("a turn is given to somebody else, or to several", () => {
  expect(said(giveTurn(TURNS, 1, ["c"]))).toEqual(["100 a", "200 c", "300 a"]);
  expect(said(giveTurn(TURNS, 2, ["a", "b"]))).toEqual(["100 a", "200 b", "300 a+b"]);
  expect(said(giveTurn(TURNS, 1, ["a"]))).toEqual(["100 a"]);
});

test("a turn is taken out, also the first", () => {
  expect(said(removeTurn(TURNS, 1))).toEqual(["100 a"]);
  expect(said(removeTurn(TURNS, 2))).toEqual(["100 a", "200 b"]);
  expect(said(removeTurn(TURNS, 0))).toEqual(["100 b", "300 a"]);
});

test("a turn is added, in the place of one at the same frame", () => {
  expect(said(addTurn(TURNS, 250, ["c"]))).toEqual(["100 a", "200 b", "250 c", "300 a"]);
  expect(said(addTurn(TURNS, 200, ["c"]))).toEqual(["100 a", "200 c", "300 a"]);
});

test("somebody is followed in a stretch, and after it whoever was followed there before", () => {
  const between = (start: number, end: number) => said(followBetween(TURNS, { start, end }, ["c"], SHOT));
  expect(between(150, 180)).toEqual(["100 a", "150 c", "180 a", "200 b", "300 a"]);
  expect(between(250, 350)).toEqual(["100 a", "200 b", "250 c", "350 a"]);
  expect(between(200, 300)).toEqual(["100 a", "200 c", "300 a"]);
  expect(between(350, 400)).toEqual(["100 a", "200 b", "300 a", "350 c"]);
  expect(between(50, 150)).toEqual(["100 c", "150 a", "200 b", "300 a"]);
});
