import { framesPerSecond, type Rate } from "../time/rate";
import { BlendWeigher } from "./blends";
import { weighFades } from "./fades";
import type { FrameFeatures } from "./frame-features";
import { CutWeigher } from "./hard-cuts";
import { PictureMatcher } from "./picture-match";
import { hardTransition, type Transition } from "./transition";

/** A place that may be a transition, with how much speaks for it. */
export interface TransitionCandidate {
  transition: Transition;
  /** 0 to 1; 0.5 is where a transition is as likely as not. */
  strength: number;
}

/** What the editor sets: 0 finds only what is beyond doubt, 100 everything that may be one. */
export const DEFAULT_SENSITIVITY = 50;

/** Strength that a candidate needs at a sensitivity. */
const threshold = (sensitivity: number): number => 0.9 - 0.8 * (sensitivity / 100);

/** A candidate is kept when it would pass at the highest sensitivity. */
const LEAST_STRENGTH = threshold(100);

/** Everything in a film that may be a transition, in order, from the features of every frame. */
export function weighTransitions(features: readonly FrameFeatures[], rate: Rate): TransitionCandidate[] {
  const fps = framesPerSecond(rate);
  const matcher = new PictureMatcher(features);
  const fades = weighFades(features, fps, matcher);
  const inFade = (frame: number) =>
    fades.some(({ range, strength }) => strength >= 0.5 && frame >= range.start && frame <= range.end);
  const cuts = new CutWeigher(features, fps, matcher).weigh().filter(({ frame }) => !inFade(frame));
  const clearCuts = cuts.filter(({ strength }) => strength >= 0.5).map(({ frame }) => frame);
  const fadeFrames = fades
    .filter(({ strength }) => strength >= 0.5)
    .flatMap(({ range }) => Array.from({ length: range.end - range.start }, (_, k) => range.start + k));
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

/** Whether two transitions cannot both be. */
function collide(a: Transition, b: Transition): boolean {
  if (a.frame === b.frame) return true;
  return a.range.start < b.range.end && b.range.start < a.range.end
    ? true
    : (a.frame > b.range.start && a.frame < b.range.end) || (b.frame > a.range.start && b.frame < a.range.end);
}

/** Decides at a sensitivity of 0 to 100 which candidates are transitions; the stronger of two that overlap stays. */
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
