/** Archives of a document and possibly one large file (ZIP, APPNOTE 6.3, with 64-bit sizes). */
import { createWriteStream } from "node:fs";
import { pipeline } from "node:stream/promises";
import type { Readable } from "node:stream";
import { buffer, text } from "node:stream/consumers";
import yauzl from "yauzl";
import yazl from "yazl";

/** Content of an archive: a text, or a file, which is stored uncompressed since films do not get any smaller. */
export type ZipPart = { name: string; text: string } | { name: string; file: string };

/** An archive as a stream, to be read to its end. */
export function zipOf(parts: readonly ZipPart[]): Readable {
  const zip = new yazl.ZipFile();
  for (const part of parts) {
    if ("text" in part) zip.addBuffer(Buffer.from(part.text), part.name);
    else zip.addFile(part.file, part.name, { compress: false });
  }
  zip.end();
  return zip.outputStream as Readable;
}

/** Compression ratio below which an entry was made to fill a disk. */
const MOST_PACKED = 1 / 200;
/** Bytes below which that does not matter. */
const SMALL_BYTES = 2 ** 20;

/** An open archive. */
export interface OpenZip {
  /** Names of its entries. */
  names: string[];
  /** Uncompressed bytes of all entries. */
  bytes: number;
  /** Uncompressed bytes of an entry. */
  bytesOf: (name: string) => number;
  /** Reads a text up to a limit in bytes; null where there is no entry of this name, or it is longer. */
  readText: (name: string, mostBytes: number) => Promise<string | null>;
  /** Reads an entry up to a limit in bytes; null where there is none of this name, or it is larger. */
  readBytes: (name: string, mostBytes: number) => Promise<Buffer | null>;
  /** Writes an entry to a file. */
  extract: (name: string, to: string) => Promise<void>;
  close: () => void;
}

/** @throws Error if it is no archive, or an entry is compressed too strongly to be genuine */
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
