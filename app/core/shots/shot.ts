import { z } from "zod";
import { Box, type Size, wholeOf } from "../geometry/box";
import { ShotId } from "../basics/ids";
import { AUTO, FollowRule } from "../subjects/choosing/follow-rule";
import { Frame, FrameRange } from "../time/rate";
import { hardTransition, type Transition, TRANSITION_KINDS, type TransitionKind } from "./transition";

/** A shot of a film, with the editor's settings for every version that does not override them. */
export const Shot = z.object({
  id: ShotId,
  start: Frame,
  end: Frame,
  /** Its transition. The first shot of a film begins with a cut. */
  begins: z.enum(TRANSITION_KINDS),
  /** Frames mixed with the shot before, or with black; empty, at `start`, where there are none. */
  mixed: FrameRange,
  /** Whether the window continues from the shot before. */
  carry: z.boolean(),
  follow: FollowRule,
  name: z.string().trim().max(80).nullable(),
  /** Left out of renders. */
  excluded: z.boolean(),
  /** The protected area, such as a title, which the window keeps inside where it can. */
  protect: Box.nullable(),
  /** The picture area inside the letterbox; null if there is none. */
  active: Box.nullable(),
});
export type Shot = z.infer<typeof Shot>;

/** Pixels: a smaller area leaves nothing to crop. */
export const LEAST_ACTIVE_SIDE = 32;

/** The part of the picture in which a shot's window may be. */
export const activeArea = ({ active }: Pick<Shot, "active">, picture: Size): Box => active ?? wholeOf(picture);

/** Whether the window continues over the boundary unless the editor sets otherwise: after a jump cut in a talk. */
export const carriesOver = (begins: TransitionKind): boolean => begins === "jump";

/** A shot as the analysis makes it. */
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

/** The transition at a shot's start. */
export const transitionInto = ({ start, begins, mixed }: Shot): Transition => ({
  frame: start,
  kind: begins,
  range: mixed,
});

/** The transitions of all shots but the first. */
export const transitionsOf = (shots: readonly Shot[]): Transition[] => shots.slice(1).map(transitionInto);
