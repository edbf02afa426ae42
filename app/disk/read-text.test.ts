import { expect, test } from "@jest/globals";
import { decodeText } from "./read-text.server";

const TEXT = "1\n00:00:01,000 --> 00:00:02,000\nÉté à Ferrow – “hält”\n";
const wide = (text: string, isBig: boolean, mark: boolean) => {
  const bytes = Buffer.from((mark ? "\uFEFF" : "") + text, "utf16le");
  return isBig ? Buffer.from(bytes).swap16() : bytes;
};

test("text is read in the encodings that files of captions come in", () => {
  expect(decodeText(Buffer.from(TEXT))).toBe(TEXT);
  expect(decodeText(Buffer.from(`\uFEFF${TEXT}`))).toBe(TEXT);
  for (const isBig of [false, true]) {
    for (const mark of [false, true]) expect(decodeText(wide(TEXT, isBig, mark))).toBe(TEXT);
  }
  const latin = "00:00:01,000 --> 00:00:02,000\nÉté à Ferrow";
  expect(decodeText(Buffer.from(latin, "latin1"))).toBe(latin);
  expect(decodeText(Buffer.of())).toBe("");
});
