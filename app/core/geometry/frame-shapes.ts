/** Common aspect ratios of frames, and changing a size. */
import type { Size } from "./box";
import { shapesTexts } from "../../texts/shapes";

const t = shapesTexts.frameShapes;

export interface FrameShape {
  /** "Vertical 9:16" */
  name: string;
  /** Usual sizes, the most usual one first. */
  sizes: readonly Size[];
}

const sizes = (...all: [width: number, height: number][]): Size[] => all.map(([width, height]) => ({ width, height }));

export const FRAME_SHAPES: readonly FrameShape[] = [
  { name: t.vertical916, sizes: sizes([1080, 1920], [720, 1280], [2160, 3840]) },
  { name: t.portrait45, sizes: sizes([1080, 1350], [720, 900], [2160, 2700]) },
  { name: t.square11, sizes: sizes([1080, 1080], [720, 720], [2160, 2160]) },
  { name: t.classic43, sizes: sizes([1440, 1080], [960, 720], [2880, 2160]) },
  { name: t.wide169, sizes: sizes([1920, 1080], [1280, 720], [3840, 2160]) },
  { name: t.cinema219, sizes: sizes([2520, 1080], [1680, 720], [5040, 2160]) },
];

/** The common aspect ratio of a size; undefined for any other. */
export const shapeOf = ({ width, height }: Size): FrameShape | undefined =>
  FRAME_SHAPES.find(({ sizes: [usual] }) => width * usual!.height === height * usual!.width);

/** Name of a version of some size until it is given one. */
export const nameOfSize = (size: Size): string => shapeOf(size)?.name ?? `${size.width} × ${size.height}`;

/** The nearest even number of pixels, because of 4:2:0 chroma. */
export const even = (pixels: number): number => 2 * Math.round(pixels / 2);

/** A size with another width or height; with `ratio`, width over height, the other side follows. */
export function resized(size: Size, side: "width" | "height", pixels: number, ratio: number | null): Size {
  const next = { ...size, [side]: even(pixels) };
  if (ratio === null) return next;
  return side === "width"
    ? { ...next, height: even(next.width / ratio) }
    : { ...next, width: even(next.height * ratio) };
}

export const swapped = ({ width, height }: Size): Size => ({ width: height, height: width });

/** Scale of the picture at the largest window: less than 1 where it is reduced. */
export const leastEnlargement = (picture: Size, target: Size): number =>
  Math.max(target.width / picture.width, target.height / picture.height);
