import { z } from "zod";
import { Box, type Size, wholeOf } from "../geometry/box";
import { ShotId } from "../basics/ids";
import { AUTO, FollowRule } from "../subjects/choosing/follow-rule";
import { Frame, FrameRange } from "../time/rate";
import { hardTransition, type Transition, TRANSITION_KINDS, type TransitionKind } from "./transition";

/** A shot of a film, with what the editor has settled for it in every version that does not say otherwise. */
export const Shot = z.object({
  id: ShotId,
  start: Frame,
  end: Frame,
  /** How it begins. The first shot of a film begins with a cut. */
  begins: z.enum(TRANSITION_KINDS),
  /** Frames in which it is mixed with the shot before, or with black; empty, at `start`, where it is not. */
  mixed: FrameRange,
  /** Whether the window goes on from where it was in the shot before. */
  carry: z.boolean(),
  follow: FollowRule,
  name: z.string().trim().max(80).nullable(),
  /** Left out of what is rendered. */
  excluded: z.boolean(),
  /** A part of the picture, such as a title, that the window keeps inside where it can. */
  protect: Box.nullable(),
  /** The part of the picture inside the letterbox; null if there is none. */
  active: Box.nullable(),
});
export type Shot = z.infer<typeof Shot>;

/** Pixels: with less there is nothing to crop. */
export const LEAST_ACTIVE_SIDE = 32;

/** The part of the picture in which a shot's window may be. */
export const activeArea = ({ active }: Pick<Shot, "active">, picture: Size): Box => active ?? wholeOf(picture);

/** Where the window goes on over the boundary unless the editor says otherwise: after a jump cut in a talk. */
export const carriesOver = (begins: TransitionKind): boolean => begins === "jump";

/** A shot as the analysis leaves it. */
export function freshShot(id: string, range: FrameRange, begins: Transition | null, active: Box | null = null): Shot {
  const transition = begins ?? hardTransition(range.start, "cut");
  return {
    id,
    start: range.start,
    end: range.end,
    begins: transition.kind,
    mixed: transition.range,
    carry: carriesOver(transition.kind),
    follow: AUTO,
    name: null,
    excluded: false,
    protect: null,
    active,
  };
}

/** How a shot begins. */
export const transitionInto = ({ start, begins, mixed }: Shot): Transition => ({
  frame: start,
  kind: begins,
  range: mixed,
});

/** How each shot but the first begins. */
export const transitionsOf = (shots: readonly Shot[]): Transition[] => shots.slice(1).map(transitionInto);
