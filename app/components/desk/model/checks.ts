import type { CheckLimits } from "~/core/checks/check-settings";
import type { FlagKind } from "~/core/checks/flag";
import type { DeskGiven, DeskPort } from "./desk-model";
import { deskSelector } from "./desk-selector";
import { type DeskFlag, type DeskShot, followedIn } from "./desk-types";

/** A flag of the version, with its shot. */
export interface FlagRow extends DeskFlag {
  shot: DeskShot;
}

/** Filter and order of the listed flags. */
export interface FlagFilter {
  order: "worst" | "time";
  /** Null for all. */
  kind: FlagKind | null;
  /** Letter of the subject whose shots are listed; null for all. */
  letter: string | null;
  withReviewed: boolean;
}
export const FIRST_FILTER: FlagFilter = { order: "worst", kind: null, letter: null, withReviewed: false };

/** The flags of a version: those listed, the current one, and the commands on them. */
export interface Checks {
  all: readonly FlagRow[];
  /** The listed flags. */
  rows: readonly FlagRow[];
  /** How many are not reviewed. */
  left: number;
  filter: FlagFilter;
  setFilter: (change: Partial<FlagFilter>) => void;
  /** Print of the current flag; null for none. */
  current: string | null;
  /** Whether the page of flags is open. */
  isOpen: boolean;
  setOpen: (isOpen: boolean) => void;
  /** Goes to a flag on the desk. */
  go: (row: FlagRow) => void;
  /** Goes to the next or the previous flag. */
  step: (direction: -1 | 1) => void;
  mark: (rows: readonly DeskFlag[], isReviewed: boolean) => void;
  /** Marks the current flag as reviewed, and goes to the next. */
  reviewedAndNext: () => void;
  setLimits: (change: Partial<CheckLimits>) => void;
}

const byTime = (a: FlagRow, b: FlagRow): number => a.range.start - b.range.start;
const byWorst = (a: FlagRow, b: FlagRow): number => b.severity - a.severity || byTime(a, b);

/** All flags of the shots; those that pass the filter, in its order; and of these, those that are listed. */
function flagLists() {
  const all = deskSelector([(desk) => desk.shots], (shots) =>
    shots.flatMap((shot) => shot.flags.map((flag): FlagRow => ({ ...flag, shot }))),
  );
  const sorted = deskSelector([all, (desk) => desk.flagFilter], (rows, { order, kind, letter }) =>
    rows
      .filter((row) => kind === null || row.kind === kind)
      .filter(({ shot }) => letter === null || followedIn(shot)?.letter === letter)
      .sort(order === "worst" ? byWorst : byTime),
  );
  const listed = deskSelector([sorted, (desk) => desk.flagFilter.withReviewed], (rows, withReviewed) =>
    rows.filter(({ isReviewed }) => withReviewed || !isReviewed),
  );
  return { all, sorted, listed };
}

export function checks({ get, put }: DeskPort): (given: DeskGiven) => Checks {
  const { all, sorted, listed } = flagLists();
  const go = (row: FlagRow) => {
    const { player, selectPane } = get();
    put({ flagPrint: row.print, showsFlags: false, panel: "shot" });
    if (row.pane !== undefined) selectPane(row.pane);
    player?.pause();
    player?.seek(row.frame);
  };
  const step = (direction: -1 | 1) => {
    const [rows, known] = [sorted(get()), new Set(listed(get()))];
    // Counted from the current flag, even when it is no longer listed.
    const at = rows.findIndex(({ print }) => print === get().flagPrint);
    const others = direction > 0 ? rows.slice(at + 1) : rows.slice(0, Math.max(0, at)).reverse();
    const next = others.find((row) => known.has(row));
    if (next) go(next);
  };
  const mark = (marked: readonly DeskFlag[], isReviewed: boolean) => {
    const { version, versionCommands } = get();
    const prints = new Set(marked.map(({ print }) => print));
    // Flags that are gone are forgotten.
    const known = new Set(all(get()).map(({ print }) => print));
    const others = version.reviewedFlags.filter((print) => known.has(print) && !prints.has(print));
    versionCommands.change(version.id, { reviewedFlags: isReviewed ? [...others, ...prints] : others });
  };
  const commands = {
    go,
    step,
    mark,
    setFilter: (change: Partial<FlagFilter>) => put({ flagFilter: { ...get().flagFilter, ...change } }),
    setOpen: (showsFlags: boolean) => put({ showsFlags }),
    reviewedAndNext: () => {
      const row = sorted(get()).find(({ print }) => print === get().flagPrint);
      if (row && !row.isReviewed) mark([row], true);
      step(1);
    },
    setLimits: (change: Partial<CheckLimits>) => {
      const { version, versionCommands } = get();
      versionCommands.change(version.id, { checkLimits: { ...version.checkLimits, ...change } });
    },
  };
  return deskSelector(
    [all, listed, (desk) => desk.flagFilter, (desk) => desk.flagPrint, (desk) => desk.showsFlags],
    (flags, rows, filter, current, isOpen): Checks => ({
      ...commands,
      all: flags,
      rows,
      filter,
      current,
      isOpen,
      left: flags.filter(({ isReviewed }) => !isReviewed).length,
    }),
  );
}
