/** What replacing a film's file with a new export will change, as shown before it happens. */
import { z } from "zod";
import { ShotMatch } from "../shots/match-shots";
import { JobView } from "./film-status";
import type { FilmState } from "../version/film-state";
import { rangesTexts } from "../../texts/ranges";

const t = rangesTexts.replacement;

export const Replacement = z.object({
  /** The comparison; null where there is none. */
  job: JobView.nullable(),
  /** Its result. */
  found: z
    .object({
      /** Name of the new export. */
      name: z.string(),
      shots: z.array(ShotMatch.extend({ number: z.int(), name: z.string().nullable(), start: z.int(), end: z.int() })),
      /** Work without a place in the new export. */
      lost: z.object({ keys: z.int(), marks: z.int() }),
      /** Frames of the new export outside all shots of the film. */
      newFrames: z.int(),
      /** Whether its aspect ratio differs from the film's, so that every place should be reviewed. */
      isReshaped: z.boolean(),
    })
    .nullable(),
  /** Whether there is an earlier file to put back. */
  hasEarlier: z.boolean(),
});
export type Replacement = z.infer<typeof Replacement>;

/** Share of a shot's frames, and likeness, from which on it counts as complete. */
const ALL_THERE = 0.98;
const SURELY = 0.92;

/** Why a moved shot should be reviewed; null if it need not be. */
export function matchNote({ range, likeness, share }: ShotMatch): string | null {
  if (!range) return t.notInTheNewFile;
  if (share < ALL_THERE) return t.ofItIsThere(share);
  return likeness < SURELY ? t.looksDifferentAlike(likeness) : null;
}

const countKeys = ({ versions }: FilmState): number => versions.reduce((sum, { handKeys }) => sum + handKeys.length, 0);

/** The keyframes and marks that a film lost when its work was moved. */
export function lostBetween(before: FilmState, after: FilmState): { keys: number; marks: number } {
  const placed = (mark: { thing: string }) => before.marks.some(({ thing }) => thing === mark.thing);
  return {
    keys: countKeys(before) - countKeys(after),
    // Some are new: they replace tracks that were followed.
    marks: before.marks.length - after.marks.filter(placed).length,
  };
}
