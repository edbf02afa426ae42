/** A font of the editor's own that has been brought in. */
import { z } from "zod";
import { ContentId } from "../../basics/ids";

export const FONT_KINDS = { ttf: "font/ttf", otf: "font/otf", woff2: "font/woff2" } as const;
export type FontKind = keyof typeof FONT_KINDS;

export const MOST_FONT_BYTES = 20 * 2 ** 20;

export const OwnFont = z.object({
  id: ContentId,
  /** Of its file. */
  name: z.string().min(1).max(200),
});
export type OwnFont = z.infer<typeof OwnFont>;

/** What it is called where texts are drawn: no other font is. */
export const ownFamily = (id: string): string => `Own ${id}`;
