/** Names of exported files, by a pattern. */
import { z } from "zod";

/** What a pattern can have in braces. */
export const NAME_PARTS = ["film", "version", "size", "date", "number"] as const;
export type NamePart = (typeof NAME_PARTS)[number];

export const NamePattern = z.string().trim().min(1).max(120);
export const USUAL_PATTERN = "{film} {size}";

/** File systems take names of up to 255 bytes; there has to be room for an extension and a number. */
const MOST_LETTERS = 100;
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
  ...{ film: titleOf(film), version: name, size: `${width}x${height}` },
  // The Swedish way to write a day is the one of ISO 8601.
  ...{ date: now.toLocaleDateString("sv-SE"), number: String(number) },
});

/**
 * The name that a pattern makes, without an extension. What is in braces and no part stays as it is; a name that would be
 * empty, or hidden, is the film's.
 */
export function nameBy(pattern: string, parts: Record<NamePart, string>): string {
  const name = pattern.replaceAll(/\{(\w+)\}/g, (whole, part: string) =>
    part in parts ? parts[part as NamePart] : whole,
  );
  const plain = asName(name).trim().replace(/^\.+/, "").slice(0, MOST_LETTERS).trim();
  return plain || asName(parts.film) || "export";
}

/** A name that is not taken: with a number in brackets behind it where it is. */
export function freeName(base: string, extension: string, isTaken: (name: string) => boolean): string {
  for (let n = 1; ; n++) {
    const name = n === 1 ? `${base}${extension}` : `${base} (${n})${extension}`;
    if (!isTaken(name)) return name;
  }
}
