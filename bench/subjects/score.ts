/** Holds what was found in a scene against where everybody and everything really was. */
import { type Box, boxCentre, boxIou } from "~/core/geometry/box";
import { boxAt, type Track } from "~/core/subjects/tracking/track";
import type { BoxTuple, Seen } from "./draw-scene";

export const toBox = (tuple: BoxTuple | null): Box | null =>
  tuple ? { x: tuple[0], y: tuple[1], width: tuple[2], height: tuple[3] } : null;

/** A found face is a true one when they overlap by this much: the detector's boxes begin at the brow, not the hair. */
const SAME_FACE = 0.35;
/** Heights of faces, in a picture of 640 × 360, by which they are counted. */
export const FACE_SIZES = [
  { name: "24 to 40 px", from: 24, to: 40 },
  { name: "40 px and more", from: 40, to: Infinity },
] as const;
/** More hidden than this, a face is asked of nobody. */
const ASKED_HIDDEN = 0.35;

export interface FaceScore {
  /** Faces to be found, and found, by size. */
  asked: number[];
  found: number[];
  /** Faces that were said to be there, and those of them that were. */
  said: number;
  right: number;
  overlap: number;
  /** Changes of the track that shows one and the same person, and the seconds that they were looked for. */
  switches: number;
  seconds: number;
}

export const NO_FACES: FaceScore = {
  asked: FACE_SIZES.map(() => 0),
  found: FACE_SIZES.map(() => 0),
  said: 0,
  right: 0,
  overlap: 0,
  switches: 0,
  seconds: 0,
};

export const addFaces = (a: FaceScore, b: FaceScore): FaceScore => ({
  asked: a.asked.map((n, i) => n + b.asked[i]!),
  found: a.found.map((n, i) => n + b.found[i]!),
  said: a.said + b.said,
  right: a.right + b.right,
  overlap: a.overlap + b.overlap,
  switches: a.switches + b.switches,
  seconds: a.seconds + b.seconds,
});

/**
 * @param scale picture pixels to those of a picture of 640 × 360
 */
export function scoreFaces(tracks: readonly Track[], truth: readonly Seen[][], scale: number, fps: number): FaceScore {
  const score = structuredClone(NO_FACES);
  const faces = tracks.filter(({ kind }) => kind === "face");
  const lastTrack = new Map<string, string>();
  truth.forEach((seen, frame) => {
    const there = faces.flatMap((track) => {
      const box = boxAt(track, frame);
      return box ? [{ track, box }] : [];
    });
    score.said += there.length;
    const used = new Set<Track>();
    for (const actor of seen) {
      const real = toBox(actor.face);
      if (!real) continue;
      const best = there
        .filter(({ track }) => !used.has(track))
        .map(({ track, box }) => ({ track, overlap: boxIou(box, real) }))
        .sort((a, b) => b.overlap - a.overlap)[0];
      const hit = best && best.overlap >= SAME_FACE ? best : null;
      if (hit) {
        used.add(hit.track);
        score.right++;
        score.overlap += hit.overlap;
        const before = lastTrack.get(actor.id);
        if (before && before !== hit.track.id) score.switches++;
        lastTrack.set(actor.id, hit.track.id);
      }
      score.seconds += 1 / fps;
      if (actor.hidden > ASKED_HIDDEN) continue;
      const size = FACE_SIZES.findIndex(({ from, to }) => real.height * scale >= from && real.height * scale < to);
      if (size < 0) continue;
      score.asked[size]!++;
      if (hit) score.found[size]!++;
    }
  });
  return score;
}

/** Share of the frames with the main subject in the picture in which what is followed is it. */
export function rightSubject(
  followed: readonly (Box | null)[],
  truth: readonly Seen[][],
): { right: number; asked: number } {
  let right = 0;
  let asked = 0;
  truth.forEach((seen, frame) => {
    const main = seen.find((actor) => actor.main);
    const real = main && (toBox(main.body) ?? toBox(main.face));
    if (!main || !real || main.hidden > 0.8) return;
    asked++;
    const box = followed[frame];
    if (!box) return;
    const { x, y } = boxCentre(box);
    if (x >= real.x && x < real.x + real.width && y >= real.y && y < real.y + real.height) right++;
  });
  return { right, asked };
}

export interface MarkScore {
  held: number;
  asked: number;
  /** Sum over the held frames of how far the centre is off, in sizes of the thing. */
  off: number;
  /** Things that were wholly hidden for a while, and those that were held again afterwards. */
  hidden: number;
  recovered: number;
}

export const NO_MARKS: MarkScore = { held: 0, asked: 0, off: 0, hidden: 0, recovered: 0 };

export function addMarks(a: MarkScore, b: MarkScore): MarkScore {
  return {
    held: a.held + b.held,
    asked: a.asked + b.asked,
    off: a.off + b.off,
    hidden: a.hidden + b.hidden,
    recovered: a.recovered + b.recovered,
  };
}

/** How well a marked thing was held where it is to be seen; clipped boxes, since nothing is beyond the picture. */
export function scoreMark(track: Track, real: readonly { box: Box | null; hidden: number }[]): MarkScore {
  const score = { ...NO_MARKS };
  const gone = real.findIndex(({ hidden }) => hidden > 0.9);
  const back = gone < 0 ? -1 : real.findIndex(({ box, hidden }, frame) => frame > gone && box && hidden < 0.3);
  let heldAfter = 0;
  real.forEach(({ box, hidden }, frame) => {
    if (!box || hidden > 0.35) return;
    score.asked++;
    const found = boxAt(track, frame);
    if (!found || boxIou(found, box) < 0.5) return;
    score.held++;
    const [a, b] = [boxCentre(found), boxCentre(box)];
    score.off += Math.hypot(a.x - b.x, a.y - b.y) / Math.sqrt(box.width * box.height);
    if (back >= 0 && frame >= back) heldAfter++;
  });
  const asked = back < 0 ? 0 : real.slice(back).filter(({ box, hidden }) => box && hidden <= 0.35).length;
  if (asked > 5) {
    score.hidden = 1;
    score.recovered = heldAfter > 0.5 * asked ? 1 : 0;
  }
  return score;
}
