import type { Transition } from "../shots/transition";

/** Comparison of two cut lists, by frame. */
export interface CutComparison {
  /** Cuts at the same frame in both. */
  same: number;
  /** Cuts that differ by a frame or two. */
  near: { here: number; there: number }[];
  onlyHere: number[];
  onlyThere: number[];
}

/** Content of a selected cut list beside the present cuts; or why it cannot be read. */
export interface ListReading {
  /** The file's name. */
  name: string;
  transitions?: Transition[];
  comparison?: CutComparison;
  error?: string;
}

/** Frames within which two cuts are taken for the same. */
const NEAR = 2;

/** Compares the cuts of a film with those of a list. Switches are left out: the picture does not change there. */
export function compareCuts(here: readonly Transition[], there: readonly Transition[]): CutComparison {
  const framesOf = (list: readonly Transition[]) =>
    list.filter(({ kind }) => kind !== "switch").map(({ frame }) => frame);
  const left = new Set(framesOf(there));
  const comparison: CutComparison = { same: 0, near: [], onlyHere: [], onlyThere: [] };
  const unmatched = framesOf(here).filter((frame) => {
    if (!left.delete(frame)) return true;
    comparison.same++;
    return false;
  });
  for (const frame of unmatched) {
    const other = [...left].find((candidate) => Math.abs(candidate - frame) <= NEAR);
    if (other === undefined) comparison.onlyHere.push(frame);
    else {
      left.delete(other);
      comparison.near.push({ here: frame, there: other });
    }
  }
  comparison.onlyThere = [...left].sort((a, b) => a - b);
  return comparison;
}
