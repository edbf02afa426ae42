/** A picture of the editor's own that has been brought in: one that stands still, or one that moves. */
import { z } from "zod";
import type { Box, Point, Size } from "../geometry/box";
import { ContentId } from "../basics/ids";
import { framesPerSecond, Rate } from "../time/rate";

export const PICTURE_KINDS = { png: "image/png", jpg: "image/jpeg", webp: "image/webp" } as const;
export type PictureKind = keyof typeof PICTURE_KINDS;

/** What a picture may have: bytes as a file, and pixels along a side. */
export const MOST_PICTURE_BYTES = 30 * 2 ** 20;
export const MOST_PICTURE_SIDE = 8192;
/** What one that moves may have: bytes as a file, and seconds. */
export const MOST_MOVING_BYTES = 2 * 2 ** 30;
export const MOST_MOVING_SECONDS = 20 * 60;

/** What a picture has that moves. */
export const Moving = z.object({ frames: z.int().positive(), rate: Rate, sound: z.boolean() });
export type Moving = z.infer<typeof Moving>;

export const Picture = z.object({
  id: ContentId,
  /** Of its file. */
  name: z.string().min(1).max(200),
  width: z.int().positive(),
  height: z.int().positive(),
  /** Left out of one that stands still. */
  moving: Moving.optional(),
});
export type Picture = z.infer<typeof Picture>;

/** How slowly and how quickly a picture can be played, in times of its own speed. */
export const SPEEDS = [0.1, 4] as const;

/** How a picture that moves is played. */
export const Playback = z.object({
  /** The frame of its own that comes first. */
  from: z.int().min(0),
  speed: z.number().min(SPEEDS[0]).max(SPEEDS[1]),
  /** Whether it begins again after its last frame, which stands otherwise. */
  loops: z.boolean(),
});
export type Playback = z.infer<typeof Playback>;
export const USUAL_PLAYBACK: Playback = { from: 0, speed: 1, loops: true };

/** A picture at a moment. */
export interface PictureAt {
  picture: Picture;
  /** Of its own frames; 0 for one that stands still. */
  frame: number;
  playback: Playback;
  /** Whether its sound is heard. */
  sounds?: boolean;
  /** Which use of it this is: the same picture may be at several moments at once. */
  slot: string;
}

/** The frame of a picture that has been played for so many seconds. */
export function frameAfter({ moving }: Pick<Picture, "moving">, { from, speed, loops }: Playback, seconds: number) {
  if (!moving) return 0;
  // A little on, so that whole frames are not lost to rounding.
  const passed = Math.max(0, Math.floor(seconds * speed * framesPerSecond(moving.rate) + 1e-6));
  const first = Math.min(from, moving.frames - 1);
  return loops ? first + (passed % (moving.frames - first)) : Math.min(moving.frames - 1, first + passed);
}

/** Where a picture is that fits into a box whole, or fills it, in its middle. */
export function fittedBox(picture: Size, fit: "whole" | "fill", { x, y, width, height }: Box): Box {
  const [across, down] = [width / picture.width, height / picture.height];
  const scale = fit === "whole" ? Math.min(across, down) : Math.max(across, down);
  const [wide, high] = [scale * picture.width, scale * picture.height];
  return { x: x + (width - wide) / 2, y: y + (height - high) / 2, width: wide, height: high };
}

/**
 * The part of a picture that fills a box.
 *
 * @param zoom 1 for as much as fills it
 * @param place where that part is in what is left of the picture: 0 for its left or top, 1 for its right or foot
 */
export function filledPart(picture: Size, { width, height }: Size, zoom: number, place: Point): Box {
  const scale = zoom * Math.max(width / picture.width, height / picture.height);
  const part = { width: width / scale, height: height / scale };
  return { x: place.x * (picture.width - part.width), y: place.y * (picture.height - part.height), ...part };
}
