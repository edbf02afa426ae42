import { describe, expect, test } from "@jest/globals";
import { cutIntoCaptions, cutSentences, lettersOf, linesOf } from "./break-text";

test("a short sentence stands beside the next where both fit, and by itself where they do not", () => {
  const cut = (lineLength: number, lines = 1) => cutSentences("Yes. We went home.", lineLength, lines);
  expect(cut(18)).toEqual(["Yes. We went home."]);
  expect(cut(17)).toEqual(["Yes.", "We went home."]);
  expect(cut(9, 2)).toEqual(["Yes. We went home."]);
  expect(cutSentences("We went home. Yes.", 18, 1)).toEqual(["We went home.", "Yes."]);
});

describe("lines of a caption", () => {
  test("balance, and end where one would pause", () => {
    expect(linesOf("The wind came up at noon, and half the town went out", 32)).toEqual([
      "The wind came up at noon,",
      "and half the town went out",
    ]);
    expect(linesOf("We moved the table down to the water", 22)).toEqual(["We moved the table", "down to the water"]);
    expect(linesOf("Hold on", 30)).toEqual(["Hold on"]);
  });

  test("do not leave a small word behind", () => {
    for (const line of linesOf("She walked along the top of the old wall in the rain", 20).slice(0, -1)) {
      expect(line).not.toMatch(/ (the|of|in)$/);
    }
  });

  test("that the editor has broken stay, and a word that is too long stands by itself", () => {
    expect(linesOf("Tea\n\nand cake", 40)).toEqual(["Tea", "and cake"]);
    expect(linesOf("an incomprehensibilities day", 10)).toEqual(["an", "incomprehensibilities", "day"]);
    expect(linesOf("   ", 10)).toEqual([]);
  });

  test("of a script without spaces break between letters, and not before a full stop", () => {
    const lines = linesOf("今日は風が強いので、みんな丘に行きました。", 12);
    expect(lines.join("")).toBe("今日は風が強いので、みんな丘に行きました。");
    expect(lines).toHaveLength(2);
    expect(lines.every((line) => !/^[、。]/u.test(line))).toBe(true);
  });
});

describe("a text", () => {
  test("is cut by sentence, and a long sentence by clause and length", () => {
    const parts = cutSentences(
      "It held. The first one who walked over the bridge was a goat, and it did not look back.",
      26,
      2,
    );
    expect(parts.map(lettersOf).every((letters) => letters <= 52)).toBe(true);
    expect(parts.join(" ")).toBe(
      "It held. The first one who walked over the bridge was a goat, and it did not look back.",
    );
    expect(parts[1]).toMatch(/,$|^and /);
  });

  test("is said by whoever a line begins with, until somebody else is named", () => {
    expect(cutIntoCaptions("ADA: Come in.\nIt is cold.\n\nOld Bram: No.\nat 10: 30 we left", 30, 2)).toEqual([
      { text: "Come in.", speaker: "ADA" },
      { text: "It is cold.", speaker: "ADA" },
      { text: "No.", speaker: "Old Bram" },
      { text: "at 10: 30 we left", speaker: "Old Bram" },
    ]);
  });
});
