/** The canvas of the desk and the resampler of the render make the same of a composition. */
import { expect, test } from "@jest/globals";
import { createCanvas } from "@napi-rs/canvas";
import { difference, rgbOfYuv } from "../support/rgb-of-yuv";
import { yuvPicture } from "../support/yuv-picture";
import { type Backdrop, USUAL_BACKDROP } from "~/core/composition/backdrop";
import { type Edge, PLAIN_EDGE } from "~/core/composition/edge";
import { layOut, WHOLE } from "~/core/composition/layout";
import { groundOf } from "~/core/composition/layers/draw-layer";
import { newBar, type ShapeLayer } from "~/core/composition/layers/layer";
import { STACK } from "~/core/composition/stack";
import { USUAL_FRAMING } from "~/core/path/framing-settings";
import { boxContains, wholeOf } from "~/core/geometry/box";
import { type Composition, compose, fill, fromScaled, inSize } from "~/core/composition/composition";
import { LayerPainter } from "~/media/layers/layer-painter.server";
import { Resampler } from "~/media/resample/resampler.server";
import { drawComposition } from "~/components/desk/frames/draw-composition";

/** The proxy has half the source's pixels along each side. */
const PICTURE = { width: 1280, height: 720 };
const COPY = { width: 640, height: 360 };
const CANVAS = { width: 180, height: 320 };
const VERSION = { width: 1080, height: 1920 };

const colour = (x: number, y: number): [number, number, number] => [
  128 + 90 * Math.sin(x * 0.031) * Math.cos(y * 0.023),
  128 + 70 * Math.sin(x * 0.017 + y * 0.029),
  128 + 60 * Math.cos(x * 0.011 - y * 0.037),
];

function onCanvas(shown: Composition): Uint8ClampedArray {
  const video = createCanvas(COPY.width, COPY.height);
  const context = video.getContext("2d");
  const pixels = context.createImageData(COPY.width, COPY.height);
  for (let y = 0; y < COPY.height; y++) {
    for (let x = 0; x < COPY.width; x++) pixels.data.set([...colour(x, y), 255], 4 * (y * COPY.width + x));
  }
  context.putImageData(pixels, 0, 0);
  const ownerDocument = { createElement: () => createCanvas(1, 1) };
  const canvas = Object.assign(createCanvas(CANVAS.width, CANVAS.height), { ownerDocument });
  const film = Object.assign(video, { videoWidth: COPY.width }) as unknown as HTMLVideoElement;
  drawComposition(canvas as unknown as HTMLCanvasElement, film, shown, PICTURE);
  return canvas
    .getContext("2d")
    .getImageData(0, 0, CANVAS.width, CANVAS.height)
    .data.filter((_, i) => i % 4 !== 3);
}

function renderOf(shown: Composition): Resampler {
  const { luma, blue, red } = yuvPicture(COPY.width, COPY.height, colour);
  const resampler = new Resampler(COPY, CANVAS, { panes: 2 });
  resampler.source.set([...luma, ...blue, ...red]);
  resampler.compose(fromScaled(inSize(shown, CANVAS), COPY.width / PICTURE.width));
  return resampler;
}

const inRender = (shown: Composition): Uint8ClampedArray => rgbOfYuv(renderOf(shown).target, CANVAS);

const stack: Composition = {
  ...fill({ x: 0, y: 0, height: 1 }, VERSION),
  panes: [
    { source: { x: 100.4, y: 30, width: 540, height: 450 }, target: { x: 40.5, y: 30, width: 1000, height: 833.3 } },
    { source: { x: 700, y: 200.7, width: 400, height: 400 }, target: { x: 60, y: 900.2, width: 960, height: 960 } },
  ],
};

const [LEFT, RIGHT] = [420, 850].map((x) => ({ x, y: 360, height: 700 }));
const CENTRE = { x: 640, y: 360, height: 720 };
const ground = (look: Backdrop, edge = PLAIN_EDGE) =>
  layOut({ layout: WHOLE, backdrop: look, edge }, wholeOf(PICTURE), VERSION);
const stacked = (gap: number) => layOut({ ...USUAL_FRAMING, layout: { ...STACK, gap } }, wholeOf(PICTURE), VERSION);
const withEdge = (edge: Edge) => compose([CENTRE], ground({ kind: "colour", colour: "#a0b0c0" }, edge), VERSION);

