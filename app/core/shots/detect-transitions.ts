import type { FrameRange, Rate } from "../time/rate";
import { framesPerSecond } from "../time/rate";
import { type FrameFeatures, frameDistance, lumaStatistics, thumbnailDistance } from "./frame-features";

/** How one shot becomes the next. */
export interface Transition {
  /** First frame of the new shot; in a gradual one, where the new picture takes over. */
  frame: number;
  kind: "cut" | "dissolve" | "fade";
  /** Frames in which both pictures, or black, are mixed; empty for a cut. */
  range: FrameRange;
}

/** Below this distance two neighbouring frames are never a cut. */
const CUT_DISTANCE = 0.09;
/** … nor below this mean change of the picture itself, 0 to 1. */
const PICTURE_DISTANCE = 0.015;
/** A cut stands out from the change around it by these factors. */
const CUT_PROMINENCE = 4;
const PICTURE_PROMINENCE = 3;
/** A flash lasts at most this long; the picture before and after it is the same. */
const FLASH_FRAMES = 6;
const NEIGHBOURHOOD = 12;

function median(values: number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[sorted.length >> 1] ?? 0;
}

/**
 * Whether what changes at `frame` is undone a few frames later, or undoes what changed a few frames before:
 * a flash, lightning, something that passes close to the lens.
 */
function isPassing(features: FrameFeatures[], frame: number, change: number): boolean {
  const last = features.length - 1;
  for (let k = 1; k <= FLASH_FRAMES; k++) {
    const after = Math.min(last, frame + k);
    if (frameDistance(features[frame - 1]!, features[after]!) < 0.5 * change) return true;
    const before = Math.max(0, frame - 1 - k);
    if (frameDistance(features[before]!, features[frame]!) < 0.5 * change) return true;
  }
  return false;
}

/** Changes of the frames around one, without its own. */
function around(changes: readonly number[], frame: number): number[] {
  const from = Math.max(1, frame - NEIGHBOURHOOD);
  return changes.slice(from, frame + NEIGHBOURHOOD + 1).filter((_, i) => from + i !== frame);
}

/**
 * Hard cuts: at one frame both the colours at large and the picture in place change far more than they do
 * around it. In a fade or a dissolve the picture changes evenly; where only a histogram jumps, as a flat colour
 * does that crosses from one bin to the next, the picture stays.
 */
function findCuts(features: FrameFeatures[]): Transition[] {
  const between = (distance: typeof frameDistance) =>
    features.map((feature, i) => (i === 0 ? 0 : distance(features[i - 1]!, feature)));
  const looks = between(frameDistance);
  const picture = between(thumbnailDistance);
  const cuts: Transition[] = [];
  for (let frame = 1; frame < features.length; frame++) {
    const here = looks[frame]!;
    if (here < CUT_DISTANCE || picture[frame]! < PICTURE_DISTANCE) continue;
    const isPeak = here >= (looks[frame - 1] ?? 0) && here >= (looks[frame + 1] ?? 0);
    const standsOut =
      here >= CUT_PROMINENCE * median(around(looks, frame)) &&
      picture[frame]! >= PICTURE_PROMINENCE * median(around(picture, frame));
    if (!isPeak || !standsOut || isPassing(features, frame, here)) continue;
    cuts.push({ frame, kind: "cut", range: { start: frame, end: frame } });
  }
  return cuts;
}

/**
 * Fades through black or white: the picture's contrast sinks to almost nothing between two pictures that have
 * some, while it is almost wholly dark or bright.
 */
function findFades(features: FrameFeatures[], fps: number): Transition[] {
  const statistics = features.map(lumaStatistics);
  const reach = Math.round(1.5 * fps);
  const fades: Transition[] = [];
  for (let frame = 1; frame < features.length - 1; frame++) {
    const { mean, deviation } = statistics[frame]!;
    if (mean > 24 && mean < 235) continue;
    const from = Math.max(0, frame - reach);
    const to = Math.min(features.length, frame + reach + 1);
    const contrast = statistics.slice(from, to).map((s) => s.deviation);
    const before = Math.max(...contrast.slice(0, frame - from));
    const after = Math.max(...contrast.slice(frame - from + 1));
    // The last of several equally empty frames is where the new picture begins.
    const lowest = contrast.lastIndexOf(Math.min(...contrast)) + from;
    if (lowest !== frame || deviation > 0.25 * Math.min(before, after) || Math.min(before, after) < 8) continue;
    let start = frame;
    while (start > from && statistics[start]!.deviation < 0.9 * before) start--;
    let end = frame;
    while (end < to - 1 && statistics[end]!.deviation < 0.9 * after) end++;
    // A flash, too, is empty and bright for a moment, but it comes back to the same picture.
    const comesBack =
      frameDistance(features[start]!, features[end]!) < 0.5 * frameDistance(features[start]!, features[frame]!);
    if (end - start <= 2 * FLASH_FRAMES && comesBack) continue;
    fades.push({ frame, kind: "fade", range: { start, end } });
  }
  return fades;
}

interface Blend {
  /** Share of the later picture in each frame between. */
  shares: number[];
  /** What no mixture of the two explains, relative to their difference. */
  residual: number;
  /** Correlation of the two pictures. */
  likeness: number;
}

