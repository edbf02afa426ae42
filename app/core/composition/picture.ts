/** A picture of the editor's own that has been brought in. */
import { z } from "zod";
import { ContentId } from "../ids";

export const PICTURE_KINDS = { png: "image/png", jpg: "image/jpeg", webp: "image/webp" } as const;
export type PictureKind = keyof typeof PICTURE_KINDS;

/** What a picture may have: bytes as a file, and pixels along a side. */
export const MOST_PICTURE_BYTES = 30 * 2 ** 20;
export const MOST_PICTURE_SIDE = 8192;

export const Picture = z.object({
  id: ContentId,
  /** Of its file. */
  name: z.string().min(1).max(200),
  width: z.int().positive(),
  height: z.int().positive(),
});
export type Picture = z.infer<typeof Picture>;
