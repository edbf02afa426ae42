import type { Size } from "../geometry/box";
import type { CropWindow } from "../geometry/crop-window";
import { isSameList } from "../basics/structure";
import type { FollowPlan } from "../subjects/choosing/follow-plan";
import type { Rate } from "../time/rate";
import { SolvedProblems } from "./solved-problems";
import type { Followed, FramedShot, ShotFraming } from "./shot-framing";
import { frameShot, goesOn, lastWindows, planShot } from "./solve-version";

/** A shot of a version, by its id. */
export interface ShotToFrame {
  id: string;
  /** Compared by identity: a shot is solved again when it is given another one. Null while it is unknown. */
  framing: ShotFraming | null;
}

/** What determines a path: the framing, who was followed before, and the windows that it continues from. */
type Basis = readonly [ShotFraming, string | null, ...CropWindow[]];

export type SolvedShot = { id: string; framed: FramedShot } | { id: string; error: unknown };

interface Entry extends ShotToFrame {
  /** Whom it follows, and the inputs of that decision. */
  plan: { from: readonly unknown[]; followed: FollowPlan | null } | null;
  /** `framed` is null where it could not be solved. */
  path: { from: readonly unknown[]; framed: FramedShot | null } | null;
  /** Kept for the shots solved last: the one being edited is mostly solved again. */
  solved: SolvedProblems | null;
}

/** The subject where none is known. */
const NOBODY: Followed = { who: null, trackId: null };

/** Shots whose solved problems are kept: some ten numbers per frame, which would fill the memory in a long film. */
const KEPT_PROBLEMS = 8;

const isFrom = (kept: { from: readonly unknown[] } | null, from: readonly unknown[]): boolean =>
  kept !== null && isSameList(kept.from, from);

/** Paths of a version's shots, solved one at a time and only where something has changed. */
export class VersionPaths {
  private entries: Entry[] = [];
  private recent: string[] = [];

  constructor(
    private readonly picture: Size,
    private readonly target: Size,
    private readonly rate: Rate,
  ) {}

  /** Takes the present shots, in order. */
  take(shots: readonly ShotToFrame[]): void {
    const known = new Map(this.entries.map((entry) => [entry.id, entry]));
    this.entries = shots.map(({ id, framing }) => {
      const entry = known.get(id);
      return entry ? { ...entry, framing } : { id, framing, plan: null, path: null, solved: null };
    });
  }

  /** Whom a shot follows, which depends on the shot before. */
  private plan(index: number): void {
    const entry = this.entries[index]!;
    const before = this.entries[index - 1]?.plan?.followed ?? null;
    const from = [entry.framing, before?.who ?? null, before?.trackId ?? null];
    if (!isFrom(entry.plan, from)) {
      const { picture, target, rate } = this;
      const { framing } = entry;
      const followed = framing && planShot(framing, picture, target, rate, before?.who ?? null);
      entry.plan = { from, followed };
    }
  }

  /** What determines a path; null while that is unknown, or the path before has to be solved first. */
  private basis(index: number): Basis | null {
    const { framing, plan } = this.entries[index]!;
    if (!framing) return null;
    const before = this.entries[index - 1];
    const followedBefore = before?.plan?.followed ?? NOBODY;
    const { who } = followedBefore;
    if (!before || !goesOn(framing, followedBefore, plan!.followed!)) return [framing, who];
    if (!this.isSolved(index - 1)) return null;
    const framed = before.path!.framed;
    return [framing, who, ...(framed ? lastWindows(before.framing!, framed) : [])];
  }

  /** Problems solved for a shot's last path, if it is among those solved last. */
  private problemsOf(entry: Entry): SolvedProblems {
    entry.solved ??= new SolvedProblems();
    this.recent = [entry.id, ...this.recent.filter((id) => id !== entry.id)].slice(0, KEPT_PROBLEMS);
    for (const other of this.entries) if (!this.recent.includes(other.id)) other.solved = null;
    return entry.solved;
  }

  private isSolved(index: number): boolean {
    const basis = this.basis(index);
    return basis !== null && isFrom(this.entries[index]!.path, basis);
  }

  /**
   * Solves one shot that is not up to date, those given before any other.
   * @param first ids of shots that are waited for
   * @returns the shot's id and its path, or why there is none; null when all are solved
   */
  solveNext(first: ReadonlySet<string> = new Set()): SolvedShot | null {
    this.entries.forEach((_, index) => this.plan(index));
    const due = (index: number) => this.basis(index) !== null && !this.isSolved(index);
    const indices = [...this.entries.keys()];
    const index = indices.find((i) => first.has(this.entries[i]!.id) && due(i)) ?? indices.find(due);
    if (index === undefined) return null;
    const entry = this.entries[index]!;
    const basis = this.basis(index)!;
    const { id } = entry;
    const solved = this.problemsOf(entry);
    const [framing, who, ...windows] = basis;
    entry.path = { from: basis, framed: null };
    try {
      const followed = entry.plan!.followed!;
      const framed = frameShot(framing, this.picture, this.target, this.rate, { who, windows }, solved, followed);
      entry.path = { from: basis, framed };
      return { id, framed };
    } catch (error) {
      return { id, error };
    }
  }
}

/** Lays the paths of consecutive shots. */
export function frameShots(shots: readonly ShotFraming[], picture: Size, target: Size, rate: Rate): FramedShot[] {
  const paths = new VersionPaths(picture, target, rate);
  paths.take(shots.map((framing, i) => ({ id: String(i), framing })));
  const framed = new Map<string, FramedShot>();
  for (let next = paths.solveNext(); next; next = paths.solveNext()) {
    if ("error" in next) throw next.error;
    framed.set(next.id, next.framed);
  }
  return shots.map((_, i) => framed.get(String(i))!);
}
