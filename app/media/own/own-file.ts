/** What an editor brings in beside films: pictures and fonts. */
import { createHash } from "node:crypto";
import { FileRefusal } from "~/core/basics/refusal";
import { readFileSync } from "node:fs";

/** A file cannot be used; the message is a sentence for people. */
export class OwnFileError extends FileRefusal {
  override name = "OwnFileError";
}

/** The id of a file, by what is in it: the same, brought in twice, is one. */
export const contentId = (bytes: Buffer): string => createHash("sha256").update(bytes).digest("hex").slice(0, 32);

/** Whether a file begins with these bytes. */
export const startsWith = (bytes: Buffer, ...values: number[]): boolean =>
  values.every((value, i) => bytes[i] === value);

/** Files by id: what is in them, or where they are. */
export type OwnData = ReadonlyMap<string, Buffer | string>;

export const bytesOf = (data: Buffer | string): Buffer => (typeof data === "string" ? readFileSync(data) : data);
