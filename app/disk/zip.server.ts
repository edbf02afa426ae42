/** Archives that hold a document and maybe one large file (ZIP, APPNOTE 6.3, with 64-bit sizes). */
import { createWriteStream } from "node:fs";
import { pipeline } from "node:stream/promises";
import type { Readable } from "node:stream";
import { buffer, text } from "node:stream/consumers";
import yauzl from "yauzl";
import yazl from "yazl";

/** Something that is written into an archive: a text, or a file, which is stored as it is: films do not get any smaller. */
export type ZipPart = { name: string; text: string } | { name: string; file: string };

/** An archive as it is written, to be read to its end. */
export function zipOf(parts: readonly ZipPart[]): Readable {
  const zip = new yazl.ZipFile();
  for (const part of parts) {
    if ("text" in part) zip.addBuffer(Buffer.from(part.text), part.name);
    else zip.addFile(part.file, part.name, { compress: false });
  }
  zip.end();
  return zip.outputStream as Readable;
}

/** What is packed to less than this share of its size was made to be large. */
const MOST_PACKED = 1 / 200;
/** Bytes below which that does not matter. */
const SMALL_BYTES = 2 ** 20;

/** An archive that is open. */
export interface OpenZip {
  /** Names of what is in it. */
  names: string[];
  /** Bytes of all that is in it, unpacked. */
  bytes: number;
  /** Bytes of something that is in it, unpacked. */
  bytesOf: (name: string) => number;
  /** Reads a text of at most so many bytes; null where there is none of this name, or a longer one. */
  readText: (name: string, mostBytes: number) => Promise<string | null>;
  /** Reads what is in it, at most so many bytes; null where there is nothing of this name, or more. */
  readBytes: (name: string, mostBytes: number) => Promise<Buffer | null>;
  /** Writes something that is in it to a file. */
  extract: (name: string, to: string) => Promise<void>;
  close: () => void;
}

/** @throws Error if it is no archive, or something in it is packed to next to nothing */
export async function openZip(file: string): Promise<OpenZip> {
  const zip = await yauzl.openPromise(file, { lazyEntries: true, autoClose: false });
  const entries = new Map<string, yauzl.Entry>();
  try {
    for await (const entry of zip.eachEntry()) {
      const { fileName, compressedSize, uncompressedSize } = entry;
      if (uncompressedSize > SMALL_BYTES && compressedSize < MOST_PACKED * uncompressedSize) {
        throw new Error(`${fileName} is packed to next to nothing`);
      }
      entries.set(fileName, entry);
    }
  } catch (error) {
    zip.close();
    throw error;
  }
  const streamOf = async (name: string): Promise<Readable> => zip.openReadStreamPromise(entries.get(name)!);
  return {
    names: [...entries.keys()],
    bytes: [...entries.values()].reduce((sum, { uncompressedSize }) => sum + uncompressedSize, 0),
    bytesOf: (name) => entries.get(name)?.uncompressedSize ?? 0,
    readText: async (name, mostBytes) => {
      const entry = entries.get(name);
      if (!entry || entry.uncompressedSize > mostBytes) return null;
      return text(await streamOf(name));
    },
    readBytes: async (name, mostBytes) => {
      const entry = entries.get(name);
      if (!entry || entry.uncompressedSize > mostBytes) return null;
      return buffer(await streamOf(name));
    },
    extract: async (name, to) => pipeline(await streamOf(name), createWriteStream(to)),
    close: () => zip.close(),
  };
}
