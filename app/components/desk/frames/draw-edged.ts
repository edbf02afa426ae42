import { type Edge, edgeOf, type ShareAt } from "~/core/composition/edge";
import type { Pane } from "~/core/composition/composition";

interface Masks {
  /** Pane and canvas that they were made for. */
  key: string;
  cover: HTMLCanvasElement;
  shadow: HTMLCanvasElement | null;
  /** Canvas on which a pane is drawn before it is cut out. */
  scratch: HTMLCanvasElement;
}

/** Masks are made again only when the pane or the canvas changes size or place. */
const made = new WeakMap<HTMLCanvasElement, Masks>();

/** A black canvas with the given opacity at each pixel. */
function maskOf(canvas: HTMLCanvasElement, shareAt: ShareAt): HTMLCanvasElement {
  const mask = canvas.ownerDocument.createElement("canvas");
  [mask.width, mask.height] = [canvas.width, canvas.height];
  const context = mask.getContext("2d")!;
  const pixels = context.createImageData(canvas.width, canvas.height);
  for (let y = 0, i = 3; y < canvas.height; y++)
    for (let x = 0; x < canvas.width; x++, i += 4) pixels.data[i] = 255 * shareAt(x + 0.5, y + 0.5);
  context.putImageData(pixels, 0, 0);
  return mask;
}

function masksFor(canvas: HTMLCanvasElement, { x, y, width, height }: Pane["target"], edge: Edge): Masks {
  const key = [canvas.width, canvas.height, x, y, width, height, edge.look, edge.corner].join();
  const known = made.get(canvas);
  if (known?.key === key) return known;
  const { cover, shadow } = edgeOf(edge, { x, y, width, height }, canvas);
  const scratch = known?.scratch ?? canvas.ownerDocument.createElement("canvas");
  [scratch.width, scratch.height] = [canvas.width, canvas.height];
  const masks: Masks = {
    key: key,
    scratch,
    cover: maskOf(canvas, cover),
    shadow: edge.look === "shadow" ? maskOf(canvas, shadow) : null,
  };
  made.set(canvas, masks);
  return masks;
}

/** Draws a pane with its edge over what is on the canvas, as the render does. */
export function drawEdged(
  canvas: HTMLCanvasElement,
  { target }: Pane,
  edge: Edge,
  draw: (context: CanvasRenderingContext2D) => void,
): void {
  const context = canvas.getContext("2d")!;
  const { cover, shadow, scratch } = masksFor(canvas, target, edge);
  const cutOut = scratch.getContext("2d")!;
  cutOut.globalCompositeOperation = "copy";
  cutOut.imageSmoothingQuality = "high";
  draw(cutOut);
  cutOut.globalCompositeOperation = "destination-in";
  cutOut.drawImage(cover, 0, 0);
  if (shadow) context.drawImage(shadow, 0, 0);
  context.drawImage(scratch, 0, 0);
}
