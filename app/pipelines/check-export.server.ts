/** Checks a finished file: its format, and whether it shows what it should. */
import { readFile } from "node:fs/promises";
import sharp from "sharp";
import type { ExportCheck, FileFigures } from "~/core/film/film-status";
import { framesPerSecond, frameToSeconds, formatRate } from "~/core/time/rate";
import { openZip } from "~/disk/zip.server";
import { measureLoudness } from "~/media/loudness.server";
import { type Output, outputOf, type RenderPlan } from "~/media/render/plan";
import { verifyFile } from "~/media/verify.server";
import { barFaults } from "./check-bars.server";
import { comparePictures, lookedAt } from "./compare-pictures.server";

interface Wanted {
  /** Longest duration in seconds; null for no limit. */
  limitSeconds: number | null;
  signal?: AbortSignal | undefined;
}

/** Largest deviation from a set loudness, in LU. */
const SAME_LOUDNESS = 1;

const check = (name: ExportCheck["name"], faults: readonly string[], well: string): ExportCheck => ({
  name,
  isGood: faults.length === 0,
  text: faults.length === 0 ? well : faults.join("; "),
});

/** Pictures that ffmpeg does not read: a sequence in an archive, an animated WebP. */
async function checkPictures(file: string, plan: RenderPlan, output: Output): Promise<FileFigures> {
  const { width, height } = plan.target;
  const bytes = (await readFile(file)).length;
  const isSequence = plan.output.format === "png";
  let found = { width: 0, height: 0, frames: 0, depth: 8 };
  if (isSequence) {
    const zip = await openZip(file);
    try {
      const first = await zip.readBytes(zip.names[0] ?? "", bytes);
      const meta = first ? await sharp(first).metadata() : { width: 0, height: 0, depth: "uchar" };
      const depth = meta.depth === "ushort" ? 16 : 8;
      found = { width: meta.width, height: meta.height, frames: zip.names.length, depth };
    } finally {
      zip.close();
    }
  } else {
    const { width: across, pageHeight, height: down, pages = 1 } = await sharp(file, { pages: -1 }).metadata();
    found = { width: across, height: pageHeight ?? down, frames: pages, depth: 8 };
  }
  const faults = [
    ...(found.width !== width || found.height !== height
      ? [`the picture is ${found.width} × ${found.height}, not ${width} × ${height}`]
      : []),
    ...(found.depth < output.depth ? [`it is ${found.depth}-bit, not ${output.depth}-bit`] : []),
    // Identical frames become one with a longer duration.
    ...(found.frames === output.frames.length || (!isSequence && found.frames > 0)
      ? []
      : [`there are ${found.frames} pictures, not ${output.frames.length}`]),
  ];
  return {
    width: found.width,
    height: found.height,
    frames: output.frames.length,
    rate: formatRate(output.rate),
    bytes,
    durationSeconds: frameToSeconds(output.frames.length, output.rate),
    soundSeconds: null,
    loudness: null,
    hasCaptions: false,
    sidecars: [],
    bitDepth: found.depth,
    checks: [check("file", faults, `${found.frames} pictures of ${width} × ${height}`)],
  };
}

const seconds = (frames: number, fps: number): string => `${(frames / fps).toFixed(2)} s`;

/**
 * Checks a finished file against the plan it was rendered from.
 * @returns its figures, with the checks and their results
 */
export async function checkExport(
  file: string,
  plan: RenderPlan,
  { limitSeconds, signal }: Wanted,
): Promise<FileFigures> {
  const output = outputOf(plan);
  const { format, rate, frames, depth } = output;
  const { info, target, heard, captions } = plan;
  if (plan.output.format === "png" || plan.output.format === "webp") return checkPictures(file, plan, output);
  const isGif = plan.output.format === "gif";
  const expected = {
    size: target,
    rate,
    depth,
    frames: frames.length,
    tags: !isGif,
    pictures: lookedAt(plan, output),
    sound: format.sound !== null && (Boolean(info.audio) || Boolean(heard)),
    captions: captions !== undefined && format.captions !== null,
    ...(info.audio ? { film: { file: plan.file, sound: info.audio.index } } : {}),
  };
  const { figures, faults, decoded } = await verifyFile(file, expected, signal);
  // A GIF has times in hundredths of a second.
  const told = faults.filter((fault) => !isGif || !fault.startsWith("the frame rate"));
  if (captions !== undefined && format.captions === null) {
    told.push(`${format.name} has no room for a text track; the captions are not in it`);
  }
  const length = frameToSeconds(figures.frames, rate);
  const checks: ExportCheck[] = [
    check("file", told, `${figures.width} × ${figures.height}, ${figures.frames} frames at ${figures.rate}`),
    check("bars", await barFaults(file, plan, frames, signal), "no bars that were not asked for"),
  ];
  const compared = await comparePictures(plan, output, decoded, signal);
  checks.push(
    check("pictures", compared.faults, `${compared.looked} frames show what the desk shows`),
    check(
      "empty",
      compared.empty.map(
        ({ what, start, end }) => `${what} for ${seconds(end - start, framesPerSecond(rate))} from frame ${start}`,
      ),
      "no black or frozen frames that the film lacks",
    ),
  );
  if (limitSeconds !== null) {
    const over = length > limitSeconds ? [`it lasts ${length.toFixed(1)} s, over its limit of ${limitSeconds} s`] : [];
    checks.push(check("length", over, `within its limit of ${limitSeconds} s`));
  }
  const { loudness: wanted } = plan.output;
  const measured = expected.sound && wanted !== null ? await measureLoudness(file, signal) : null;
  if (measured && wanted !== null) {
    const { loudness, peak } = measured;
    const heardAs = `${loudness.toFixed(1)} LUFS, peaks at ${peak.toFixed(1)} dBTP`;
    const isOff = Math.abs(loudness - wanted) > SAME_LOUDNESS;
    checks.push(check("loudness", isOff ? [`${heardAs}, not ${wanted} LUFS`] : [], heardAs));
  }
  return { ...figures, loudness: measured?.loudness ?? null, checks };
}
