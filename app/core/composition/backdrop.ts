/** Backdrop behind a film that does not cover its frame. */
import { z } from "zod";
import { type Box, type Size, wholeOf } from "../geometry/box";
import { even } from "../geometry/frame-shapes";
import type { Samples } from "../image/bit-depth";
import { Colour } from "./colour";
import { fittedBox, Picture, Playback, USUAL_PLAYBACK } from "./picture";

/** Strongest zoom into the blurred picture behind the film. */
export const MOST_BACKDROP_ZOOM = 3;

const Percent = z.number().min(0).max(100);

export const Backdrop = z.discriminatedUnion("kind", [
  /**
   * The picture itself, out of focus: `strength` from 0 for hardly, `darkness` up to 100 for black, `zoom` into its centre.
   */
  z.object({
    kind: z.literal("blur"),
    strength: Percent,
    darkness: Percent,
    zoom: z.number().min(1).max(MOST_BACKDROP_ZOOM).default(1),
  }),
  /** The picture continues reflected beyond its borders. */
  z.object({ kind: z.literal("mirror"), darkness: Percent }),
  z.object({ kind: z.literal("colour"), colour: Colour }),
  /** From the frame's top to its foot. */
  z.object({ kind: z.literal("gradient"), top: Colour, foot: Colour }),
  /** One of the editor's own pictures: whole, over a colour, or filling the frame. */
  z.object({
    kind: z.literal("picture"),
    picture: Picture,
    fit: z.enum(["whole", "fill"]),
    colour: Colour,
    playback: Playback.default(USUAL_PLAYBACK),
  }),
]);
export type Backdrop = z.infer<typeof Backdrop>;

export const USUAL_BACKDROP: Backdrop = { kind: "blur", strength: 50, darkness: 35, zoom: 1 };

/** Whether a backdrop may be mistaken for bars, since nothing of the film is in it. */
export const isEven = ({ kind }: Backdrop): boolean => kind === "colour" || kind === "gradient" || kind === "picture";

/** Place of a picture behind the film, in pixels of the frame. */
export const pictureBox = ({ picture, fit }: Extract<Backdrop, { kind: "picture" }>, frame: Size): Box =>
  fittedBox(picture, fit, wholeOf(frame));

/** Longer side to which a frame is reduced before it is blurred: a blurred picture has no detail. */
const REDUCED_SIDE = 240;
/** Radius of each box blur, in reduced samples, at the greatest and the least strength. */
const MOST_RADIUS = 12;
const LEAST_RADIUS = 2;
/** Three box blurs in a row approximate a Gaussian (Kovesi 2010). */
export const PASSES = 3;

/** Size to which a frame is reduced for its backdrop; both sides even. */
export function reducedSize({ width, height }: Size): Size {
  const scale = Math.min(1, REDUCED_SIDE / Math.max(width, height));
  const reduced = (side: number) => Math.max(2, even(scale * side));
  return { width: reduced(width), height: reduced(height) };
}

/** Radius of each box blur, in samples of the reduced frame; even, so that it can be halved for chroma. */
export const blurRadius = (strength: number): number =>
  2 * Math.round((LEAST_RADIUS + (strength / 100) * (MOST_RADIUS - LEAST_RADIUS)) / 2);

/** One box blur along lines of samples; the last sample repeats beyond a line's ends. */
function boxBlur(
  from: Samples | Uint8ClampedArray,
  to: Samples | Uint8ClampedArray,
  { lines, length, across, along }: { lines: number; length: number; across: number; along: number },
  radius: number,
): void {
  const count = 2 * radius + 1;
  const half = count >> 1;
  const padded = new Uint16Array(length + count);
  for (let line = 0; line < lines; line++) {
    const first = line * across;
    const last = first + (length - 1) * along;
    padded.fill(from[first]!, 0, radius);
    for (let i = radius, at = first; at <= last; i++, at += along) padded[i] = from[at]!;
    padded.fill(from[last]!, radius + length);
    let sum = 0;
    for (let i = 0; i < count; i++) sum += padded[i]!;
    for (let i = 0, at = first; i < length; i++, at += along) {
      to[at] = Math.floor((sum + half) / count);
      sum += padded[i + count]! - padded[i]!;
    }
  }
}

/**
 * Blurs a plane in place.
 * @param channels values per sample, such as 4 for red, green, blue and alpha
 */
export function blur(
  samples: Samples | Uint8ClampedArray,
  { width, height }: Size,
  radius: number,
  channels = 1,
): void {
  const between = samples.slice();
  for (let channel = 0; channel < channels; channel++) {
    const [a, b] = [samples.subarray(channel), between.subarray(channel)];
    const line = width * channels;
    for (let pass = 0; pass < PASSES; pass++) {
      boxBlur(a, b, { lines: height, length: width, across: line, along: channels }, radius);
      boxBlur(b, a, { lines: width, length: height, across: channels, along: line }, radius);
    }
  }
}
