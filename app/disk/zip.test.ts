import { afterEach, beforeEach, expect, test } from "@jest/globals";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { buffer } from "node:stream/consumers";
import { openZip, zipOf } from "./zip.server";

let folder: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), "glad-pan-zip-"));
});
afterEach(() => rmSync(folder, { recursive: true }));

async function written(parts: Parameters<typeof zipOf>[0]): Promise<string> {
  const file = join(folder, "archive.zip");
  writeFileSync(file, await buffer(zipOf(parts)));
  return file;
}

/** The same archive, in which every entry is said to have so many bytes. */
function withSizes(file: string, bytes: number): string {
  const archive = readFileSync(file);
  // PKZIP APPNOTE 4.3.12: a central directory header, with the size that the entry has unpacked at byte 24.
  for (let at = archive.indexOf("PK\x01\x02"); at >= 0; at = archive.indexOf("PK\x01\x02", at + 4)) {
    archive.writeUInt32LE(bytes, at + 24);
  }
  writeFileSync(file, archive);
  return file;
}

test("what is written is read again, and how much it is is known before", async () => {
  const film = join(folder, "source.mp4");
  writeFileSync(film, Buffer.alloc(5000, 7));
  const zip = await openZip(
    await written([
      { name: "project.json", text: '{"film":"Kite Day"}' },
      { name: "source.mp4", file: film },
    ]),
  );
  expect([zip.names, zip.bytes, zip.bytesOf("source.mp4")]).toEqual([["project.json", "source.mp4"], 5019, 5000]);
  expect(await zip.readText("project.json", 19)).toBe('{"film":"Kite Day"}');
  const out = join(folder, "out.mp4");
  await zip.extract("source.mp4", out);
  expect(readFileSync(out)).toEqual(readFileSync(film));
  zip.close();
});

test("what is larger than may be read is not read", async () => {
  const zip = await openZip(await written([{ name: "project.json", text: "x".repeat(20) }]));
  expect([await zip.readText("project.json", 19), await zip.readBytes("project.json", 19)]).toEqual([null, null]);
  expect([await zip.readText("other", 19), await zip.readBytes("other", 19), zip.bytesOf("other")]).toEqual([
    null,
    null,
    0,
  ]);
  zip.close();
});

test("an archive that was packed to fill a disk is not opened", async () => {
  const bomb = written([{ name: "fonts/a.ttf", text: "0".repeat(2 ** 21) }]);
  await expect(bomb.then(openZip)).rejects.toThrow("fonts/a.ttf is packed to next to nothing");
  // Small things are packed as well as they can be.
  const small = await openZip(await written([{ name: "a.txt", text: "0".repeat(2 ** 19) }]));
  expect(small.bytes).toBe(2 ** 19);
  small.close();
});

test("nothing comes out that is larger than it was said to be", async () => {
  const zip = await openZip(withSizes(await written([{ name: "source.mp4", text: "film ".repeat(1000) }]), 100));
  const out = join(folder, "out.mp4");
  await expect(zip.extract("source.mp4", out)).rejects.toThrow("too many bytes");
  expect(readFileSync(out).length).toBeLessThanOrEqual(100);
  zip.close();
});
