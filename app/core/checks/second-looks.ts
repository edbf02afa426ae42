import type { CropWindow } from "../geometry/crop-window";
import { boxContains } from "../geometry/box";
import { windowBox } from "../geometry/crop-window";
import type { Shot } from "../shots/shot";
import { boxAt, type Track } from "../subjects/track";

/** A place that deserves the editor's eye, with its reason and its number. */
export interface SecondLook {
  kind: "unsure-cut" | "short-shot" | "subject-cut";
  /** Frame to look at. */
  frame: number;
  /** The reason in words, with the number. */
  text: string;
}

/** A transition that is decided by less than this, on a scale of 0 to 1 around 0.5, is not certain. */
const UNSURE = 0.06;
/** Shots of fewer frames are more often a mistake than a choice. */
const SHORT_FRAMES = 6;
/** Share of the frames in which a subject may reach beyond the window. */
const CUT_SHARE = 0.05;
/** How far it may reach beyond, as a share of its own size. */
const CUT_TOLERANCE = 0.08;

/** Frames in which the subject is to be seen and reaches beyond the window. */
function framesCut(subject: Track, windows: readonly CropWindow[], start: number, aspect: number): number[] {
  return windows.flatMap((window, i) => {
    const box = boxAt(subject, start + i);
    if (!box) return [];
    return boxContains(windowBox(window, aspect), box, CUT_TOLERANCE * box.width) ? [] : [start + i];
  });
}

/**
 * What to look at in a shot.
 *
 * @param strength how much spoke for the transition that begins the shot, 0 to 1; undefined if nothing was weighed
 */
export function secondLooks(
  shot: Pick<Shot, "start" | "end" | "begins">,
  strength: number | undefined,
  subject: Track | null,
  windows: readonly CropWindow[],
  aspect: number,
): SecondLook[] {
  const looks: SecondLook[] = [];
  const frames = shot.end - shot.start;
  if (strength !== undefined && shot.begins !== "turn" && Math.abs(strength - 0.5) < UNSURE) {
    looks.push({
      kind: "unsure-cut",
      frame: shot.start,
      text: `It is not certain that a shot begins here (${Math.round(100 * strength)} %)`,
    });
  }
  if (frames < SHORT_FRAMES) {
    looks.push({ kind: "short-shot", frame: shot.start, text: `This shot has only ${frames} frames` });
  }
  if (subject) {
    const cut = framesCut(subject, windows, shot.start, aspect);
    if (cut.length > CUT_SHARE * frames) {
      const share = Math.round((100 * cut.length) / frames);
      looks.push({
        kind: "subject-cut",
        frame: cut[0]!,
        text: `Whom it follows is cut by the window in ${share} % of the shot`,
      });
    }
  }
  return looks;
}
