/** What a new export in the place of a film's file is going to change, as the editor is told before it happens. */
import { z } from "zod";
import { ShotMatch } from "../shots/match-shots";
import { JobView } from "./film-status";
import type { FilmState } from "../version/film-state";
import { rangesTexts } from "../../texts/ranges";

const t = rangesTexts.replacement;

export const Replacement = z.object({
  /** The comparison; null where there is none. */
  job: JobView.nullable(),
  /** What came of it. */
  found: z
    .object({
      /** What the new export is called. */
      name: z.string(),
      shots: z.array(ShotMatch.extend({ number: z.int(), name: z.string().nullable(), start: z.int(), end: z.int() })),
      /** What has no place in the new export. */
      lost: z.object({ keys: z.int(), marks: z.int() }),
      /** Frames of the new export that no shot of the film is in. */
      newFrames: z.int(),
      /** Whether it has another shape than the film, so that all places are to be looked at. */
      isReshaped: z.boolean(),
    })
    .nullable(),
  /** Whether there is an earlier file that can be put back. */
  hasEarlier: z.boolean(),
});
export type Replacement = z.infer<typeof Replacement>;

/** Shots that are told apart from those that are all there: less is left of them, or they are less like. */
const ALL_THERE = 0.98;
const SURELY = 0.92;

/** Why a shot is to be looked at after it has been moved; null where it does not. */
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
    // Some are new: they stand for tracks that were followed.
    marks: before.marks.length - after.marks.filter(placed).length,
  };
}
