import { expect, test } from "@jest/globals";
import { counted } from "./numbers";

test("what is counted is one or many", () => {
  expect([0, 1, 2].map((count) => counted(count, "shot"))).toEqual(["0 shots", "1 shot", "2 shots"]);
  expect([1, 3].map((count) => counted(count, "person", "people"))).toEqual(["1 person", "3 people"]);
});
