/** Holds found transitions against true ones. */
import type { Transition } from "~/core/shots/transition";
import type { TrueTransition } from "./draw-film";

/** A hard cut that is found this many frames off counts as found, but not as exact. */
const NEAR = 2;

export interface Score {
  /** Hard cuts there are, jump cuts among them. */
  hard: number;
  hardFound: number;
  hardExact: number;
  hardFalse: number;
  gradual: number;
  gradualFound: number;
  gradualFalse: number;
  /** Sum over the found ones of the ranges' intersection over their union. */
  overlap: number;
  /** Hard cuts found that are told rightly from, or as, jump cuts; gradual ones of which the kind is right. */
  kindRight: number;
}

export const NO_SCORE: Score = {
  hard: 0,
  hardFound: 0,
  hardExact: 0,
  hardFalse: 0,
  gradual: 0,
  gradualFound: 0,
  gradualFalse: 0,
  overlap: 0,
  kindRight: 0,
};

export function addScores(a: Score, b: Score): Score {
  return Object.fromEntries(
    Object.entries(a).map(([key, value]) => [key, value + b[key as keyof Score]]),
  ) as unknown as Score;
}

const isHard = ({ kind }: { kind: string }) => kind === "cut" || kind === "jump";

function overlapOf(a: Transition["range"], b: Transition["range"]): number {
  const shared = Math.min(a.end, b.end) - Math.max(a.start, b.start);
  return Math.max(0, shared) / (Math.max(a.end, b.end) - Math.min(a.start, b.start));
}

/** What went wrong, for a reader. */
export interface Mistake {
  what: "missed" | "false";
  kind: string;
  frame: number;
}

export function scoreFilm(
  found: readonly Transition[],
  truth: readonly TrueTransition[],
): { score: Score; mistakes: Mistake[] } {
  const score = { ...NO_SCORE };
  const mistakes: Mistake[] = [];
  const left = new Set(found);
  for (const real of truth) {
    if (isHard(real)) score.hard++;
    else score.gradual++;
    const candidates = [...left].filter((t) =>
      isHard(real)
        ? isHard(t) && Math.abs(t.frame - real.frame) <= NEAR
        : !isHard(t) && overlapOf(t.range, real.range) > 0,
    );
    const match = candidates.sort((a, b) => Math.abs(a.frame - real.frame) - Math.abs(b.frame - real.frame))[0];
    if (!match) {
      mistakes.push({ what: "missed", kind: real.kind, frame: real.frame });
      continue;
    }
    left.delete(match);
    if (match.kind === real.kind) score.kindRight++;
    if (isHard(real)) {
      score.hardFound++;
      if (match.frame === real.frame) score.hardExact++;
    } else {
      score.gradualFound++;
      score.overlap += overlapOf(match.range, real.range);
    }
  }
  for (const extra of left) {
    if (isHard(extra)) score.hardFalse++;
    else score.gradualFalse++;
    mistakes.push({ what: "false", kind: extra.kind, frame: extra.frame });
  }
  return { score, mistakes };
}

export function f1(found: number, wrong: number, all: number): number {
  return all + found + wrong === 0 ? 1 : (2 * found) / (found + wrong + all);
}
