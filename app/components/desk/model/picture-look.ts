import { z } from "zod";

/** A smaller picture shows nothing well, in percent of the room. */
export const LEAST_PICTURE_SIZE = 40;

const Percent = z.number().min(0).max(100);

/** How the picture is looked at. */
const PictureLook = z.object({
  /** How dark what falls outside the window is: 0 for not at all, 100 for hidden. */
  shade: Percent.default(55),
  /** Thirds and middle of the window, and the eye line. */
  guides: z.boolean().default(false),
  /** The way of the window's centre over the shot. */
  trail: z.boolean().default(false),
  /** What a phone covers of the frame. */
  safeArea: z.boolean().default(false),
  subjects: z.boolean().default(false),
  /** The picture's size, in percent of what the desk has room for. */
  size: z.number().min(LEAST_PICTURE_SIZE).max(100).default(100),
});
export type PictureLook = z.infer<typeof PictureLook>;

/** Shaded as usual, hidden, and fully open. */
const SHADES = [55, 100, 0] as const;

/** The next of the ways to shade what is outside the window; the usual one after any other. */
export const nextShade = (shade: number): number => SHADES[(SHADES.findIndex((one) => one === shade) + 1) % 3]!;

/** Reads what a browser remembers; the usual look where it remembers none, or nothing that makes sense. */
export function readPictureLook(text: string | null): PictureLook {
  try {
    return PictureLook.parse(JSON.parse(text ?? "{}"));
  } catch {
    return PictureLook.parse({});
  }
}
