import { z } from "zod";
import { Frame, FrameRange } from "../time/rate";

/**
 * How a shot begins. A *jump* is a hard cut after which most of the picture stays (talk with something taken out); a
 * *switch* is no change of picture at all: the editor has split a shot where the subject of interest changes.
 */
export const TRANSITION_KINDS = ["cut", "jump", "dissolve", "wipe", "fade", "switch"] as const;
export type TransitionKind = (typeof TRANSITION_KINDS)[number];

/**
 * The transition kind of a name in a cut list, where Glad Pan 0.1 wrote "turn" for a switch; undefined for any other name.
 */
export const transitionKindOf = (name: string): TransitionKind | undefined =>
  TRANSITION_KINDS.find((kind) => kind === (name === "turn" ? "switch" : name));

/** A transition from one shot to the next. */
export const Transition = z.object({
  /** First frame of the new shot; in a gradual transition, where the new picture takes over. */
  frame: Frame,
  kind: z.enum(TRANSITION_KINDS),
  /** Frames in which both pictures, or black, are mixed; empty, at `frame`, where there are none. */
  range: FrameRange,
});
export type Transition = z.infer<typeof Transition>;

/** A transition without a range, at a frame. */
export const hardTransition = (frame: number, kind: "cut" | "jump" | "switch"): Transition => ({
  frame,
  kind,
  range: { start: frame, end: frame },
});

export const isGradual = ({ range }: Transition): boolean => range.end > range.start;

/** The same transition, shifted by some frames. */
export const shiftTransition = ({ kind, frame, range }: Transition, by: number): Transition => ({
  kind,
  frame: frame + by,
  range: { start: range.start + by, end: range.end + by },
});

/** The shots between transitions in a range of frames. */
export function shotsBetween(transitions: readonly Transition[], range: FrameRange): FrameRange[] {
  const cuts = transitions.map((t) => t.frame).filter((frame) => frame > range.start && frame < range.end);
  return [range.start, ...cuts].map((start, i) => ({ start, end: cuts[i] ?? range.end }));
}
