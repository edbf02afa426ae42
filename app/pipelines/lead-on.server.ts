import { type Box, boxCentre, mixBoxes, scaleBox, type Size } from "~/core/geometry/box";
import type { YuvImage } from "~/core/image/yuv-image";
import { likeness, signatureOf } from "~/core/subjects/detecting/signature";
import { COAST_SECONDS } from "~/core/subjects/marks/follow-thing";
import { hasLeft } from "~/core/subjects/marks/guide";
import { boxAt, extentOf, type Track } from "~/core/subjects/tracking/track";
import { type FrameRange, framesPerSecond } from "~/core/time/rate";
import type { FilmFile } from "~/media/film-file";
import { decodeSmall } from "~/media/small-frames.server";
import { Chase, SmallFrames } from "./chase.server";
import { watchIntervals } from "./watch-film.server";

/** Seconds before a track's end from which its appearance is learnt. */
const LEARN_SECONDS = 0.4;
/** Likeness below which something is not the thing, 0 to 1. */
const LEAST_LIKENESS = 0.55;
/** Share of the shot below which a gap is left as it is. */
const LEAST_GAP = 0.02;

/** Ranges of a shot in which a track has no box. */
function gapsOf(track: Track, shot: FrameRange): FrameRange[] {
  const gaps: FrameRange[] = [];
  let start = -1;
  for (let frame = shot.start; frame <= shot.end; frame++) {
    const missing = frame < shot.end && !boxAt(track, frame);
    if (missing && start < 0) start = frame;
    if (missing || start < 0) continue;
    gaps.push({ start, end: frame });
    start = -1;
  }
  return gaps.filter((gap) => gap.end - gap.start > LEAST_GAP * (shot.end - shot.start));
}

/**
 * Extends a track to frames in which the detectors missed the thing: from each of its ends, forwards and backwards, by its
 * appearance, as a mark is tracked, for as long as it is seen and looks the same.
 * @returns the track with more boxes; the same one where there are none to add
 */
export async function leadOn(film: FilmFile, track: Track, shot: FrameRange, signal?: AbortSignal): Promise<Track> {
  const found = new Map<number, Box>();
  for (const { start, end } of gapsOf(track, shot)) {
    for (const [frame, box] of await boxesInto(film, track, start - 1, end, signal)) found.set(frame, box);
    const missing = firstMissing(found, start, end);
    if (missing === end) continue;
    for (const [frame, box] of await boxesInto(film, track, end, missing - 1, signal)) found.set(frame, box);
  }
  if (found.size === 0) return track;
  const known = extentOf(track);
  // An hour's single take has more frames than a function takes arguments.
  const first = [...found.keys()].reduce((least, frame) => Math.min(least, frame), known.start);
  const last = [...found.keys()].reduce((most, frame) => Math.max(most, frame), known.end - 1);
  const boxes = Array.from(
    { length: last + 1 - first },
    (_, i) => boxAt(track, first + i) ?? found.get(first + i) ?? null,
  );
  return { ...track, start: first, boxes };
}

/**
 * Tracks a thing from its last sighting into a gap.
 * @param last frame in which the track has its last box before the gap, or its first one after it
 * @param end frame to stop before, on the gap's other side
 * @returns boxes by frame, as far as the thing is seen
 */
async function boxesInto(
  film: FilmFile,
  track: Track,
  last: number,
  end: number,
  signal?: AbortSignal,
): Promise<Map<number, Box>> {
  const found = new Map<number, Box>();
  const { picture, rate } = film.info;
  const fps = framesPerSecond(rate);
  const at = (frame: number) => boxAt(track, frame);
  if (!at(last) || hasLeft(at(last)!, picture)) return found;
  const step = Math.sign(end - last);
  // In the pictures used for optical flow; boxes in between are interpolated.
  const { step: stride } = watchIntervals(rate);
  let from = last;
  while (Math.abs(from - last) < LEARN_SECONDS * fps && at(from - step)) from -= step;
  const seen = track.boxes.filter((box) => box !== null);
  // Only the gap itself is decoded.
  const through = step > 0 ? { start: from, end } : { start: end + 1, end: from + 1 };
  const frames = new SmallFrames(film, through, seen, decodeSmall, signal);
  try {
    const chase = new Chase(await frames.at(from), at(from)!, frames.scale);
    let gone = 0;
    let before = { frame: last, box: at(last)! };
    const unsure: number[] = [];
    for (let frame = from; frame + step !== end;) {
      frame += step * Math.min(stride, Math.abs(end - frame) - 1);
      const image = await frames.at(frame);
      const { box, seen: isReviewed } = chase.next(image);
      if (step * (frame - last) <= 0) continue;
      const isLike = isReviewed && looksLike(track, box, image, frames.scale);
      gone = isLike ? 0 : gone + stride;
      if (gone > COAST_SECONDS * fps || !isInside(box, picture)) break;
      for (let each = before.frame + step; each !== frame + step; each += step) {
        unsure.push(each);
        found.set(each, mixBoxes(before.box, box, (each - before.frame) / (frame - before.frame)));
      }
      before = { frame, box };
      if (isLike) unsure.length = 0;
    }
    // Guesses after the last sighting are discarded.
    for (const frame of unsure) found.delete(frame);
  } finally {
    await frames.dispose();
  }
  return found;
}

/** The first frame of a gap that was not reached going forwards. */
function firstMissing(found: ReadonlyMap<number, Box>, start: number, end: number): number {
  let frame = start;
  while (frame < end && found.has(frame)) frame++;
  return frame;
}

function isInside(box: Box, picture: Size): boolean {
  const { x, y } = boxCentre(box);
  return x > 0 && y > 0 && x < picture.width && y < picture.height;
}

/** Whether the content of a box has the colours of a track's subject. */
function looksLike({ signature, kind }: Track, box: Box, image: YuvImage, scale: number): boolean {
  if (!signature) return true;
  const here = signatureOf(image, kind, scaleBox(box, 1 / scale));
  return !here || likeness(signature, here) >= LEAST_LIKENESS;
}
