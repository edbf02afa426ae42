import { type Box, boxCentre, intersectionArea } from "~/core/geometry/box";
import type { Shown } from "./plan-things";

/** What was made of a frame: what is followed, where the window is, and which areas are said to be text. */
export interface Made {
  followed: Box | null;
  window: Box;
  texts: Box[];
}

export interface ThingScore {
  /** Shots that are about a thing, and those in which it is followed. */
  shots: number;
  right: number;
  /** Frames with a thing that fits into the window, or whose head does; the sum of the share of its width inside. */
  frames: number;
  inside: number;
  /** Frames of them in which at least four fifths of its width are inside. */
  mostlyInside: number;
  /** Shots in which nothing is to be followed, and in which nothing is. */
  empty: number;
  leftAlone: number;
  /** Frames with text over them, those in which it is covered by an area, and frames of areas where there is none. */
  texts: number;
  textsFound: number;
  textsFalse: number;
}

export const NO_THINGS: ThingScore = {
  shots: 0,
  right: 0,
  frames: 0,
  inside: 0,
  mostlyInside: 0,
  empty: 0,
  leftAlone: 0,
  texts: 0,
  textsFound: 0,
  textsFalse: 0,
};

export function addThings(a: ThingScore, b: ThingScore): ThingScore {
  const keys = Object.keys(NO_THINGS) as (keyof ThingScore)[];
  return Object.fromEntries(keys.map((key) => [key, a[key] + b[key]])) as unknown as ThingScore;
}

/** Share of a shot in which what is followed has to be the thing. */
const MOST = 0.8;
/** Share of a text's box that an area has to cover. */
const COVERED = 0.8;

/** Whether the middle of what is followed is in a box. */
export const holds = (box: Box, followed: Box | null): boolean => {
  if (!followed) return false;
  const { x, y } = boxCentre(followed);
  return x >= box.x && x < box.x + box.width && y >= box.y && y < box.y + box.height;
};

/** Share of a box's width that a window shows. */
const widthInside = (box: Box, window: Box): number =>
  Math.max(0, Math.min(box.x + box.width, window.x + window.width) - Math.max(box.x, window.x)) / box.width;

/** @param shown what is to be seen in each frame of a shot, and `made` what was made of it */
export function scoreThings(shown: readonly Shown[], made: readonly Made[]): ThingScore {
  const score = { ...NO_THINGS };
  const choices = shown[0]!.things.map((_, index) => {
    const held = shown.filter(({ things }, frame) => holds(things[index]!, made[frame]!.followed)).length;
    const shares = shown.flatMap(({ things, heads }, frame) => {
      const { window } = made[frame]!;
      const thing = things[index]!;
      const asked = thing.width > window.width ? heads?.[index] : thing;
      return asked ? [widthInside(asked, window)] : [];
    });
    return { held, shares };
  });
  const best = choices.sort((a, b) => b.held - a.held)[0];
  if (best) {
    score.shots = 1;
    score.right = best.held >= MOST * shown.length ? 1 : 0;
    score.frames = best.shares.length;
    score.inside = best.shares.reduce((sum, share) => sum + share, 0);
    score.mostlyInside = best.shares.filter((share) => share >= 0.8).length;
  } else {
    score.empty = 1;
    score.leftAlone = made.every(({ followed }) => !followed) ? 1 : 0;
  }
  shown.forEach(({ text }, frame) => {
    const { texts } = made[frame]!;
    if (text) {
      score.texts++;
      const area = text.width * text.height;
      if (texts.some((found) => intersectionArea(found, text) >= COVERED * area)) score.textsFound++;
    } else if (texts.length > 0) score.textsFalse++;
  });
  return score;
}

const percent = (part: number, whole: number) => (whole === 0 ? "" : ((100 * part) / whole).toFixed(1));
/** A score as a row of a table. */
export const thingRow = (score: ThingScore) => ({
  "right thing %": percent(score.right, score.shots),
  "width inside %": percent(score.inside, score.frames),
  "frames ≥ 80 % inside": percent(score.mostlyInside, score.frames),
  "left alone %": percent(score.leftAlone, score.empty),
  "text found %": percent(score.textsFound, score.texts),
  "frames with false text": score.textsFalse || "",
});
