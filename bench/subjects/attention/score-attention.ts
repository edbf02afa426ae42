/** Holds what a window shows, and who is followed, against who is due in the picture. */
import { type Box, boxCentre } from "~/core/geometry/box";
import type { Seen } from "../draw-scene";
import { toBox } from "../score";
import type { Due } from "./plan-attention";

/** A range in which somebody is followed, as the plan has it. */
export interface Held {
  /** Frames. */
  start: number;
  end: number;
  /** Where those who are followed are at a frame. */
  boxesAt: (frame: number) => Box[];
}

export interface AttentionScore {
  /** Frames in which somebody is due; those in which they are followed; those in which the window shows all of them. */
  asked: number;
  followed: number;
  shown: number;
  /** Turns of the script, those that were taken within 0.4 s, and all that were taken. */
  turns: number;
  inTime: number;
  taken: number;
  seconds: number;
}

export const NO_ATTENTION: AttentionScore = {
  asked: 0,
  followed: 0,
  shown: 0,
  turns: 0,
  inTime: 0,
  taken: 0,
  seconds: 0,
};

export function addAttention(a: AttentionScore, b: AttentionScore): AttentionScore {
  const keys = Object.keys(NO_ATTENTION) as (keyof AttentionScore)[];
  return Object.fromEntries(keys.map((key) => [key, a[key] + b[key]])) as unknown as AttentionScore;
}

/** A turn so near to the script's is in time, and so near to a turn nothing is asked. Seconds. */
const IN_TIME = 0.4;

/** Who of a scene's actors a box is of. */
function ownerOf(box: Box, seen: readonly Seen[]): string | null {
  const { x, y } = boxCentre(box);
  const holding = seen.flatMap(({ id, body }) => {
    const own = toBox(body);
    const isIn = own && x >= own.x && x < own.x + own.width && y >= own.y && y < own.y + own.height;
    return isIn ? [{ id, off: Math.abs(x - boxCentre(own).x) }] : [];
  });
  return holding.sort((a, b) => a.off - b.off)[0]?.id ?? null;
}

/**
 * @param windows of each frame, in pixels of the picture
 * @param truth where everybody is in each frame
 */
export function scoreAttention(
  due: readonly Due[],
  held: readonly Held[],
  windows: readonly Box[],
  truth: readonly Seen[][],
  fps: number,
): AttentionScore {
  const score = { ...NO_ATTENTION, seconds: truth.length / fps };
  const followedAt = (frame: number) => {
    const hold = held.find(({ start, end }) => frame >= start && frame < end);
    return new Set((hold?.boxesAt(frame) ?? []).flatMap((box) => ownerOf(box, truth[frame]!) ?? []));
  };
  const scripted = due
    .slice(1)
    .flatMap(({ ids, from }, i) => (ids.join() === due[i]!.ids.join() ? [] : [{ ids, from }]));
  truth.forEach((seen, frame) => {
    const seconds = frame / fps;
    const now = due.find(({ from, to }) => seconds >= from && seconds < to);
    if (!now || scripted.some(({ from }) => Math.abs(from - seconds) < IN_TIME)) return;
    const window = windows[frame]!;
    const places = now.ids.flatMap((id) => {
      const actor = seen.find((one) => one.id === id)!;
      return toBox(actor.face ?? actor.body) ?? [];
    });
    if (places.length < now.ids.length) return;
    score.asked++;
    const followed = followedAt(frame);
    if (now.ids.every((id) => followed.has(id))) score.followed++;
    if (places.every((box) => boxCentre(box).x >= window.x && boxCentre(box).x < window.x + window.width))
      score.shown++;
  });
  score.turns = scripted.length;
  score.taken = held.length - 1;
  for (const { ids, from } of scripted) {
    const near = held.slice(1).find(({ start, end }) => {
      if (Math.abs(start / fps - from) > IN_TIME) return false;
      // Who is followed is asked a little later: one who comes in may not be seen yet.
      const followed = followedAt(Math.min(end - 1, Math.round(start + IN_TIME * fps)));
      return ids.every((id) => followed.has(id));
    });
    if (near) score.inTime++;
  }
  return score;
}

const percent = (part: number, whole: number) => (whole === 0 ? "" : ((100 * part) / whole).toFixed(1));

export const attentionRow = (score: AttentionScore) => ({
  "followed %": percent(score.followed, score.asked),
  "in the window %": percent(score.shown, score.asked),
  turns: score.turns,
  "within 0.4 s": score.inTime,
  taken: score.taken,
  "too many per minute": (Math.max(0, score.taken - score.turns) / (score.seconds / 60)).toFixed(2),
});
