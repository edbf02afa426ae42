/** One of the editor's own pictures in the library, still or moving. */
import { z } from "zod";
import type { Box, Point, Size } from "../geometry/box";
import { ContentId } from "../basics/ids";
import { framesPerSecond, Rate } from "../time/rate";

export const PICTURE_KINDS = { png: "image/png", jpg: "image/jpeg", webp: "image/webp" } as const;
export type PictureKind = keyof typeof PICTURE_KINDS;

/** Limits of a picture: bytes of the file, and pixels along a side. */
export const MOST_PICTURE_BYTES = 30 * 2 ** 20;
export const MOST_PICTURE_SIDE = 8192;
/** Limits of a moving picture: bytes of the file, and seconds. */
export const MOST_MOVING_BYTES = 2 * 2 ** 30;
export const MOST_MOVING_SECONDS = 20 * 60;

/** Facts of a moving picture. */
export const Moving = z.object({ frames: z.int().positive(), rate: Rate, sound: z.boolean() });
export type Moving = z.infer<typeof Moving>;

export const Picture = z.object({
  id: ContentId,
  /** Name of its file. */
  name: z.string().min(1).max(200),
  width: z.int().positive(),
  height: z.int().positive(),
  /** Left out for a still picture. */
  moving: Moving.optional(),
});
export type Picture = z.infer<typeof Picture>;

/** Slowest and fastest playback rate of a picture. */
export const SPEEDS = [0.1, 4] as const;

/** Playback of a moving picture. */
export const Playback = z.object({
  /** First frame, of its own. */
  from: z.int().min(0),
  speed: z.number().min(SPEEDS[0]).max(SPEEDS[1]),
  /** Whether it repeats after its last frame, which is held otherwise. */
  loops: z.boolean(),
});
export type Playback = z.infer<typeof Playback>;
export const USUAL_PLAYBACK: Playback = { from: 0, speed: 1, loops: true };

/** A picture at a moment. */
export interface PictureAt {
  picture: Picture;
  /** One of its own frames; 0 for a still picture. */
  frame: number;
  playback: Playback;
  /** Whether its sound is heard. */
  sounds?: boolean;
  /** Identifies this use: the same picture may be at several moments at once. */
  slot: string;
}

/** The frame of a picture after some seconds of playback. */
export function frameAfter({ moving }: Pick<Picture, "moving">, { from, speed, loops }: Playback, seconds: number) {
  if (!moving) return 0;
  // Slightly later, so that rounding loses no whole frame.
  const passed = Math.max(0, Math.floor(seconds * speed * framesPerSecond(moving.rate) + 1e-6));
  const first = Math.min(from, moving.frames - 1);
  return loops ? first + (passed % (moving.frames - first)) : Math.min(moving.frames - 1, first + passed);
}

/** Box of a picture fitted whole into a box, or filling it, centred. */
export function fittedBox(picture: Size, fit: "whole" | "fill", { x, y, width, height }: Box): Box {
  const [across, down] = [width / picture.width, height / picture.height];
  const scale = fit === "whole" ? Math.min(across, down) : Math.max(across, down);
  const [wide, high] = [scale * picture.width, scale * picture.height];
  return { x: x + (width - wide) / 2, y: y + (height - high) / 2, width: wide, height: high };
}

/**
 * The part of a picture that fills a box.
 * @param zoom 1 for as much as fills it
 * @param place of that part in the rest of the picture: 0 for left or top, 1 for right or foot
 */
export function filledPart(picture: Size, { width, height }: Size, zoom: number, place: Point): Box {
  const scale = zoom * Math.max(width / picture.width, height / picture.height);
  const part = { width: width / scale, height: height / scale };
  return { x: place.x * (picture.width - part.width), y: place.y * (picture.height - part.height), ...part };
}
