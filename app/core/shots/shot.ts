import { type Box, type Size, wholeOf } from "../geometry/box";
import type { FrameRange } from "../time/rate";
import { hardTransition, type Transition, type TransitionKind } from "./transition";

/** A shot of a film, with what the editor has settled for it in every version. */
export interface Shot {
  id: string;
  start: number;
  end: number;
  /** How it begins. The first shot of a film begins with a cut. */
  begins: TransitionKind;
  /** Frames in which it is mixed with the shot before, or with black; empty, at `start`, where it is not. */
  mixed: FrameRange;
  /** Whether the window goes on from where it was in the shot before. */
  carry: boolean;
  /** Whom to follow: "auto", "none", or "track:" and an id. */
  subject: string;
  name: string | null;
  /** Left out of what is rendered. */
  excluded: boolean;
  /** A part of the picture, such as a title, that the window keeps inside where it can. */
  protect: Box | null;
  /** What of the picture is not the film's own bars; null if it has none. */
  active: Box | null;
}

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
    subject: "auto",
    name: null,
    excluded: false,
    protect: null,
    active,
  };
}

/** How each shot but the first begins. */
export const transitionsOf = (shots: readonly Shot[]): Transition[] =>
  shots.slice(1).map(({ start, begins, mixed }) => ({ frame: start, kind: begins, range: mixed }));
