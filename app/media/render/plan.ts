import type { ShownAt } from "~/core/composition/composition";
import type { HeardIn } from "~/core/composition/heard";
import { outputFormat, type OutputFormat } from "~/core/formats/output-formats";
import { outputDepth, outputRate, type OutputSettings } from "~/core/formats/output-settings";
import type { Size } from "~/core/geometry/box";
import type { BitDepth } from "~/core/image/bit-depth";
import { type RetimedFrame, retimed } from "~/core/time/retime";
import type { FrameRange, Rate } from "~/core/time/rate";
import type { FilmFile } from "../film-file";
import type { OwnContents } from "../own/load-pictures.server";

export interface RenderPlan extends FilmFile {
  /** Size of the rendered picture; both sides even. */
  target: Size;
  /** The ranges of the film to render, in order and disjoint. */
  ranges: readonly FrameRange[];
  /** What is shown at each frame of the ranges. */
  shown: ShownAt;
  /** First frames of shots: nothing is blended across them, and parts begin there. */
  cuts?: readonly number[];
  /** The editor's own files in it. */
  own?: OwnContents;
  /** A SubRip file of captions, for a text track. */
  captions?: string;
  /** The sound of the ranges; null or left out where it is the film alone. */
  heard?: readonly HeardIn[] | null;
  output: OutputSettings;
}

/** The output of a plan: format, rate, and frames. */
export interface Output {
  format: OutputFormat;
  rate: Rate;
  /** Bits per sample. */
  depth: BitDepth;
  frames: readonly RetimedFrame[];
}

// Plans are immutable, and an hour has a hundred thousand frames.
const outputs = new WeakMap<RenderPlan, Output>();

/** The output of a plan. */
export function outputOf(plan: RenderPlan): Output {
  const known = outputs.get(plan) ?? laidOut(plan);
  outputs.set(plan, known);
  return known;
}

function laidOut({ info, ranges, cuts = [], output }: RenderPlan): Output {
  const { rate } = outputRate(output, info.rate);
  const starts = new Set(cuts);
  const frames = retimed(ranges, info.rate, rate, output.retiming === "blend", (frame) => starts.has(frame));
  return { format: outputFormat(output.format), rate, depth: outputDepth(output, info.bitDepth), frames };
}
