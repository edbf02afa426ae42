/** Export settings of a version: format, quality, rate, loudness, and folder. */
import { z } from "zod";
import { clamped } from "../numbers/clamped";
import { BIT_DEPTHS, type BitDepth, depthFor } from "../image/bit-depth";
import { framesPerSecond, Rate } from "../time/rate";
import { FORMAT_IDS, outputFormat, type OutputFormat } from "./output-formats";

export const QUALITIES = ["small", "good", "best"] as const;
export type Quality = (typeof QUALITIES)[number];

/** Frame rate conversion: the nearest frame, or two blended by their distance. */
export const RETIMINGS = ["repeat", "blend"] as const;
export type Retiming = (typeof RETIMINGS)[number];

/** Loudness targets in LUFS after EBU R 128, and the range that can be set. */
export const LOUDNESS = { least: -31, most: -8, online: -14, broadcast: -23 } as const;

/** Frame rates of exported files, in frames per second. */
const OUTPUT_RATES = { least: 1, most: 240 };
const OutputRate = Rate.refine(
  (rate) => framesPerSecond(rate) >= OUTPUT_RATES.least && framesPerSecond(rate) <= OUTPUT_RATES.most,
  {
    error: `A rate is from ${OUTPUT_RATES.least} to ${OUTPUT_RATES.most} frames per second`,
  },
);

export const OutputSettings = z.object({
  format: z.enum(FORMAT_IDS),
  /** Named, or the encoder's own number. */
  quality: z.union([z.enum(QUALITIES), z.number().min(0).max(300)]),
  /** Largest file in megabytes; null for no limit. */
  mostMegabytes: z.number().min(0.1).max(1_000_000).nullable(),
  /** Bits per sample, where the format has a choice; the film's if null. */
  depth: z.literal(BIT_DEPTHS).nullable().default(null),
  /** Frames per second; the film's if null. */
  rate: OutputRate.nullable(),
  retiming: z.enum(RETIMINGS),
  /** LUFS; unchanged if null. */
  loudness: z.number().min(LOUDNESS.least).max(LOUDNESS.most).nullable(),
  /** Strength of sharpening, 0 to 100. */
  sharpening: z.number().min(0).max(100),
  /** Destination: one of the folders that the operator allows, or beside the film; null for the library's own. */
  folder: z.union([z.object({ path: z.string().min(1).max(4000) }), z.literal("beside")]).nullable(),
});
export type OutputSettings = z.infer<typeof OutputSettings>;

export const USUAL_OUTPUT: OutputSettings = {
  format: "mp4",
  quality: "good",
  mostMegabytes: null,
  depth: null,
  rate: null,
  retiming: "repeat",
  loudness: null,
  sharpening: 0,
  folder: null,
};

/** Rates offered beside the film's own. */
export const RATES: readonly Rate[] = [
  { num: 24_000, den: 1001 },
  { num: 24, den: 1 },
  { num: 25, den: 1 },
  { num: 30_000, den: 1001 },
  { num: 30, den: 1 },
  { num: 50, den: 1 },
  { num: 60_000, den: 1001 },
  { num: 60, den: 1 },
];

/** The encoder's quality number: whole, within its range; 0 where it has none. */
export function qualityNumber({ quality: scale }: OutputFormat, quality: OutputSettings["quality"]): number {
  if (!scale) return 0;
  return typeof quality === "number" ? Math.round(clamped(quality, scale.least, scale.most)) : scale[quality];
}

/** Bits per sample with which a film is exported. */
export function outputDepth({ format, depth }: Pick<OutputSettings, "format" | "depth">, film: number): BitDepth {
  const { depths } = outputFormat(format);
  const wanted = depth ?? depthFor(film);
  return depths.includes(wanted) ? wanted : depths[0];
}

/** ffmpeg's options for the picture. */
export const pictureArguments = (settings: OutputSettings, depth: BitDepth): readonly string[] => {
  const format = outputFormat(settings.format);
  return format.picture(qualityNumber(format, settings.quality), depth);
};

/** The rendered rate, and whether it differs from the film's. */
export function outputRate({ rate }: Pick<OutputSettings, "rate">, film: Rate): { rate: Rate; isOther: boolean } {
  const isOther = rate !== null && Math.abs(framesPerSecond(rate) - framesPerSecond(film)) > 1e-9;
  return { rate: isOther ? rate : film, isOther };
}
