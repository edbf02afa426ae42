/** One of the editor's own fonts in the library. */
import { z } from "zod";
import { ContentId } from "../../basics/ids";

export const FONT_KINDS = { ttf: "font/ttf", otf: "font/otf", woff2: "font/woff2" } as const;
export type FontKind = keyof typeof FONT_KINDS;

export const MOST_FONT_BYTES = 20 * 2 ** 20;

export const OwnFont = z.object({
  id: ContentId,
  /** Name of its file. */
  name: z.string().min(1).max(200),
});
export type OwnFont = z.infer<typeof OwnFont>;

/** Its family name for drawing, which no other font has. */
export const ownFamily = (id: string): string => `Own ${id}`;
