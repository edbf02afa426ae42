/** Captions of a render: in a file beside it, or as a track of it. */
import { mkdtemp, rm, writeFile } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join, parse } from "node:path";
import { type CaptionText, captionsIn } from "~/core/captions/caption";
import { writeSrt, writeVtt } from "~/core/captions/write-captions";
import type { FrameRange, Rate } from "~/core/time/rate";
import { writeNamed } from "~/disk/write-aside.server";

/** The captions of a version of a film. */
export interface SaidIn {
  captions: readonly CaptionText[];
  /** The ranges of the film that the version shows. */
  kept: readonly FrameRange[];
  rate: Rate;
}

/**
 * Writes captions beside a film, as SubRip and as WebVTT; nothing where there are none.
 * @param replaces whether files of these names are replaced; otherwise the new ones get a number
 * @returns the names of the files
 */
export async function writeSidecars(
  film: string,
  { captions, kept, rate }: SaidIn,
  replaces = true,
): Promise<string[]> {
  const said = captionsIn(captions, kept);
  if (said.length === 0) return [];
  const { dir, name } = parse(film);
  const texts = { ".srt": writeSrt(said, rate), ".vtt": writeVtt(said, rate) };
  const names: string[] = [];
  for (const [extension, text] of Object.entries(texts)) {
    const file = join(dir, `${name}${extension}`);
    names.push((await writeNamed(file, replaces, (aside) => writeFile(aside, text))).name);
  }
  return names;
}

/** Gives work a file for a caption track; null without captions. */
export async function withTrack<T>(
  { captions, kept, rate }: SaidIn,
  work: (file: string | undefined) => Promise<T>,
): Promise<T> {
  const srt = writeSrt(captionsIn(captions, kept), rate);
  if (srt === "") return work(undefined);
  const folder = await mkdtemp(join(tmpdir(), "glad-pan-captions-"));
  try {
    const file = join(folder, "captions.srt");
    await writeFile(file, srt);
    return await work(file);
  } finally {
    await rm(folder, { recursive: true });
  }
}
