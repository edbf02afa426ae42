/** Unfinished uploads, as the upload server stores them. */
import { readdirSync, readFileSync, statSync } from "node:fs";
import { join } from "node:path";
import { z } from "zod";
import type { UnfinishedUpload } from "~/core/film/unfinished-upload";
import { uploadsFolder } from "~/db/workplace.server";

/** As the upload server names them. */
export const UPLOAD_ID = /^[\da-f]{32}$/;

/** Most bytes of a name on any file system. */
const LONGEST_NAME = 200;

/** A film's name, from the file name given by a browser: one printable line without a path. */
export function filmNameOf(given: string | null | undefined): string {
  const last = (given ?? "").split(/[/\\]/).at(-1)!;
  // Control characters, and those that reverse the direction of writing.
  const clean = last.replaceAll(/[\p{Cc}\p{Cf}\p{Zl}\p{Zp}\p{Cs}]/gu, "").trim();
  const letters = [...(clean || "film")];
  while (Buffer.byteLength(letters.join("")) > LONGEST_NAME) letters.splice(Math.floor(letters.length / 2), 1);
  return letters.join("");
}

interface KeptUpload extends UnfinishedUpload {
  /** Time of the last data received, in milliseconds. */
  cameAt: number;
}

const Kept = z.object({
  size: z.number(),
  metadata: z.object({ filename: z.string().nullish(), changed: z.string().nullish() }).nullish(),
});

export const uploadFile = (id: string): string => join(uploadsFolder(), id);

/** An unfinished upload; null if there is none with this id. */
export function findUpload(id: string): KeptUpload | null {
  if (!UPLOAD_ID.test(id)) return null;
  try {
    const { size: arrived, mtimeMs: cameAt } = statSync(uploadFile(id));
    const { size, metadata } = Kept.parse(JSON.parse(readFileSync(`${uploadFile(id)}.json`, "utf8")));
    const changed = Number(metadata?.changed ?? NaN);
    const changedAt = Number.isFinite(changed) ? changed : null;
    return { id, name: filmNameOf(metadata?.filename), size, arrived, changedAt, cameAt };
  } catch {
    return null;
  }
}

/** All unfinished uploads, the latest first. */
export function listUploads(): KeptUpload[] {
  let names: string[];
  try {
    names = readdirSync(uploadsFolder());
  } catch {
    return [];
  }
  return names.flatMap((name) => findUpload(name) ?? []).sort((a, b) => b.cameAt - a.cameAt);
}

/** Time without data after which an upload is not under way. */
const IDLE_MS = 10 * 60 * 1000;

/** Bytes still to come in uploads under way. */
export const bytesToCome = (now = Date.now()): number =>
  listUploads()
    .filter(({ cameAt }) => now - cameAt < IDLE_MS)
    .reduce((sum, { size, arrived }) => sum + size - arrived, 0);
