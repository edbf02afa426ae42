import { useMemo, useState } from "react";
import type { CheckLimits } from "~/core/checks/check-settings";
import type { FlagKind } from "~/core/checks/flag";
import type { Player } from "./player";
import { type DeskFlag, type DeskShot, followedIn } from "./desk-types";
import type { VersionEdits } from "./version-commands";

/** A flag of the version with the shot that it is in. */
export interface FlagRow extends DeskFlag {
  shot: DeskShot;
}

/** Which flags are listed, and in which order. */
export interface FlagFilter {
  order: "worst" | "time";
  /** Null for all. */
  kind: FlagKind | null;
  /** The letter of the subject whose shots count; null for all. */
  letter: string | null;
  withReviewed: boolean;
}
const FIRST_FILTER: FlagFilter = { order: "worst", kind: null, letter: null, withReviewed: false };

/** The flags of a version: which are listed, which one is looked at, and what is done with them. */
export interface Checks {
  all: readonly FlagRow[];
  /** Those that are listed. */
  rows: readonly FlagRow[];
  /** How many the editor has not seen. */
  left: number;
  filter: FlagFilter;
  setFilter: (change: Partial<FlagFilter>) => void;
  /** The print of the one that is looked at; null for none. */
  current: string | null;
  /** Whether their page lies over the desk. */
  isOpen: boolean;
  setOpen: (isOpen: boolean) => void;
  /** Goes to one on the desk. */
  go: (row: FlagRow) => void;
  /** Goes to the one after, or before, the one that was gone to last. */
  step: (direction: -1 | 1) => void;
  mark: (rows: readonly DeskFlag[], isReviewed: boolean) => void;
  /** Marks the one that is looked at as seen, and goes on to the next. */
  reviewedAndNext: () => void;
  setLimits: (change: Partial<CheckLimits>) => void;
}

interface ChecksOf {
  shots: readonly DeskShot[];
  version: { id: string; checkLimits: CheckLimits; reviewedFlags: readonly string[] };
  player: Player | null;
  versionEdits: VersionEdits;
  selectPane: (pane: number) => void;
  showShot: () => void;
}

const byTime = (a: FlagRow, b: FlagRow): number => a.range.start - b.range.start;
const byWorst = (a: FlagRow, b: FlagRow): number => b.severity - a.severity || byTime(a, b);

export function useChecks({ shots, version, player, versionEdits, selectPane, showShot }: ChecksOf): Checks {
  const [filter, setFilter] = useState(FIRST_FILTER);
  const [current, setCurrent] = useState<string | null>(null);
  const [isOpen, setOpen] = useState(false);
  const all = useMemo(() => shots.flatMap((shot) => shot.flags.map((flag): FlagRow => ({ ...flag, shot }))), [shots]);
  const sorted = useMemo(() => {
    const { order, kind, letter } = filter;
    return all
      .filter((row) => kind === null || row.kind === kind)
      .filter(({ shot }) => letter === null || followedIn(shot)?.letter === letter)
      .sort(order === "worst" ? byWorst : byTime);
  }, [all, filter]);
  const { withReviewed } = filter;
  const rows = useMemo(() => sorted.filter(({ isReviewed }) => withReviewed || !isReviewed), [sorted, withReviewed]);

  const go = (row: FlagRow) => {
    setCurrent(row.print);
    setOpen(false);
    showShot();
    if (row.pane !== undefined) selectPane(row.pane);
    player?.pause();
    player?.seek(row.frame);
  };
  const step = (direction: -1 | 1) => {
    // Counted from where the current one is, also when it is not listed any more.
    const at = sorted.findIndex(({ print }) => print === current);
    const listed = new Set(rows);
    const others = direction > 0 ? sorted.slice(at + 1) : sorted.slice(0, Math.max(0, at)).reverse();
    const next = others.find((row) => listed.has(row));
    if (next) go(next);
  };
  const mark = (marked: readonly DeskFlag[], isReviewed: boolean) => {
    const prints = new Set(marked.map(({ print }) => print));
    // What nobody can see any more is forgotten.
    const known = new Set(all.map(({ print }) => print));
    const others = version.reviewedFlags.filter((print) => known.has(print) && !prints.has(print));
    versionEdits.change(version.id, { reviewedFlags: isReviewed ? [...others, ...prints] : others });
  };
  return {
    ...{ all, rows, left: all.filter(({ isReviewed }) => !isReviewed).length },
    ...{ filter, setFilter: (change) => setFilter((before) => ({ ...before, ...change })) },
    ...{ current, isOpen, setOpen, go, step, mark },
    reviewedAndNext: () => {
      const row = sorted.find(({ print }) => print === current);
      if (row && !row.isReviewed) mark([row], true);
      step(1);
    },
    setLimits: (change) => versionEdits.change(version.id, { checkLimits: { ...version.checkLimits, ...change } }),
  };
}
