import { pictureArguments } from "~/core/formats/output-settings";
import { type BitDepth, pixelFormat } from "~/core/image/bit-depth";
import type { RetimedFrame } from "~/core/time/retime";
import { pipedIn, REC709_TAGS, startFfmpeg, writing } from "../film-tool.server";
import type { FrameMaker } from "../frame-maker.server";
import type { RunningTool } from "../tool.server";
import { writeTo } from "../tool.server";
import { madeFrames } from "./made-frames.server";
import { type Output, outputOf, type RenderPlan } from "./plan";

/** ffmpeg's `unsharp` amount at full sharpening. */
const MOST_SHARPENING = 0.8;

/** Marks piped frames with their colours: some encoders go by the frames and not by their arguments. */
const REC709_FRAMES = "setparams=color_primaries=bt709:color_trc=bt709:colorspace=bt709:range=tv";

/** Filters for piped pictures. */
export function pictureFilters({ output: { sharpening } }: RenderPlan): string {
  const amount = ((sharpening / 100) * MOST_SHARPENING).toFixed(3);
  return [...(sharpening > 0 ? [`unsharp=lx=5:ly=5:la=${amount}:cx=3:cy=3:ca=0`] : []), REC709_FRAMES, "setsar=1"].join(
    ",",
  );
}

/** Arguments for piped frames. */
export const pipedFrames = ({ target }: RenderPlan, { rate, depth }: Output): string[] =>
  pipedIn(target, pixelFormat(depth), rate);

/** From Rec.709 in limited range, as frames are made, to RGB with 8 bits, or 16 for deeper ones. */
export const toRgb = (depth: BitDepth): string =>
  `scale=in_color_matrix=bt709:in_range=tv:out_range=pc:flags=accurate_rnd+full_chroma_int,format=${depth === 8 ? "rgb24" : "rgb48be"}`;

interface EncoderOptions {
  /** ffmpeg's container options. */
  muxer: readonly string[];
  /** Further options of the encoder. */
  more?: readonly string[];
  /** Whether these set a bit rate instead of a quality. */
  isAtRate?: boolean;
  signal?: AbortSignal | undefined;
}

/** Arguments without those of a quality. */
const withoutQuality = (args: readonly string[]): string[] =>
  args.filter((arg, i) => ![arg, args[i - 1]].some((each) => each === "-crf" || each === "-b:v"));

/** Pixels of a frame above which x264's lookahead of 30 frames fills the memory of a small machine. */
const LARGE = 4_000_000;
const FEW_FRAMES = ["-rc-lookahead", "12"];

/** Starts the encoder of a plan's picture alone, for piped frames. */
export function startEncoder(
  plan: RenderPlan,
  output: Output,
  target: string,
  { muxer, more = [], isAtRate = false, signal }: EncoderOptions,
): RunningTool {
  const args = pictureArguments(plan.output, output.depth);
  const { width, height } = plan.target;
  return startFfmpeg(
    plan.name,
    [
      ...["-y", ...pipedFrames(plan, output), "-an", "-vf", pictureFilters(plan)],
      ...(output.format.encoder === "libx264" && width * height > LARGE ? FEW_FRAMES : []),
      ...(isAtRate ? withoutQuality(args) : args),
      ...REC709_TAGS,
      ...more,
      ...muxer,
      writing(target),
    ],
    signal,
  );
}

export interface RenderOptions {
  /** Share of the pictures done, 0 to 1. */
  onProgress?: ((share: number) => void) | undefined;
  signal?: AbortSignal | undefined;
  /** Folder of parts kept for the next export, and the film's fingerprint; left out to keep none. */
  parts?: { folder: string; film: string } | undefined;
}

/** Counts frames as they are written. */
export function counting({ frames }: Output, { onProgress, signal }: RenderOptions) {
  let done = 0;
  return { onFrame: () => onProgress?.(++done / frames.length), signal };
}

/** Makes frames of a plan and pipes them to a tool, until it has succeeded. */
export async function pipeFrames(
  plan: RenderPlan,
  frames: readonly RetimedFrame[],
  maker: FrameMaker,
  tool: RunningTool,
  { onFrame, signal }: { onFrame?: () => void; signal?: AbortSignal | undefined },
): Promise<void> {
  tool.stdout.resume();
  try {
    for await (const data of madeFrames(plan, frames, maker, signal)) {
      await writeTo(tool, data);
      onFrame?.();
    }
    tool.stdin.end();
    await tool.done;
  } finally {
    tool.kill();
  }
}

/** The same for everything that a plan shows. */
export const pipeAll = (
  plan: RenderPlan,
  maker: FrameMaker,
  tool: RunningTool,
  options: { onFrame?: () => void; signal?: AbortSignal | undefined },
): Promise<void> => pipeFrames(plan, outputOf(plan).frames, maker, tool, options);
