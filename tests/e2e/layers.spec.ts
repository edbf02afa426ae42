import { readFileSync } from "node:fs";
import { join } from "node:path";
import { createCanvas } from "@napi-rs/canvas";
import { expect, type Page, test } from "@playwright/test";
import { build } from "vite";
import * as drawing from "~/core/composition/layers/draw-layer";
import { fontOf } from "~/core/composition/layers/font-families";
import { newText, type TextLayer } from "~/core/composition/layers/layer";
import { USUAL_SAFE_AREA } from "~/core/composition/layers/safe-area";
import { registerFonts } from "~/media/layers/fonts.server";
import { openTwoShots } from "../support/desk";
import { EVERY_TEST } from "../support/every-test";
import { fileAt, resultAt } from "../support/pixels";
import { renderVersion } from "../support/render-version";
import { serverWith } from "../support/prepared";
import type { TestServer } from "../support/server";
import { moveUp } from "../support/sortable";

// Every test begins with a film above which nothing lies.
let server: TestServer;
test.beforeEach(async () => {
  server = serverWith("two-shots");
  await server.start();
});
test.afterEach(() => server.dispose());

const GROUND = { frame: { width: 1080, height: 1920 }, safe: USUAL_SAFE_AREA };
const text = (words: string, more: Partial<TextLayer> = {}): TextLayer => ({ ...newText("t", words), ...more });
type DrawingCode = Pick<typeof drawing, "placeLayer" | "drawLayer">;
const BOX = { colour: "#a03060", opacity: 70, corner: 40 };

/** The share of painted pixels that may differ: single glyphs lie a quarter of a pixel aside, and emoji are scaled pictures. */
const GLYPHS_ASIDE = 0.01;
const SCALED = 0.05;

const TEXTS: [name: string, layer: TextLayer, mayDiffer: number][] = [
  ["a title in two lines", text("Ferrow Kite Day above the salt meadows"), 0],
  [
    "umlauts and accents",
    text("Größe, Ångström, Čeština, Łódź", { family: "plain", weight: 400, shadow: 0 }),
    GLYPHS_ASIDE,
  ],
  [
    "a serif with an outline",
    text("An afternoon", { family: "serif", outline: 0.08, outlineColour: "#203040" }),
    GLYPHS_ASIDE,
  ],
  ["figures on a box", text("12:40 · 3.5 m/s", { family: "mono", box: BOX, align: "left" }), 0],
  ["Chinese and Japanese", text("塩の草原の上を飛ぶ凧 风筝日", { weight: 700 }), 0],
  ["right to left", text("سلام يا طائرة", { family: "plain" }), 0],
  ["emoji among letters", text("Kites 🪁 and clouds ☁️", { size: 0.08 }), SCALED],
  ["small and light", text("with thanks to everybody on the dyke", { size: 0.03, weight: 300, shadow: 100 }), 0],
];

/** The drawing code as a script for the browser. */
async function drawingCode(): Promise<string> {
  const built = [
    await build({
      configFile: false,
      logLevel: "error",
      resolve: { alias: { "~": join(process.cwd(), "app") } },
      build: {
        write: false,
        minify: false,
        lib: { entry: "app/core/composition/layers/draw-layer.ts", formats: ["iife"], name: "layers" },
      },
    }),
  ].flat();
  return built
    .flatMap((part) => ("output" in part ? part.output : []))
    .map((part) => ("code" in part ? part.code : ""))
    .join("\n");
}

/** A font of one weight, such as an editor may bring in. */
const FONT_FILE = "/usr/share/fonts/truetype/noto/NotoSerif-Regular.ttf";

/** Brings a font into the library, makes it known to the page, and gives its id. */
async function bringFont(page: Page): Promise<string> {
  const bytes = readFileSync(FONT_FILE);
  const id = await page.evaluate(async (base64) => {
    const body = new FormData();
    body.set("font", new File([Uint8Array.from(atob(base64), (letter) => letter.charCodeAt(0))], "house.ttf"));
    const { file } = (await (await fetch("/own-files", { method: "POST", body })).json()) as { file: { id: string } };
    document.fonts.add(new FontFace(`Own ${file.id}`, `url(/own-files/${file.id})`));
    return file.id;
  }, bytes.toString("base64"));
  registerFonts(new Map([[id, bytes]]));
  return id;
}

