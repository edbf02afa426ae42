/** Captions on the command line: burnt in, in a sidecar file, or in a caption track. */
import { basename } from "node:path";
import { type Command, InvalidArgumentError } from "commander";
import { type Caption, captionsOf, retimed } from "~/core/captions/caption";
import type { CaptionSettings } from "~/core/captions/caption-settings";
import { readCaptions } from "~/core/captions/read-captions";
import { counted } from "~/texts/numbers";
import type { FilmInfo } from "~/core/film/film-info";
import { Refusal } from "~/core/basics/refusal";
import type { FrameRange } from "~/core/time/rate";
import { readText } from "~/disk/read-text.server";
import { type SaidIn, withTrack, writeSidecars } from "~/pipelines/caption-files.server";
import { UsageError } from "./options";

export interface CaptionOptions {
  captions?: string;
  captionsOffset: number;
  captionsRate?: number;
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

function parseRate(text: string): number {
  const fps = Number(text);
  if (!(fps >= 1 && fps <= 1000)) throw new InvalidArgumentError("A rate is frames per second, such as 25 or 23.976.");
  return fps;
}

export const addCaptionOptions = (command: Command): Command =>
  command
    .option("--captions <file>", "an SRT or WebVTT file; burnt in unless one of the next three says otherwise")
    .option("--captions-offset <seconds>", "how much later captions come than the file says", parseOffset, 0)
    .option("--captions-rate <fps>", "frames per second that the captions were timed at, if not the film's", parseRate)
    .option("--burn", "draw the captions on the picture")
    .option("--sidecar", "write the captions beside the result, as SRT and WebVTT")
    .option("--track", "put the captions into the result as a text track");

/** @throws UsageError if it contains no caption */
function captionsFrom(text: string, name: string) {
  try {
    return readCaptions(text, name);
  } catch (error) {
    throw error instanceof Refusal ? new UsageError(error.message) : error;
  }
}

/** The captions of a film, as a version gets them. */
export class FilmCaptions {
  private constructor(
    readonly captions: readonly Caption[],
    private readonly options: CaptionOptions,
    private readonly info: FilmInfo,
    /** Messages about the file. */
    readonly said: readonly string[],
  ) {}

  /**
   * Reads the caption file that was given.
   * @returns null where none was
   * @throws UsageError if it cannot be used
   */
  static async open(options: CaptionOptions, info: FilmInfo): Promise<FilmCaptions | null> {
    const { captions: file, captionsOffset, captionsRate } = options;
    if (!file) {
      const wants = (["burn", "sidecar", "track"] as const).find((way) => options[way]);
      if (wants) throw new UsageError(`--${wants} needs --captions FILE`);
      return null;
    }
    const name = basename(file);
    const text = await readText(file).catch(() => {
      throw new UsageError(`${file}: the captions cannot be read. Check the name and the folder.`);
    });
    const { cues, problems } = captionsFrom(text, name);
    const timedAt = captionsRate === undefined ? cues : retimed(cues, captionsRate, info.rate);
    const texts = captionsOf(timedAt, info.rate, info.frames, captionsOffset);
    const beyond = cues.length - texts.length;
    const said = problems.map((problem) => `${name}, line ${problem.line}: ${problem.text}`);
    if (beyond > 0) said.push(`${name}: ${counted(beyond, "caption")} beyond the film's end left out.`);
    const captions = texts.map((caption, i) => ({ ...caption, id: `${i + 1}` }));
    return new FilmCaptions(captions, options, info, said);
  }

  /** The version's settings, burnt in only where that was requested. */
  shownBy(settings: CaptionSettings): CaptionSettings {
    const { burn, sidecar, track } = this.options;
    return { ...settings, burnt: burn ?? !(sidecar || track) };
  }

  /** Writes them beside a result, where that was requested. */
  async writeBeside(out: string, kept: readonly FrameRange[]): Promise<void> {
    if (this.options.sidecar) await writeSidecars(out, this.saidIn(kept));
  }

  /** Gives work a file for a caption track; null where none was requested. */
  withTrack<T>(kept: readonly FrameRange[], work: (file: string | undefined) => Promise<T>): Promise<T> {
    return this.options.track ? withTrack(this.saidIn(kept), work) : work(undefined);
  }

  private saidIn(kept: readonly FrameRange[]): SaidIn {
    return { captions: this.captions, kept, rate: this.info.rate };
  }
}
