import { createWriteStream } from "node:fs";
import { readdir } from "node:fs/promises";
import { join } from "node:path";
import { pipeline } from "node:stream/promises";
import { qualityNumber } from "~/core/formats/output-settings";
import { withFolderBeside } from "~/disk/write-aside.server";
import { zipOf } from "~/disk/zip.server";
import { FilmError, startFfmpeg, writing } from "../film-tool.server";
import { FrameMaker } from "../frame-maker.server";
import { NOTHING_OWN } from "../own/load-pictures.server";
import {
  counting,
  pipeAll,
  pipedFrames,
  pictureFilters,
  type RenderOptions,
  startEncoder,
  toRgb,
} from "./encode.server";
import { joinSound } from "./join-sound.server";
import { makeParts, writePartList } from "./parts.server";
import { type Output, outputOf, type RenderPlan } from "./plan";
import { renderWithin } from "./two-passes.server";
import { filmErrors } from "~/texts/film-errors";

/** Result of a render. */
export interface Rendered {
  /** Number of parts of the picture that were made; existing ones were reused. */
  made: number;
  parts: number;
}

const makerFor = ({ info, target, own = NOTHING_OWN }: RenderPlan, { depth }: Output): Promise<FrameMaker> =>
  FrameMaker.open(info.picture, target, own, depth);

/** Makes the picture in parts and joins them with the sound. */
async function renderInParts(
  plan: RenderPlan,
  target: string,
  maker: FrameMaker,
  options: RenderOptions,
): Promise<Rendered> {
  const output = outputOf(plan);
  const { signal, onProgress } = options;
  return withFolderBeside(target, async (scratch) => {
    const { folder, film } = options.parts ?? { folder: scratch, film: plan.file };
    const { files, made } = await makeParts(plan, output, maker, {
      folder,
      film,
      signal,
      onProgress: (frames) => onProgress?.(frames / output.frames.length),
    });
    const list = join(scratch, "parts.ffconcat");
    await writePartList(list, files, output);
    await joinSound(plan, ["-f", "concat", "-safe", "0", "-i", writing(list)], target, maker.pictures, scratch, signal);
    return { made, parts: files.length };
  });
}

/** One of several shares of the parts of a render, made on several machines: from 1. */
export interface Share {
  number: number;
  count: number;
}

/**
 * Makes one share of the parts of a plan and joins nothing: a render of the plan uses them once all shares exist.
 * @throws FilmError for a format that is not made in parts
 */
export async function renderShare(
  plan: RenderPlan,
  { number, count: shares }: Share,
  { parts, onProgress, signal }: RenderOptions & { parts: NonNullable<RenderOptions["parts"]> },
): Promise<Rendered> {
  const output = outputOf(plan);
  if (!output.format.inParts || plan.output.mostMegabytes !== null) {
    throw new FilmError(`${plan.name}: ${filmErrors.encoding.notInParts(output.format.name)}`);
  }
  const isOurs = (place: number) => place % shares === number - 1;
  const maker = await makerFor(plan, output);
  try {
    let begun: number | null = null;
    const { files, made } = await makeParts(plan, output, maker, {
      ...parts,
      signal,
      only: isOurs,
      onProgress: (frames) => {
        begun ??= frames;
        onProgress?.(Math.min(1, ((frames - begun) * shares) / output.frames.length));
      },
    });
    return { made, parts: files.length };
  } finally {
    await maker.close();
  }
}

/** One picture per frame, numbered from 1, in an archive. */
async function renderPictures(
  plan: RenderPlan,
  target: string,
  maker: FrameMaker,
  options: RenderOptions,
): Promise<void> {
  const output = outputOf(plan);
  await withFolderBeside(target, async (folder) => {
    const filters = `${pictureFilters(plan)},${toRgb(output.depth)}`;
    const args = ["-y", ...pipedFrames(plan, output), "-vf", filters, ...output.format.picture(0, output.depth)];
    const tool = startFfmpeg(plan.name, [...args, "-f", "image2", writing(join(folder, "%06d.png"))], options.signal);
    await pipeAll(plan, maker, tool, counting(output, options));
    const names = (await readdir(folder)).sort();
    const zip = zipOf(names.map((name) => ({ name, file: join(folder, name) })));
    await pipeline(zip, createWriteStream(target));
  });
}

/** A short loop with its own palette, chosen in a first pass over all frames. */
async function renderGif(plan: RenderPlan, target: string, maker: FrameMaker, colours: number, options: RenderOptions) {
  const output = outputOf(plan);
  await withFolderBeside(target, async (folder) => {
    const palette = join(folder, "palette.png");
    const filters = `${pictureFilters(plan)},${toRgb(output.depth)}`;
    const half = (before: 0 | 1) => ({
      ...options,
      onProgress: (share: number) => options.onProgress?.((before + share) / 2),
    });
    const first = ["-y", ...pipedFrames(plan, output), "-vf", `${filters},palettegen=max_colors=${colours}`];
    const choosing = startFfmpeg(plan.name, [...first, "-update", "1", writing(palette)], options.signal);
    await pipeAll(plan, maker, choosing, counting(output, half(0)));
    const graph = `[0:v]${filters}[rgb];[rgb][1:v]paletteuse=dither=sierra2_4a`;
    const second = ["-y", ...pipedFrames(plan, output), "-i", writing(palette), "-filter_complex", graph];
    const drawing = startFfmpeg(plan.name, [...second, ...output.format.muxer, writing(target)], options.signal);
    await pipeAll(plan, maker, drawing, counting(output, half(1)));
  });
}

/**
 * Renders ranges of a film into a file: every frame is composed of its panes, each at its own sub-pixel place, and encoded
 * by the format, with square pixels and Rec.709 tags, and with sound.
 * @returns when the file is complete; `target` is overwritten
 */
export async function renderFilm(plan: RenderPlan, target: string, options: RenderOptions = {}): Promise<Rendered> {
  const { width, height } = plan.target;
  if (width % 2 || height % 2) throw new Error("the sides of the target must be even");
  const output = outputOf(plan);
  const { format } = output;
  const maker = await makerFor(plan, output);
  try {
    const whole = { made: 1, parts: 1 };
    if (plan.output.format === "png") {
      await renderPictures(plan, target, maker, options);
      return whole;
    }
    if (plan.output.format === "gif") {
      await renderGif(plan, target, maker, qualityNumber(format, plan.output.quality), options);
      return whole;
    }
    if (plan.output.mostMegabytes !== null && format.passes) {
      await renderWithin(plan, target, maker, plan.output.mostMegabytes, options);
      return whole;
    }
    if (format.inParts) return await renderInParts(plan, target, maker, options);
    await pipeAll(
      plan,
      maker,
      startEncoder(plan, output, target, { muxer: format.muxer, signal: options.signal }),
      counting(output, options),
    );
    return whole;
  } finally {
    await maker.close();
  }
}
