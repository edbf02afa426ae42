/** Compares frames of a finished file with what they should show, rendered again from the film. */
import type { FrameRange } from "~/core/time/rate";
import type { Decoded } from "~/media/decode-through.server";
import { FrameMaker } from "~/media/frame-maker.server";
import { NOTHING_OWN } from "~/media/own/load-pictures.server";
import { madeFrames } from "~/media/render/made-frames.server";
import type { Output, RenderPlan } from "~/media/render/plan";
import { differenceOf, meanOf, smallLuma, type SmallLuma } from "~/media/small-luma";

/** Most frames that are compared: rendering one again takes half a second. */
const MOST_FRAMES = 24;
/** Mean difference of luma, in levels of 255, above which two frames differ. */
const DIFFERENT = 5;
/** The same for two frames of a film to be different pictures. */
const CHANGES = 1.5;
/** Mean luma of black. */
const BLACK = 24;
/** Most black or frozen ranges for which the film is examined. */
const MOST_RANGES = 10;

/** Evenly spaced items of a list, up to a number. */
const spread = (list: readonly number[], most: number): number[] =>
  list.length <= most ? [...list] : Array.from({ length: most }, (_, i) => list[Math.floor((i * list.length) / most)]!);

/** Frames of the output that are compared: the first of each shot, and as many from the middles as there is time for. */
export function lookedAt({ cuts = [] }: Pick<RenderPlan, "cuts">, { frames }: Pick<Output, "frames">): number[] {
  const starts = new Set(cuts);
  const firsts = frames.flatMap(({ frame }, i) => {
    const before = frames[i - 1]?.frame;
    const isFirst = before === undefined || frame > before + 1 || (frame > before && starts.has(frame));
    return isFirst ? [i] : [];
  });
  const middles = firsts.map((start, i) => Math.floor((start + (firsts[i + 1] ?? frames.length)) / 2));
  const chosen = spread(firsts, MOST_FRAMES);
  return [...new Set([...chosen, ...spread(middles, MOST_FRAMES - chosen.length)])].sort((a, b) => a - b);
}

export interface Compared {
  looked: number;
  faults: string[];
  /** Ranges of the file that are black or frozen, where the film is not. */
  empty: (FrameRange & { what: "black" | "frozen" })[];
}

/** Compares the decoded frames of a finished file with its plan. */
export async function comparePictures(
  plan: RenderPlan,
  output: Output,
  { pictures, black, frozen }: Decoded,
  signal?: AbortSignal,
): Promise<Compared> {
  const maker = await FrameMaker.open(plan.info.picture, plan.target, plan.own ?? NOTHING_OWN);
  const known = new Map<number, SmallLuma>();
  /** The expected picture of a frame of the output. */
  const wanted = async (i: number): Promise<SmallLuma> => {
    if (!known.has(i)) {
      for await (const data of madeFrames(plan, [output.frames[i]!], maker, signal))
        known.set(i, smallLuma(data, plan.target));
    }
    return known.get(i)!;
  };
  try {
    const different: number[] = [];
    for (const [i, seen] of pictures) {
      const made = await wanted(i);
      if (made.length !== seen.length || differenceOf(seen, made) > DIFFERENT) different.push(i);
    }
    const empty: Compared["empty"] = [];
    const last = output.frames.length - 1;
    for (const range of black.slice(0, MOST_RANGES)) {
      const middle = Math.min(last, Math.floor((range.start + range.end) / 2));
      if (meanOf(await wanted(middle)) > BLACK) empty.push({ ...range, what: "black" });
    }
    for (const range of frozen.slice(0, MOST_RANGES)) {
      const [from, to] = [range.start, Math.min(last, range.end - 1)];
      if (to > from && differenceOf(await wanted(from), await wanted(to)) > CHANGES)
        empty.push({ ...range, what: "frozen" });
    }
    const faults =
      different.length > 0
        ? [
            `${different.length} of ${pictures.size} frames do not show what they should, the first is frame ${different[0]}`,
          ]
        : [];
    return { looked: pictures.size, faults, empty };
  } finally {
    await maker.close();
  }
}
