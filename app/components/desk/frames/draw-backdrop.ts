import { assertNever } from "~/core/basics/assert-never";
import { type Backdrop, blur, blurRadius, pictureBox, reducedSize } from "~/core/composition/backdrop";
import type { Composition, Pane } from "~/core/composition/composition";
import type { LaidOut } from "~/core/composition/layout";
import { drawPane } from "./draw-pane";
import type { PictureSource } from "./moving-pictures";

/** Small canvas in which a picture is blurred, by the canvas it is for, with whose size it changes. */
const reduced = new WeakMap<HTMLCanvasElement, HTMLCanvasElement>();

function reducedFor(canvas: HTMLCanvasElement): HTMLCanvasElement {
  const known = reduced.get(canvas);
  const small = known ?? canvas.ownerDocument.createElement("canvas");
  if (!known) reduced.set(canvas, small);
  const { width, height } = reducedSize(canvas);
  if (small.width !== width) small.width = width;
  if (small.height !== height) small.height = height;
  return small;
}

/**
 * Fills a canvas with the backdrop behind the panes, as the render does.
 * @param source the part of the video that it is made from, in the video's own pixels
 * @param pane the pane in front of it
 * @param sourceOf gives the editor's own pictures
 */
export function drawBackdrop(
  canvas: HTMLCanvasElement,
  video: HTMLVideoElement,
  { look, source, own }: NonNullable<Composition["backdrop"]>,
  pane: Pane,
  sourceOf: PictureSource,
): void {
  const context = canvas.getContext("2d")!;
  const { width, height } = canvas;
  switch (look.kind) {
    case "colour":
      context.fillStyle = look.colour;
      return context.fillRect(0, 0, width, height);
    case "gradient": {
      const gradient = context.createLinearGradient(0, 0, 0, height);
      gradient.addColorStop(0, look.top);
      gradient.addColorStop(1, look.foot);
      context.fillStyle = gradient;
      return context.fillRect(0, 0, width, height);
    }
    case "picture": {
      context.fillStyle = look.colour;
      context.fillRect(0, 0, width, height);
      const shown = own && sourceOf(own);
      const box = pictureBox(look, canvas);
      return shown ? context.drawImage(shown.image, box.x, box.y, box.width, box.height) : undefined;
    }
    case "mirror":
      return drawMirrored(context, video, pane, look.darkness);
    case "blur": {
      const small = reducedFor(canvas);
      drawBlurred(small, video, source, look);
      return context.drawImage(small, 0, 0, width, height);
    }
    default:
      return assertNever(look);
  }
}

/** Tiles the pane's picture, each copy reflected, up to the canvas's edges. */
function drawMirrored(context: CanvasRenderingContext2D, video: HTMLVideoElement, pane: Pane, darkness: number): void {
  const { x, y, width, height } = pane.target;
  const { canvas } = context;
  const times = (before: number, length: number) => Math.ceil(before / length - 1e-6);
  context.save();
  for (let i = -times(x, width); i <= times(canvas.width - x - width, width); i++) {
    for (let j = -times(y, height); j <= times(canvas.height - y - height, height); j++) {
      const [turnedX, turnedY] = [i % 2 !== 0, j % 2 !== 0];
      context.setTransform(
        ...([turnedX ? -1 : 1, 0, 0, turnedY ? -1 : 1] as const),
        turnedX ? 2 * x + (i + 1) * width : i * width,
        turnedY ? 2 * y + (j + 1) * height : j * height,
      );
      drawPane(context, video, pane);
    }
  }
  context.restore();
  context.fillStyle = `rgb(0 0 0 / ${darkness}%)`;
  context.fillRect(0, 0, canvas.width, canvas.height);
}

function drawBlurred(
  small: HTMLCanvasElement,
  video: HTMLVideoElement,
  { x, y, width, height }: NonNullable<LaidOut["backdrop"]>["source"],
  { strength, darkness }: Extract<Backdrop, { kind: "blur" }>,
): void {
  // The pixels are read back at every frame.
  const context = small.getContext("2d", { willReadFrequently: true })!;
  context.imageSmoothingQuality = "high";
  context.drawImage(video, x, y, width, height, 0, 0, small.width, small.height);
  const image = context.getImageData(0, 0, small.width, small.height);
  blur(image.data, image, blurRadius(strength), 4);
  const left = 1 - darkness / 100;
  for (let i = 0; i < image.data.length; i++) if (i % 4 < 3) image.data[i]! *= left;
  context.putImageData(image, 0, 0);
}
