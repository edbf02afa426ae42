import { assertNever } from "~/core/assert-never";
import { type Backdrop, blur, blurRadius, reducedSize } from "~/core/composition/backdrop";
import type { LaidOut } from "~/core/composition/layout";

/** The canvas on which a picture is blurred, one for each that is drawn on: its size changes with that one's only. */
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
 * Fills a canvas with what lies behind the panes, as the render does.
 *
 * @param source the part of the video that it is made of, in the video's own pixels
 */
export function drawBackdrop(
  canvas: HTMLCanvasElement,
  video: HTMLVideoElement,
  { look, source }: NonNullable<LaidOut["backdrop"]>,
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
    case "blur": {
      const small = reducedFor(canvas);
      drawBlurred(small, video, source, look);
      return context.drawImage(small, 0, 0, width, height);
    }
    default:
      return assertNever(look);
  }
}

function drawBlurred(
  small: HTMLCanvasElement,
  video: HTMLVideoElement,
  { x, y, width, height }: NonNullable<LaidOut["backdrop"]>["source"],
  { strength, darkness }: Extract<Backdrop, { kind: "blur" }>,
): void {
  // Its pixels are read back with every frame.
  const context = small.getContext("2d", { willReadFrequently: true })!;
  context.imageSmoothingQuality = "high";
  context.drawImage(video, x, y, width, height, 0, 0, small.width, small.height);
  const image = context.getImageData(0, 0, small.width, small.height);
  blur(image.data, image, blurRadius(strength), 4);
  const left = 1 - darkness / 100;
  for (let i = 0; i < image.data.length; i++) if (i % 4 < 3) image.data[i]! *= left;
  context.putImageData(image, 0, 0);
}
