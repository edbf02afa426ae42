import { readFile } from "node:fs/promises";

const startsWith = (bytes: Uint8Array, ...mark: number[]): boolean => mark.every((byte, i) => bytes[i] === byte);

/** In UTF-16 without a byte order mark, about every second byte of most of the world's files is 0. */
function wideWithoutMark(bytes: Uint8Array): "utf-16le" | "utf-16be" | null {
  const head = bytes.subarray(0, 200);
  const zeros = (odd: number) => head.filter((byte, i) => i % 2 === odd && byte === 0).length;
  const many = head.length / 5;
  if (head.length < 4) return null;
  if (zeros(1) > many && zeros(0) === 0) return "utf-16le";
  return zeros(0) > many && zeros(1) === 0 ? "utf-16be" : null;
}

/**
 * Decodes text: UTF-16 or UTF-8 by byte order mark or content, and anything else as Windows-1252, which includes Latin-1.
 */
export function decodeText(bytes: Uint8Array): string {
  const wide = startsWith(bytes, 0xff, 0xfe) ? "utf-16le" : startsWith(bytes, 0xfe, 0xff) ? "utf-16be" : null;
  const encoding = wide ?? wideWithoutMark(bytes);
  if (encoding) return new TextDecoder(encoding).decode(bytes);
  try {
    return new TextDecoder("utf-8", { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder("windows-1252").decode(bytes);
  }
}

/** The text of a file in any encoding. */
export const readText = async (file: string): Promise<string> => decodeText(await readFile(file));
