import { readFileSync } from "node:fs";
import { expect, test } from "@jest/globals";
import { GlobalFonts } from "@napi-rs/canvas";
import { ownFamily } from "~/core/composition/layers/own-font";
import { readFont } from "./read-font.server";

const FONT = "node_modules/@fontsource-variable/inter/files/inter-latin-wght-normal.woff2";

test("a font that is brought in is known by what is in it, and can be drawn with", () => {
  const bytes = readFileSync(FONT);
  const font = readFont(bytes, "house.woff2");
  expect(font).toMatchObject({ kind: "woff2", id: expect.stringMatching(/^[0-9a-f]{32}$/) });
  expect(readFont(bytes, "the same.woff2").id).toBe(font.id);
  expect(GlobalFonts.has(ownFamily(font.id))).toBe(true);
});

test("what is no font, damaged or too large is refused with a sentence", () => {
  const refused = (bytes: Buffer) => expect(() => readFont(bytes, "house.ttf"));
  refused(Buffer.from("kites")).toThrow("house.ttf: this is not a font");
  refused(readFileSync(FONT).subarray(0, 200)).toThrow("house.ttf: this font is damaged");
  refused(Buffer.alloc(21 * 2 ** 20)).toThrow("at most 20 MB");
});
