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
  /** Size of the picture to write; both sides even. */
  target: Size;
  /** The parts of the film to render, in order and apart from each other. */
  ranges: readonly FrameRange[];
  /** What is shown at each frame of the ranges. */
  shown: ShownAt;
  /** Frames at which shots begin: nothing is mixed across them, and what is rendered is made of parts between them. */
  cuts?: readonly number[];
  /** The editor's own files that are in it. */
  own?: OwnContents;
  /** A SubRip file whose captions go along as a track of text that players can show. */
  captions?: string;
  /** What is heard in the ranges; null or left out where it is the film alone. */
  heard?: readonly HeardIn[] | null;
  output: OutputSettings;
}

/** What a plan comes to: its format, its rate, and the frames that are written. */
export interface Output {
  format: OutputFormat;
  rate: Rate;
  /** Bits of a sample. */
  depth: BitDepth;
  frames: readonly RetimedFrame[];
}

// A plan does not change, and an hour has a hundred thousand frames to lay.
const outputs = new WeakMap<RenderPlan, Output>();

/** What a plan comes to. */
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
