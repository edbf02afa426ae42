import { describe, expect, test } from "@jest/globals";
import { createCanvas } from "@napi-rs/canvas";
import { readPicture } from "./read-picture.server";

const canvas = createCanvas(30, 20);
const svg = (inside: string, more = 'width="40" height="10"') =>
  Buffer.from(`<?xml version="1.0"?><svg xmlns="http://www.w3.org/2000/svg" ${more}>${inside}</svg>`);

describe("a picture that is brought in", () => {
  test("is taken as it is, whatever it is called", async () => {
    for (const [kind, type] of [
      ["png", "image/png"],
      ["jpg", "image/jpeg"],
      ["webp", "image/webp"],
    ] as const) {
      const bytes = canvas.toBuffer(type as "image/png");
      expect(await readPicture(bytes, "logo")).toMatchObject({ bytes, kind, size: { width: 30, height: 20 } });
    }
  });

  test("is made of pixels if it is drawn", async () => {
    const { kind, size } = await readPicture(
      svg(
        '<metadata><rdf:RDF xmlns:rdf="r"/></metadata><g id="a"><rect width="40" height="10" fill="#f00"/></g><use href="#a"/>',
      ),
      "mark.svg",
    );
    expect([kind, size]).toEqual(["png", { width: 2160, height: 540 }]);
  });

  test.each([
    ["a script", "<script>alert(1)</script>", "has scripts"],
    ["a handler", '<rect onload="alert(1)"/>', "has scripts"],
    ["a page in it", "<foreignObject><p/></foreignObject>", "has scripts"],
    ["a picture from outside", '<image href="https://example.org/a.png"/>', "outside of it"],
    ["a style from outside", "<style>@import 'a.css';</style>", "outside of it"],
    ["a filling from outside", '<rect fill="url(a.svg#b)"/>', "outside of it"],
    ["a filter", '<filter id="f"><feGaussianBlur stdDeviation="9"/></filter>', "has a <filter>"],
    ["a pattern of another name", '<x:pattern xmlns:x="http://www.w3.org/2000/svg"/>', "has a <x:pattern>"],
    [
      "parts that repeat each other",
      '<g id="a"><rect/></g><g id="b"><use href="#a"/><use href="#a"/></g><use href="#b"/>',
      "repeated too often",
    ],
    ["too many repeated parts", `<g id="a"><rect/></g>${'<use href="#a"/>'.repeat(1001)}`, "repeated too often"],
  ])("is refused as a drawing with %s", async (_, inside, why) => {
    await expect(readPicture(svg(inside), "mark.svg")).rejects.toThrow(why);
  });

  test("is refused with what to do if it is none, damaged or too large", async () => {
    const refused = (bytes: Buffer) => expect(readPicture(bytes, "logo.png")).rejects;
    await refused(Buffer.from("kites")).toThrow("logo.png: this is not a picture");
    await refused(canvas.toBuffer("image/png").subarray(0, 40)).toThrow("damaged");
    await refused(createCanvas(8200, 2).toBuffer("image/png")).toThrow("8200 × 2");
    await refused(Buffer.alloc(31 * 2 ** 20)).toThrow("at most 30 MB");
  });
});
