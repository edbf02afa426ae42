import { expect, test } from "@jest/globals";
import { asSentence } from "./sentence";

test("a message becomes a sentence, once", () => {
  expect(asSentence("the disk is full")).toBe("The disk is full.");
  expect(asSentence("The disk is full.")).toBe("The disk is full.");
});
