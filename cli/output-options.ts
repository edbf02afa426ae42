/** Encoding of a file, as options of the command line. */
import { type Command, InvalidArgumentError, Option } from "commander";
import { FORMAT_IDS, type FormatId, outputFormat } from "~/core/formats/output-formats";
import { LOUDNESS, type OutputSettings, QUALITIES, USUAL_OUTPUT } from "~/core/formats/output-settings";
import { BIT_DEPTHS, type BitDepth } from "~/core/image/bit-depth";
import { parseRate, type Rate } from "~/core/time/rate";
import { offeredFormats } from "~/media/encoders.server";
import { UsageError } from "./options";

export interface OutputOptions {
  format?: FormatId;
  quality?: OutputSettings["quality"];
  mostMb?: number;
  bitDepth?: BitDepth;
  fps?: Rate;
  blend?: boolean;
  loudness?: number;
  sharpen?: number;
}

function parseQuality(text: string): OutputSettings["quality"] {
  const named = QUALITIES.find((quality) => quality === text);
  const number = Number(text);
  if (named) return named;
  if (text.trim() === "" || !(number >= 0 && number <= 300)) {
    throw new InvalidArgumentError(`A quality is ${QUALITIES.join(", ")}, or the encoder's own number.`);
  }
  return number;
}

function parseBitDepth(text: string): BitDepth {
  const depth = BIT_DEPTHS.find((bits) => String(bits) === text);
  if (!depth) throw new InvalidArgumentError(`A bit depth is ${BIT_DEPTHS.join(" or ")}.`);
  return depth;
}

const numberBetween = (what: string, least: number, most: number) => (text: string) => {
  const number = Number(text);
  if (text.trim() === "" || !(number >= least && number <= most)) {
    throw new InvalidArgumentError(`${what} is a number from ${least} to ${most}.`);
  }
  return number;
};

/** Fractional rates by their rounded names. */
const FRACTIONS: Readonly<Record<string, Rate>> = {
  "23.976": { num: 24_000, den: 1001 },
  "29.97": { num: 30_000, den: 1001 },
  "59.94": { num: 60_000, den: 1001 },
};

function parseFps(text: string): Rate {
  const rate = FRACTIONS[text] ?? parseRate(text.includes("/") ? text : `${text}/1`);
  if (!rate || rate.num / rate.den > 240 || !Number.isInteger(rate.num)) {
    throw new InvalidArgumentError("A frame rate is frames per second, such as 25, 29.97 or 30000/1001.");
  }
  return rate;
}

export const addOutputOptions = (command: Command): Command =>
  command
    .addOption(new Option("--format <name>", "what to write; by the name of the file if left out").choices(FORMAT_IDS))
    .option("--quality <quality>", `${QUALITIES.join(", ")}, or the encoder's own number`, parseQuality)
    .option("--most-mb <megabytes>", "how large the file may be; two passes", numberBetween("A size", 0.1, 1_000_000))
    .option("--bit-depth <bits>", "8 or 10 bits a sample; as many as the film has if left out", parseBitDepth)
    .option("--fps <rate>", "frames per second, if not the film's; frames are repeated or left out", parseFps)
    .option("--blend", "with --fps: mix two frames where one lies between them")
    .option(
      "--loudness <lufs>",
      "bring the sound to a loudness, such as -14",
      numberBetween("A loudness", LOUDNESS.least, LOUDNESS.most),
    )
    .option("--sharpen <amount>", "sharpen the picture, 0 to 100", numberBetween("Sharpening", 0, 100));

/** The format for a file's extension: the first of several. */
function formatOf(file: string): FormatId | undefined {
  const name = file.toLowerCase();
  if (/\.(m4v|mov)$/.test(name) && !name.endsWith(".mov")) return "mp4";
  return FORMAT_IDS.find((id) => name.endsWith(outputFormat(id).extension));
}

/**
 * Encoding settings of a file.
 * @param usual those of a preset
 * @throws UsageError if the name does not fit the format, or the options do not fit one another
 */
export function outputOf(options: OutputOptions, file: string, usual: OutputSettings = USUAL_OUTPUT): OutputSettings {
  const format = options.format ?? formatOf(file) ?? usual.format;
  const { extension, name, passes, depths } = outputFormat(format);
  const fits = file.toLowerCase().endsWith(extension) || (extension === ".mp4" && /\.(m4v|mov)$/i.test(file));
  if (!fits) throw new UsageError(`--out must end in ${extension} for ${name}`);
  if (options.mostMb !== undefined && !passes) throw new UsageError(`--most-mb does not go with ${name}`);
  if (options.bitDepth && !depths.includes(options.bitDepth)) {
    throw new UsageError(
      `--bit-depth ${options.bitDepth} does not go with ${name}, which has ${depths.join(" or ")} bits`,
    );
  }
  if (options.blend && !options.fps && !usual.rate) throw new UsageError("--blend needs --fps");
  return {
    format,
    quality: options.quality ?? usual.quality,
    mostMegabytes: options.mostMb ?? (passes ? usual.mostMegabytes : null),
    depth: options.bitDepth ?? usual.depth,
    rate: options.fps ?? usual.rate,
    retiming: options.blend ? "blend" : usual.retiming,
    loudness: options.loudness ?? usual.loudness,
    sharpening: options.sharpen ?? usual.sharpening,
    folder: null,
  };
}

/** @throws UsageError if this machine has no encoder for a format */
export async function requireEncoder({ format }: Pick<OutputSettings, "format">): Promise<void> {
  if ((await offeredFormats()).includes(format)) return;
  const { name, encoder } = outputFormat(format);
  throw new UsageError(`this machine's ffmpeg cannot write ${name}: it has no encoder ${encoder}`);
}