/** Explains every frame of [start, end] as a mixture of the first and the last (least squares a frame). */
function fitBlend(features: FrameFeatures[], start: number, end: number): Blend {
  const a = features[start]!.thumbnail;
  const b = features[end]!.thumbnail;
  const meanA = lumaStatistics(features[start]!);
  const meanB = lumaStatistics(features[end]!);
  let power = 0;
  let covariance = 0;
  for (let i = 0; i < a.length; i++) {
    power += (b[i]! - a[i]!) ** 2;
    covariance += (a[i]! - meanA.mean) * (b[i]! - meanB.mean);
  }
  const shares: number[] = [];
  let residual = 0;
  for (let frame = start + 1; frame < end; frame++) {
    const picture = features[frame]!.thumbnail;
    let dot = 0;
    let distance = 0;
    for (let i = 0; i < a.length; i++) {
      dot += (picture[i]! - a[i]!) * (b[i]! - a[i]!);
      distance += (picture[i]! - a[i]!) ** 2;
    }
    const share = dot / power;
    shares.push(share);
    residual += Math.sqrt(Math.max(0, distance - share * dot) / power);
  }
  const likeness = covariance / a.length / (meanA.deviation * meanB.deviation + 1e-6);
  return { shares, residual: residual / Math.max(1, shares.length), likeness };
}

/**
 * Whether the picture rests, compared with the change inside, just before and after a range. A pan changes on
 * and on, and a part of it may well look like a mixture of where it begins and ends.
 */
function isSteadyAround(features: FrameFeatures[], start: number, end: number, difference: number): boolean {
  const reach = Math.ceil((end - start) / 3);
  const before = thumbnailDistance(features[Math.max(0, start - reach)]!, features[start]!);
  const after = thumbnailDistance(features[end]!, features[Math.min(features.length - 1, end + reach)]!);
  return Math.max(before, after) < 0.4 * (reach / (end - start)) * difference + 0.01;
}

/** The transition that a blend from `start` to `end` is, without the frames that show one picture alone. */
function blendTransition(start: number, end: number, shares: number[]): Transition {
  const first = shares.findIndex((share) => share > 0.04);
  const last = shares.findLastIndex((share) => share < 0.96);
  const frame = start + 1 + shares.findIndex((share) => share >= 0.5);
  return { frame, kind: "dissolve", range: { start: start + 1 + first, end: Math.min(end, start + 2 + last) } };
}

/**
 * Dissolves: every frame between two unlike pictures is a mixture of them, with a share that rises from 0 to 1.
 * A pan or a moving subject is no such mixture; a change of light is one of two *like* pictures.
 */
function findDissolves(features: FrameFeatures[], fps: number, taken: Transition[]): Transition[] {
  const dissolves: Transition[] = [];
  const lengths = [0.3, 0.5, 0.8, 1.2, 1.8].map((seconds) => Math.round(seconds * fps));
  let best: { transition: Transition; explained: number } | null = null;
  for (let frame = 2; frame < features.length - 2; frame++) {
    for (const length of lengths) {
      const start = frame - (length >> 1);
      const end = start + length;
      if (start < 0 || end >= features.length) continue;
      if (taken.some((t) => t.range.end >= start && t.range.start <= end)) continue;
      const difference = thumbnailDistance(features[start]!, features[end]!);
      if (difference < 0.05) continue;
      const { shares, residual, likeness } = fitBlend(features, start, end);
      const steps = shares.map((share, i) => share - (shares[i - 1] ?? 0));
      const rising = steps.every((step) => step > -0.06 && step < 0.45);
      if (residual > 0.3 || likeness > 0.8 || !rising || shares[0]! > 0.3 || shares.at(-1)! < 0.7) continue;
      if (!isSteadyAround(features, start, end, difference)) continue;
      const transition = blendTransition(start, end, shares);
      if (best && start > best.transition.range.end) {
        dissolves.push(best.transition);
        best = null;
      }
      // Of overlapping explanations the one keeps that explains most: a part of a dissolve explains less of the
      // difference, and more than the dissolve leaves more unexplained.
      const explained = difference * (1 - 2 * residual);
      if (!best || explained > 1.02 * best.explained) best = { transition, explained };
    }
  }
  if (best) dissolves.push(best.transition);
  return dissolves;
}

/** All transitions of a film in order, from the features of every frame. */
export function detectTransitions(features: FrameFeatures[], rate: Rate): Transition[] {
  const fps = framesPerSecond(rate);
  const fades = findFades(features, fps);
  const outsideFades = (t: Transition) =>
    !fades.some((fade) => t.frame >= fade.range.start && t.frame <= fade.range.end);
  const cuts = findCuts(features).filter(outsideFades);
  const dissolves = findDissolves(features, fps, [...cuts, ...fades]);
  return [...cuts, ...fades, ...dissolves].sort((a, b) => a.frame - b.frame);
}

/** The shots that transitions leave of a film of so many frames. */
export function shotsBetween(transitions: Transition[], frameCount: number): FrameRange[] {
  const starts = [0, ...transitions.map((t) => t.frame).filter((frame) => frame > 0 && frame < frameCount)];
  return starts.map((start, i) => ({ start, end: starts[i + 1] ?? frameCount }));
}