// Only here is another version of Chromium, or of the canvas, seen to draw letters otherwise.
(EVERY_TEST ? test : test.skip)("texts are the same pixels in the browser and on the server", async ({ page }) => {
  await page.goto(server.url);
  const font = { id: await bringFont(page), name: "house.ttf" };
  await page.evaluate(`${await drawingCode()}; globalThis.layers = layers;`);
  registerFonts();
  const all = [...TEXTS, ["a font of one's own", text("Preset", { font, weight: 700 }), 0] as const];
  for (const [name, layer, mayDiffer] of all) {
    const canvas = createCanvas(GROUND.frame.width, GROUND.frame.height);
    const context = canvas.getContext("2d");
    const placed = drawing.placeLayer(layer, GROUND, context);
    drawing.drawLayer(context, layer, placed);
    const onServer = context.getImageData(0, 0, canvas.width, canvas.height).data;
    const inBrowser = await page.evaluate(
      async ({ layer, ground, font }) => {
        const { placeLayer, drawLayer } = (globalThis as unknown as { layers: DrawingCode }).layers;
        await document.fonts.load(font, layer.text);
        const canvas = document.createElement("canvas");
        [canvas.width, canvas.height] = [ground.frame.width, ground.frame.height];
        const context = canvas.getContext("2d")!;
        const placed = placeLayer(layer, ground, context);
        drawLayer(context, layer, placed);
        const pixels = context.getImageData(0, 0, canvas.width, canvas.height).data;
        let bytes = "";
        for (let i = 0; i < pixels.length; i += 32_768) bytes += String.fromCharCode(...pixels.subarray(i, i + 32_768));
        return { bytes: btoa(bytes), lines: placed.block!.lines.map((line) => line.text) };
      },
      { layer, ground: GROUND, font: fontOf(layer, 20) },
    );
    expect([name, inBrowser.lines]).toEqual([name, placed.block!.lines.map((line) => line.text)]);
    const pixels = Buffer.from(inBrowser.bytes, "base64");
    let painted = 0;
    let different = 0;
    for (let i = 3; i < pixels.length; i += 4) {
      if (pixels[i]! > 0) painted++;
      if ([0, 1, 2, 3].some((c) => Math.abs(pixels[i - c]! - onServer[i - c]!) > 2)) different++;
    }
    expect(painted).toBeGreaterThan(2000);
    expect.soft(different / painted, name).toBeLessThanOrEqual(mayDiffer);
  }
});

const layers = (page: Page) => page.getByRole("list", { name: "Layers, the one in front first" }).getByRole("listitem");

/** How bright a place of the result is, in shares of it, 0 to 255. */
const lightAt = async (page: Page, x: number, y: number) => (await resultAt(page, x, y))[1]!;

/** The same of a file half a second after its beginning. */
const fileLightAt = (file: string, x: number, y: number) => fileAt(file, 15, x, y)[1]!;

/** Opens a film of two shots at what lies above it. */
async function open(page: Page): Promise<void> {
  await openTwoShots(page, server);
  await page.getByRole("radio", { name: "Layers" }).click();
}

test("a bar and a text are added, placed, ordered, timed, undone, copied, and are in the file", async ({ page }) => {
  await open(page);
  await page.getByRole("button", { name: "Bar", exact: true }).click();
  await expect(layers(page)).toHaveCount(1);
  // Solid and white, so that it is told from the film.
  const opacity = page.getByRole("slider", { name: "Opacity" });
  await opacity.press("End");
  await page.getByLabel("Colour", { exact: true }).fill("#ffffff");
  await page.getByLabel("Colour", { exact: true }).blur();
  await page.getByRole("combobox", { name: "Comes in" }).click();
  await page.getByRole("option", { name: "Cut", exact: true }).click();
  const bar = { x: 0.5, y: 0.86 };
  await expect.poll(() => lightAt(page, bar.x, bar.y)).toBe(255);

  // Dragged by its middle to the middle of the frame, where it snaps.
  const canvas = page.getByRole("img", { name: /shows$/ });
  const box = (await canvas.boundingBox())!;
  const at = (x: number, y: number) => [box.x + x * box.width, box.y + y * box.height] as const;
  await page.mouse.move(...at(0.3, 0.82));
  await page.mouse.down();
  await page.mouse.move(...at(0.3, 0.7), { steps: 4 });
  await page.mouse.move(...at(0.3, 0.5), { steps: 4 });
  await page.mouse.up();
  await expect.poll(() => lightAt(page, 0.5, 0.5)).toBe(255);
  await expect.poll(() => lightAt(page, bar.x, bar.y)).toBeLessThan(250);
  await page.keyboard.press("Control+z");
  await expect.poll(() => lightAt(page, bar.x, bar.y)).toBe(255);

  await page.getByRole("button", { name: "Text", exact: true }).click();
  const words = page.getByLabel("What the text says");
  await words.fill("Kites today");
  await words.blur();
  await expect(layers(page).first()).toContainText("text “Kites today”");
  // Dragged by the keyboard, as by the mouse.
  const grip = layers(page)
    .last()
    .getByRole("button", { name: /^Move / });
  await moveUp(page, grip, 2, 1);
  await expect(layers(page).first()).toContainText("bar");
  await page.keyboard.press("Control+z");

  // The text is there in the second shot only.
  await page.getByRole("listbox", { name: "Shots" }).getByRole("option").last().click();
  await page.getByRole("button", { name: "This shot", exact: true }).click();
  await expect(layers(page).first()).toContainText(" to ");

  await page.getByRole("button", { name: "Add a version" }).click();
  await page.getByRole("dialog").getByRole("radio", { name: "Square 1:1" }).click();
  await page.getByRole("dialog").getByRole("button", { name: "Add version" }).click();
  await expect(layers(page)).toHaveCount(0);
  await page.getByRole("navigation", { name: "Versions" }).getByRole("link", { name: "Vertical 9:16" }).click();
  await layers(page).last().getByRole("button", { name: /^bar/ }).click();
  await page.getByRole("button", { name: "Copy to the other versions" }).click();
  await page.getByRole("navigation", { name: "Versions" }).getByRole("link", { name: "Square 1:1" }).click();
  await expect(layers(page)).toHaveText([/bar/]);

  await page.getByRole("navigation", { name: "Versions" }).getByRole("link", { name: "Vertical 9:16" }).click();
  const file = await renderVersion(page, "Vertical 9:16", server.data);
  expect(fileLightAt(file, 0.5, 0.86)).toBeGreaterThan(250);
  expect(fileLightAt(file, 0.5, 0.52)).toBeLessThan(250);
});

