import { z } from "zod";

/** Smallest size of the picture, in percent of its room: below it nothing can be recognised. */
export const LEAST_PICTURE_SIZE = 40;

const Percent = z.number().min(0).max(100);

/** How the picture is displayed. */
const PictureLook = z.object({
  /** Darkness outside the window: 0 for none, 100 for hidden. */
  shade: Percent.default(55),
  /** Thirds and centre of the window, and the eye line. */
  guides: z.boolean().default(false),
  /** The path of the window's centre over the shot. */
  trail: z.boolean().default(false),
  /** The outline of what a phone's interface covers. */
  safeArea: z.boolean().default(false),
  subjects: z.boolean().default(false),
  /** Size of the picture, in percent of its room on the desk. */
  size: z.number().min(LEAST_PICTURE_SIZE).max(100).default(100),
});
export type PictureLook = z.infer<typeof PictureLook>;

/** Shaded as usual, hidden, and fully open. */
const SHADES = [55, 100, 0] as const;

/** The next of these shades; the usual one after any other. */
export const nextShade = (shade: number): number => SHADES[(SHADES.findIndex((one) => one === shade) + 1) % 3]!;

/** Reads stored settings; the usual ones where there are none or they make no sense. */
export function readPictureLook(text: string | null): PictureLook {
  try {
    return PictureLook.parse(JSON.parse(text ?? "{}"));
  } catch {
    return PictureLook.parse({});
  }
}
