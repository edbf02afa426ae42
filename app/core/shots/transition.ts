import type { FrameRange } from "../time/rate";

/**
 * How a shot begins. A *jump* is a hard cut after which most of the picture stays (talk with something taken out);
 * a *turn* is no change of picture at all: the editor has split a shot where the subject of interest changes.
 */
export const TRANSITION_KINDS = ["cut", "jump", "dissolve", "wipe", "fade", "turn"] as const;
export type TransitionKind = (typeof TRANSITION_KINDS)[number];

/** How one shot becomes the next. */
export interface Transition {
  /** First frame of the new shot; in a gradual one, where the new picture takes over. */
  frame: number;
  kind: TransitionKind;
  /** Frames in which both pictures, or black, are mixed; empty, at `frame`, where nothing is mixed. */
  range: FrameRange;
}

/** A transition without a range, at a frame. */
export const hardTransition = (frame: number, kind: "cut" | "jump" | "turn"): Transition => ({
  frame,
  kind,
  range: { start: frame, end: frame },
});

export const isGradual = ({ range }: Transition): boolean => range.end > range.start;

/** The shots that transitions leave of a film of so many frames. */
export function shotsBetween(transitions: readonly Transition[], frameCount: number): FrameRange[] {
  const starts = [0, ...transitions.map((t) => t.frame).filter((frame) => frame > 0 && frame < frameCount)];
  return starts.map((start, i) => ({ start, end: starts[i + 1] ?? frameCount }));
}