test.each([
  ["the whole picture before a blurred one", compose([CENTRE], ground(USUAL_BACKDROP), VERSION)],
  ["the whole picture before a colour", compose([CENTRE], ground({ kind: "colour", colour: "#305a7c" }), VERSION)],
  [
    "the whole picture before a gradient",
    compose([CENTRE], ground({ kind: "gradient", top: "#c03010", foot: "#102040" }), VERSION),
  ],
  ["a picture with a soft shadow", withEdge({ look: "shadow", corner: 0 })],
  ["a picture that fades", withEdge({ look: "feather", corner: 0 })],
  ["a window", fill({ x: 523.37, y: 360, height: 720 }, VERSION)],
  ["a window that is zoomed in", fill({ x: 700.21, y: 300.9, height: 391.4 }, VERSION)],
  ["two panes between pixels, with black around them", stack],
  ["a stack without a gap", compose([LEFT!, RIGHT!], stacked(0), VERSION)],
  ["a stack with a gap", compose([LEFT!, RIGHT!], stacked(0.02), VERSION)],
])("%s: canvas and render differ by less than two levels of 255 on average", (_, shown) => {
  const [canvas, render] = [onCanvas(shown), inRender(shown)];
  // Chroma has a sample for four pixels: at the border of a pane to black it is told apart by no more than that.
  const edges = shown.panes.flatMap(({ target: { x, y, width, height } }) => [
    { axis: "x", at: (x * CANVAS.width) / VERSION.width },
    { axis: "x", at: ((x + width) * CANVAS.width) / VERSION.width },
    { axis: "y", at: (y * CANVAS.height) / VERSION.height },
    { axis: "y", at: ((y + height) * CANVAS.height) / VERSION.height },
  ]);
  const isInside = (i: number) => {
    const place = { x: Math.floor(i / 3) % CANVAS.width, y: Math.floor(i / 3 / CANVAS.width) };
    return edges.every(({ axis, at }) => Math.abs(place[axis as "x" | "y"] + 0.5 - at) > 3);
  };
  const inside = difference(canvas, render, isInside);
  expect(inside.mean).toBeLessThan(2);
  expect(inside.largest).toBeLessThan(8);
  expect(difference(canvas, render).mean).toBeLessThan(3);
});

/** A bar of a colour over a window, in a version as small as the canvas. */
function withBar(change: Partial<ShapeLayer>): Composition {
  const layer = { ...newBar("bar"), width: 0.6, height: 0.7, x: 0.5, y: 0.4, corner: 40, opacity: 100, ...change };
  const at = [{ layer, opacity: layer.opacity / 100, shift: { x: 0, y: 0 } }];
  return { ...fill(CENTRE, CANVAS), layers: { ground: groundOf({ ...CANVAS, safeArea: null }), at } };
}

test.each([
  ["soft", { softness: 60, colour: "#e0b030" }],
  ["multiplied", { blend: "multiply" as const, colour: "#c07040" }],
  ["screened", { blend: "screen" as const, colour: "#305080" }],
  ["soft, screened and half of it", { blend: "screen" as const, softness: 80, opacity: 50, colour: "#f04020" }],
])("a layer that is %s: canvas and render differ by less than two levels on average", (_, change) => {
  const shown = withBar(change);
  const resampler = renderOf(shown);
  new LayerPainter(resampler, { image: () => null }).paint(shown);
  const [canvas, render] = [onCanvas(shown), rgbOfYuv(resampler.target, CANVAS)];
  expect(difference(canvas, render).mean).toBeLessThan(2);
  // At its border four pixels have one sample of chroma.
  const inner = { x: 50, y: 95, width: 80, height: 95 };
  const isInside = (i: number) => {
    const pixel = Math.floor(i / 3);
    return boxContains(inner, { x: pixel % CANVAS.width, y: Math.floor(pixel / CANVAS.width), width: 1, height: 1 });
  };
  expect(difference(canvas, render, isInside).largest).toBeLessThan(10);
  // It is there to be seen.
  expect(difference(onCanvas(shown), onCanvas({ ...shown, layers: null })).mean).toBeGreaterThan(4);
});

test("round corners: canvas and render differ by less than two levels on average", () => {
  const shown = withEdge({ look: "shadow", corner: 60 });
  // Single pixels that the border of a corner goes through have the chroma of four.
  expect(difference(onCanvas(shown), inRender(shown)).mean).toBeLessThan(1.5);
});

test("mirrored edges: canvas and render differ by less than three levels on average", () => {
  const shown = compose([CENTRE], ground({ kind: "mirror", darkness: 30 }), VERSION);
  const { mean, largest } = difference(onCanvas(shown), inRender(shown), (i) => {
    const row = Math.floor(i / 3 / CANVAS.width);
    return row < 100 || row > 220;
  });
  // The render mirrors whole rows of pixels, of chroma two at a time; the canvas between them.
  expect(mean).toBeLessThan(3);
  expect(largest).toBeLessThan(16);
});
