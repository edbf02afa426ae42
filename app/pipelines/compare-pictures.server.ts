/** Compares frames of a finished file with what they should show, made from the film once more. */
import type { FrameRange } from "~/core/time/rate";
import type { Decoded } from "~/media/decode-through.server";
import { FrameMaker } from "~/media/frame-maker.server";
import { NOTHING_OWN } from "~/media/own/load-pictures.server";
import { madeFrames } from "~/media/render/made-frames.server";
import type { Output, RenderPlan } from "~/media/render/plan";
import { differenceOf, meanOf, smallLuma, type SmallLuma } from "~/media/small-luma";

/** Frames that are looked at, at the most: making one of them anew takes half a second. */
const MOST_FRAMES = 24;
/** Mean difference of luma, in levels of 255, from which on two frames are not the same. */
const DIFFERENT = 5;
/** And in which two frames of a film are not the same picture. */
const CHANGES = 1.5;
/** Mean luma of what is black. */
const BLACK = 24;
/** Ranges that are black, or stand still, of which it is asked whether the film does. */
const MOST_RANGES = 10;

/** Of a list, so many at the most, spread evenly. */
const spread = (list: readonly number[], most: number): number[] =>
  list.length <= most ? [...list] : Array.from({ length: most }, (_, i) => list[Math.floor((i * list.length) / most)]!);

/** Frames of the output that are looked at: the first of each shot, and as many from the middles as there is time for. */
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
  /** Ranges of the file that are black or stand still, where the film is not and does not. */
  empty: (FrameRange & { what: "black" | "frozen" })[];
}

/** Compares what was decoded of a finished file with its plan. */
export async function comparePictures(
  plan: RenderPlan,
  output: Output,
  { pictures, black, frozen }: Decoded,
  signal?: AbortSignal,
): Promise<Compared> {
  const maker = await FrameMaker.open(plan.info.picture, plan.target, plan.own ?? NOTHING_OWN);
  const known = new Map<number, SmallLuma>();
  /** What a frame of the output should be. */
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
