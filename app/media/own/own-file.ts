/** The editor's own files beside films: pictures and fonts. */
import { createHash } from "node:crypto";
import { FileRefusal } from "~/core/basics/refusal";
import { readFileSync } from "node:fs";

/** A file cannot be used; the message is a sentence for people. */
export class OwnFileError extends FileRefusal {
  override name = "OwnFileError";
}

/** The id of a file, a hash of its content: the same file added twice is one. */
export const contentId = (bytes: Buffer): string => createHash("sha256").update(bytes).digest("hex").slice(0, 32);

/** Whether a file begins with these bytes. */
export const startsWith = (bytes: Buffer, ...values: number[]): boolean =>
  values.every((value, i) => bytes[i] === value);

/** Files by id: their content or their path. */
export type OwnData = ReadonlyMap<string, Buffer | string>;

export const bytesOf = (data: Buffer | string): Buffer => (typeof data === "string" ? readFileSync(data) : data);