test("a text that does not fit says so, and fits when it may shrink", async ({ page }) => {
  await open(page);
  await page.getByRole("button", { name: "Text", exact: true }).click();
  await page.getByText("Shrink to fit").click();
  const words = page.getByLabel("What the text says");
  await words.fill("Unbreakablekitefestivaltitle");
  await words.blur();
  await expect(page.getByRole("alert")).toContainText("does not fit");
  await page.getByText("Shrink to fit").click();
  await expect(page.getByRole("alert")).toHaveCount(0);

  const own = page.getByLabel("Your own font: file");
  await own.setInputFiles({ name: "house.ttf", mimeType: "font/ttf", buffer: Buffer.from("no font") });
  await expect(page.getByText("house.ttf: this is not a font.")).toBeVisible();
  await own.setInputFiles(FONT_FILE);
  await expect(page.getByRole("combobox", { name: "Typeface" })).toHaveText("NotoSerif-Regular.ttf");
  await page.getByRole("combobox", { name: "Typeface" }).click();
  await page.getByRole("option", { name: "Inter" }).click();
  await expect(page.getByRole("combobox", { name: "Typeface" })).toHaveText("Inter");
});

// Only this finds that a picture of one's own does not come from the file dialog into the file.
(EVERY_TEST ? test : test.skip)(
  "a picture is brought in as a layer and as a backdrop; what is none is refused with a sentence",
  async ({ page }) => {
    await open(page);
    const picked = page.getByLabel("Picture: file");
    await picked.setInputFiles({ name: "notes.png", mimeType: "image/png", buffer: Buffer.from("no picture") });
    await expect(page.getByText("notes.png: this is not a picture.")).toBeVisible();
    const scripted = '<svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script></svg>';
    await picked.setInputFiles({ name: "mark.svg", mimeType: "image/svg+xml", buffer: Buffer.from(scripted) });
    await expect(page.getByText("mark.svg: this drawing has scripts.")).toBeVisible();

    const white = createCanvas(80, 40);
    const context = white.getContext("2d");
    context.fillStyle = "#ffffff";
    context.fillRect(0, 0, 80, 40);
    const file = { name: "white.png", mimeType: "image/png", buffer: white.toBuffer("image/png") };
    await picked.setInputFiles(file);
    await expect(layers(page)).toHaveText([/picture “white.png”/]);
    await page.getByRole("combobox", { name: "Comes in" }).click();
    await page.getByRole("option", { name: "Cut", exact: true }).click();
    await expect.poll(() => lightAt(page, 0.9, 0.08)).toBe(255);
    await page.reload();
    await expect.poll(() => lightAt(page, 0.9, 0.08)).toBe(255);

    await page.getByRole("radio", { name: "Whole", exact: true }).click();
    await page.getByRole("combobox", { name: "Backdrop" }).click();
    await page.getByRole("option", { name: "Your picture or film" }).click();
    await page.getByLabel("Select a file: file").setInputFiles(file);
    await expect.poll(() => lightAt(page, 0.1, 0.9)).toBe(255);
    const rendered = await renderVersion(page, "Vertical 9:16", server.data);
    expect(fileLightAt(rendered, 0.1, 0.885)).toBeGreaterThan(250);
    expect(fileLightAt(rendered, 0.905, 0.078)).toBeGreaterThan(250);
  },
);
