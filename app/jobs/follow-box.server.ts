import { type Box, boxAround, boxCentre, clipBox, scaleBox } from "~/core/geometry/box";
import { CorrelationTracker } from "~/core/subjects/correlation-filter";
import type { TrackKind } from "~/core/subjects/detection";
import { smoothBoxes } from "~/core/subjects/fill-track";
import type { Track } from "~/core/subjects/track";
import { framesPerSecond, type FrameRange } from "~/core/time/rate";
import { decodeSmall, type FilmFile, smallFrames } from "~/media/small-frames.server";

/** Frames decoded at a time when going backwards, which a decoder cannot do by itself. */
const BACKWARD_CHUNK = 48;
/** Seconds for which a thing that has got lost is still taken to be where it was going. */
const COAST_SECONDS = 0.5;
/** A filter needs some pixels to learn from; a smaller box is taken with its surroundings. */
const MIN_SIDE = 8;

/** Follows what a box holds at one frame through its whole shot, forwards and then backwards. */
export async function followBox(
  film: FilmFile,
  shot: FrameRange,
  seed: { frame: number; box: Box },
  track: { id: string; kind: TrackKind },
  options: { onProgress?: (share: number) => void; signal?: AbortSignal } = {},
): Promise<Track> {
  const { scale } = smallFrames(film.info.picture);
  const fps = framesPerSecond(film.info.rate);
  const small = scaleBox(seed.box, 1 / scale);
  const box = boxAround(boxCentre(small), {
    width: Math.max(MIN_SIDE, small.width),
    height: Math.max(MIN_SIDE, small.height),
  });
  const boxes = new Array<Box | null>(shot.end - shot.start).fill(null);
  let done = 0;
  const step = () => options.onProgress?.(++done / boxes.length);
  const put = (
    frame: number,
    tracker: CorrelationTracker,
    image: Parameters<CorrelationTracker["update"]>[0],
    gone: number,
  ) => {
    const sighting = tracker.update(image);
    const missing = sighting.seen ? 0 : gone + 1;
    boxes[frame - shot.start] = missing > COAST_SECONDS * fps ? null : scaleBox(sighting.box, scale);
    step();
    return missing;
  };

  let forward: CorrelationTracker | null = null;
  let backward: CorrelationTracker | null = null;
  let gone = 0;
  for await (const { frame, image } of decodeSmall(film, { start: seed.frame, end: shot.end }, options.signal)) {
    if (forward) gone = put(frame, forward, image, gone);
    else {
      forward = new CorrelationTracker(image, box);
      backward = new CorrelationTracker(image, box);
      boxes[frame - shot.start] = seed.box;
      step();
    }
  }
  gone = 0;
  for (let end = seed.frame; end > shot.start; end -= BACKWARD_CHUNK) {
    const range = { start: Math.max(shot.start, end - BACKWARD_CHUNK), end };
    const chunk = [];
    for await (const item of decodeSmall(film, range, options.signal)) chunk.push(item);
    for (const { frame, image } of chunk.reverse()) gone = put(frame, backward!, image, gone);
  }

  const seen = boxes.filter(Boolean).length;
  const picture = film.info.picture;
  return {
    ...track,
    start: shot.start,
    boxes: smoothBoxes(boxes, 0.05 * fps, 0.2 * fps).map((smooth) => {
      const clipped = smooth && clipBox(smooth, picture);
      return clipped && clipped.width >= 1 && clipped.height >= 1 ? clipped : null;
    }),
    confidence: seen / boxes.length,
  };
}
