/** Names of exported files, by a pattern. */
import { z } from "zod";

/** What a pattern can have in braces. */
export const NAME_PARTS = ["film", "version", "size", "date", "number"] as const;
export type NamePart = (typeof NAME_PARTS)[number];

export const NamePattern = z.string().trim().min(1).max(120);
export const USUAL_PATTERN = "{film} {size}";

/** Bytes of a name, of up to 255 that file systems take: there has to be room for a number and an extension. */
const MOST_BYTES = 200;
/** What no file system of common computers has in a name. */
// eslint-disable-next-line no-control-regex
const FORBIDDEN = /[/\\:*?"<>|\u0000-\u001f]/g;

/** A text as a part of a file's name. */
export const asName = (text: string): string => text.replaceAll(FORBIDDEN, "-");

/** A film's name without what its file ends with. */
export const titleOf = (film: string): string => film.replace(/(?<=.)\.[^.]+$/, "");

/**
 * What a pattern has to say of a version of a film.
 *
 * @param film as its file is called
 * @param number of it among those that are exported together, from 1
 * @param now its day is told as it is where this runs
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
  // The Swedish way to write a day is the one of ISO 8601.
  date: now.toLocaleDateString("sv-SE"),
  number: String(number),
});

/**
 * The name that a pattern makes, without an extension. What is in braces and no part stays as it is; a name that would be
 * empty, or hidden, is the film's.
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

/** The beginning of a name that file systems have room for, in whole characters. */
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

/** A name, and then the same with a number in brackets behind it, without end. */
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
