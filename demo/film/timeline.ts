/** When each shot of a film is on the screen, alone or mixed with its neighbour. */
import type { Shot } from "./stage";

export interface Placed {
  shot: Shot;
  /** Frame of the stage's clock at which its first picture appears (under a dissolve, still mixed). */
  start: number;
  end: number;
}

/** A dissolve overlaps the shot before it; a fade goes through black, with half of it on either side. */
export function place(list: Shot[]): Placed[] {
  let at = 0;
  return list.map((shot) => {
    const start = shot.transition === "dissolve" ? at - shot.overlap : at;
    at = start + shot.frames;
    return { shot, start, end: at };
  });
}

/** What is in the picture at a moment: shots from the bottom up with their opacity, and black on top. */
export function blendAt(
  placed: Placed[],
  moment: number,
): { layers: { at: Placed; opacity: number }[]; black: number } {
  const layers: { at: Placed; opacity: number }[] = [];
  let black = 0;
  placed.forEach((at, i) => {
    if (moment < at.start || moment >= at.end) return;
    const since = moment - at.start;
    const next = placed[i + 1];
    const opacity = at.shot.transition === "dissolve" ? Math.min(1, (since + 1) / (at.shot.overlap + 1)) : 1;
    layers.push({ at, opacity });
    if (at.shot.transition === "fade") black = Math.max(black, 1 - (since + 1) / (at.shot.overlap / 2 + 1));
    if (next?.shot.transition === "fade") {
      black = Math.max(black, 1 - (at.end - moment) / (next.shot.overlap / 2 + 1));
    }
  });
  return { layers, black };
}
