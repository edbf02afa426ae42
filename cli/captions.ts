/** Captions on the command line: from a file onto the picture, into a file beside it, or into a track of it. */
import { mkdtemp, rm, writeFile } from "node:fs/promises";
import { tmpdir } from "node:os";
import { basename, join, parse } from "node:path";
import { type Command, InvalidArgumentError } from "commander";
import { captionLayers } from "~/core/captions/burnt-in";
import { type Caption, captionsIn, captionsOf } from "~/core/captions/caption";
import { readCaptions } from "~/core/captions/read-captions";
import { writeSrt } from "~/core/captions/write-captions";
import type { TextLayer } from "~/core/composition/layers/layer";
import { counted } from "~/texts/numbers";
import type { FilmInfo } from "~/core/film-info";
import { Refusal } from "~/core/refusal";
import type { FrameRange } from "~/core/time/rate";
import { readText } from "~/disk/read-text.server";
import { writeAside } from "~/disk/write-aside.server";
import { UsageError } from "./options";

export interface CaptionOptions {
  captions?: string;
  captionsOffset: number;
  burn?: boolean;
  sidecar?: boolean;
  track?: boolean;
}

const MOST_OFFSET_SECONDS = 86_400;

function parseOffset(text: string): number {
  const seconds = Number(text);
  if (text.trim() === "" || !(Math.abs(seconds) <= MOST_OFFSET_SECONDS)) {
    throw new InvalidArgumentError("An offset is a number of seconds, such as 1.5 or -0.2.");
  }
  return seconds;
}

export const addCaptionOptions = (command: Command): Command =>
  command
    .option("--captions <file>", "an SRT or WebVTT file; burnt in unless one of the next three says otherwise")
    .option("--captions-offset <seconds>", "how much later captions come than the file says", parseOffset, 0)
    .option("--burn", "draw the captions on the picture")
    .option("--sidecar", "write the captions as SRT beside the result")
    .option("--track", "put the captions into the result as a track of text");

/** What a version gets of the captions of its film. */
export class FilmCaptions {
  private constructor(
    private readonly captions: readonly Caption[],
    private readonly options: CaptionOptions,
    private readonly info: FilmInfo,
    /** What to say of the file. */
    readonly said: readonly string[],
  ) {}

  /**
   * Reads the file of captions that was asked for.
   *
   * @returns null where none was
   * @throws UsageError if it cannot be used
   */
  static async open(options: CaptionOptions, info: FilmInfo): Promise<FilmCaptions | null> {
    const { captions: file, captionsOffset } = options;
    if (!file) {
      const wants = (["burn", "sidecar", "track"] as const).find((way) => options[way]);
      if (wants) throw new UsageError(`--${wants} needs --captions FILE`);
      return null;
    }
    const name = basename(file);
    const text = await readText(file).catch(() => {
      throw new UsageError(`${file}: the captions cannot be read; is the file there?`);
    });
    const { cues, problems } = await readCaptions(text, name).catch((error: unknown) => {
      throw error instanceof Refusal ? new UsageError(error.message) : error;
    });
    const captions = captionsOf(cues, info.rate, info.frames, captionsOffset);
    const beyond = cues.length - captions.length;
    const said = problems.map((problem) => `${name}, line ${problem.line}: ${problem.text}`);
    if (beyond > 0) said.push(`${name}: ${counted(beyond, "caption")} beyond the film's end left out.`);
    return new FilmCaptions(captions, options, info, said);
  }

  /** What is drawn on the picture. */
  layers(): TextLayer[] {
    const { burn, sidecar, track } = this.options;
    return burn || !(sidecar || track) ? captionLayers(this.captions) : [];
  }

  /** Writes them beside a result, where that was asked for. */
  async writeBeside(out: string, kept: readonly FrameRange[]): Promise<void> {
    if (!this.options.sidecar) return;
    const { dir, name } = parse(out);
    await writeAside(join(dir, `${name}.srt`), (aside) => writeFile(aside, this.srt(kept)));
  }

  /** Lets work have a file of what goes into a track; none where that was not asked for. */
  async withTrack<T>(kept: readonly FrameRange[], work: (file: string | undefined) => Promise<T>): Promise<T> {
    const srt = this.options.track ? this.srt(kept) : "";
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

  private srt(kept: readonly FrameRange[]): string {
    return writeSrt(captionsIn(this.captions, kept), this.info.rate);
  }
}
