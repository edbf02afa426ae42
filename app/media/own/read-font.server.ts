/** Reads imported fonts, and says what is wrong with unusable ones. */
import { GlobalFonts } from "@napi-rs/canvas";
import { type FontKind, MOST_FONT_BYTES, ownFamily } from "~/core/composition/layers/own-font";
import { contentId, OwnFileError, startsWith } from "./own-file";
import { ownFileErrors } from "~/texts/own-file-errors";

const t = ownFileErrors.font;

export interface FontFile {
  id: string;
  bytes: Buffer;
  kind: FontKind;
}

/** Kind of a file, by its first bytes. */
function kindOf(bytes: Buffer): FontKind | null {
  const tag = bytes.toString("latin1", 0, 4);
  if (tag === "wOF2") return "woff2";
  if (tag === "OTTO") return "otf";
  return tag === "true" || startsWith(bytes, 0, 1, 0, 0) ? "ttf" : null;
}

/**
 * Reads a font: TrueType, OpenType or WOFF 2. It is then registered with canvases of this process.
 * @param name of the file, for messages
 * @throws OwnFileError if it is none, is too large, or is damaged
 */
export function readFont(bytes: Buffer, name: string): FontFile {
  if (bytes.length > MOST_FONT_BYTES) {
    throw new OwnFileError(`${name}: ${t.tooManyBytes(MOST_FONT_BYTES / 2 ** 20)}`);
  }
  const kind = kindOf(bytes);
  if (!kind) throw new OwnFileError(`${name}: ${t.notAFont}`);
  const id = contentId(bytes);
  if (!GlobalFonts.register(bytes, ownFamily(id))) {
    throw new OwnFileError(`${name}: ${t.damaged}`);
  }
  return { id, bytes, kind };
}
