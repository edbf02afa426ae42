/** Names of exported files, made from a pattern. */
import { z } from "zod";

/** Names that a pattern can have in braces. */
export const NAME_PARTS = ["film", "version", "size", "date", "number"] as const;
export type NamePart = (typeof NAME_PARTS)[number];

export const NamePattern = z.string().trim().min(1).max(120);
export const USUAL_PATTERN = "{film} {size}";

/** Most bytes of a name, of the 255 that file systems allow: a number and an extension have to fit. */
const MOST_BYTES = 200;
/** Characters that common file systems do not allow in names. */
// eslint-disable-next-line no-control-regex
const FORBIDDEN = /[/\\:*?"<>|\u0000-\u001f]/g;

/** A text as part of a file name. */
export const asName = (text: string): string => text.replaceAll(FORBIDDEN, "-");

/** A film's name without its file extension. */
export const titleOf = (film: string): string => film.replace(/(?<=.)\.[^.]+$/, "");

/**
 * Values for a pattern, for a version of a film.
 * @param film name of its file
 * @param number of the version among those exported together, from 1
 * @param now its day is that of the local time zone
 */
export const namePartsOf = (
  film: string,
  { name, width, height }: { name: string; width: number; height: number },
  number: number,
  now = new Date(),
): Record<NamePart, string> => ({
  film: titleOf(film),
  version: name,
  size: `${width}x${height}`,
  // Sweden writes dates as ISO 8601 does.
  date: now.toLocaleDateString("sv-SE"),
  number: String(number),
});

/**
 * The name that a pattern makes, without an extension. Unknown names in braces stay as they are; a name that would be empty
 * or hidden becomes the film's.
 */
export function nameBy(pattern: string, parts: Record<NamePart, string>): string {
  const name = pattern.replaceAll(/\{(\w+)\}/g, (whole, part: string) =>
    Object.hasOwn(parts, part) ? parts[part as NamePart] : whole,
  );
  const plain = (text: string) => shortened(asName(text).trim().replace(/^\.+/, "")).trim();
  return plain(name) || plain(parts.film) || "export";
}

/** Bytes of a character in UTF-8. */
const utf8Bytes = (code: number): number => (code < 0x80 ? 1 : code < 0x800 ? 2 : code < 0x1_0000 ? 3 : 4);

/** The beginning of a name, within the byte limit, in whole characters. */
function shortened(name: string): string {
  let bytes = 0;
  let end = 0;
  for (const character of name) {
    bytes += utf8Bytes(character.codePointAt(0)!);
    if (bytes > MOST_BYTES) break;
    end += character.length;
  }
  return name.slice(0, end);
}

/** A name, and then the same with a number in brackets, endlessly. */
export function* namesLike(base: string, extension: string): Generator<string, never> {
  yield `${base}${extension}`;
  for (let n = 2; ; n++) yield `${base} (${n})${extension}`;
}

/** The first of these names that is not taken. */
export function freeName(base: string, extension: string, isTaken: (name: string) => boolean): string {
  const names = namesLike(base, extension);
  for (;;) {
    const { value } = names.next();
    if (!isTaken(value)) return value;
  }
}
