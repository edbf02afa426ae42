import { z } from "zod";
import { framesPerSecond, type Rate } from "../time/rate";
import { BlendWeigher } from "./blends";
import { weighFades } from "./fades";
import type { FrameFeatures } from "./frame-features";
import { CutWeigher } from "./hard-cuts";
import { PictureMatcher } from "./picture-match";
import { hardTransition, Transition } from "./transition";

/** A possible transition, with its evidence. */
export const TransitionCandidate = z.object({
  transition: Transition,
  /** 0 to 1; 0.5 where a transition is as likely as not. */
  strength: z.number(),
});
export type TransitionCandidate = z.infer<typeof TransitionCandidate>;

/** The editor's sensitivity: 0 finds only what is beyond doubt, 100 everything possible. */
export const DEFAULT_SENSITIVITY = 50;

/** Strength that a candidate needs at a sensitivity. */
const threshold = (sensitivity: number): number => 0.9 - 0.8 * (sensitivity / 100);

/** Candidates are kept if they pass at the highest sensitivity. */
const LEAST_STRENGTH = threshold(100);

/** More likely than not: candidates weighed later must not contradict it. */
const isClear = ({ strength }: { strength: number }): boolean => strength >= 0.5;

/** All possible transitions of a film, in order, from the features of every frame. */
export function weighTransitions(features: readonly FrameFeatures[], rate: Rate): TransitionCandidate[] {
  const fps = framesPerSecond(rate);
  const matcher = new PictureMatcher(features);
  const fades = weighFades(features, fps, matcher);
  const clearFades = fades.filter(isClear).map(({ range }) => range);
  const inFade = (frame: number) => clearFades.some(({ start, end }) => frame >= start && frame <= end);
  const cuts = new CutWeigher(features, fps, matcher).weigh().filter(({ frame }) => !inFade(frame));
  const clearCuts = cuts.filter(isClear).map(({ frame }) => frame);
  const fadeFrames = clearFades.flatMap(({ start, end }) => Array.from({ length: end - start }, (_, k) => start + k));
  const barriers = [...clearCuts, ...fadeFrames].sort((a, b) => a - b);
  const blends = new BlendWeigher(features, fps, matcher).weigh(barriers);
  return [
    ...cuts.map(({ frame, strength, jump }) => ({
      transition: hardTransition(frame, jump ? "jump" : "cut"),
      strength,
    })),
    ...fades.map(({ frame, range, strength }) => ({ transition: { frame, range, kind: "fade" as const }, strength })),
    ...blends.map(({ kind, frame, range, strength }) => ({ transition: { kind, frame, range }, strength })),
  ]
    .filter(({ strength }) => strength >= LEAST_STRENGTH)
    .sort((a, b) => a.transition.frame - b.transition.frame);
}

/** Whether two transitions exclude each other. */
function collide(a: Transition, b: Transition): boolean {
  const overlap = a.range.start < b.range.end && b.range.start < a.range.end;
  const inside = (frame: number, { start, end }: Transition["range"]) => frame > start && frame < end;
  return overlap || a.frame === b.frame || inside(a.frame, b.range) || inside(b.frame, a.range);
}

/** Decides which candidates are transitions at a sensitivity of 0 to 100; of two that overlap, the stronger one stays. */
export function decideTransitions(
  candidates: readonly TransitionCandidate[],
  sensitivity: number = DEFAULT_SENSITIVITY,
): Transition[] {
  const chosen: Transition[] = [];
  for (const { transition, strength } of [...candidates].sort((a, b) => b.strength - a.strength)) {
    if (strength < threshold(sensitivity)) break;
    if (!chosen.some((other) => collide(transition, other))) chosen.push(transition);
  }
  return chosen.sort((a, b) => a.frame - b.frame);
}
