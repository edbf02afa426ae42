import { type Box, clipBox, scaleBox, type Size, wholeOf } from "~/core/geometry/box";
import { type GreyPlane, lumaOf } from "~/core/image/grey-plane";
import { greyPyramid, showsOther } from "~/core/image/grey-pyramid";
import { type FrameFeatures, frameFeatures } from "~/core/shots/frame-features";
import { type CameraStep } from "~/core/subjects/detecting/camera-motion";
import { type Detection, type FrameDetections } from "~/core/subjects/detecting/detection";
import { TextDue } from "~/core/subjects/text/text-due";
import { type FrameRange, framesPerSecond, type Rate } from "~/core/time/rate";
import { Undecoded } from "~/core/time/undecoded";
import type { Detector } from "~/media/detect/detector.server";
import { readAhead } from "~/media/read-ahead";
import { decodeForAnalysis, smallFrames } from "~/media/small-frames.server";
import { pictureTimes } from "~/media/picture-times.server";
import type { FilmFile } from "~/media/film-file";
import { rounded, type Step, StepReader } from "./step-reader";

/** Pictures per second used for optical flow. */
const STEPS_PER_SECOND = 15;
/** Steps between looks for faces, and looks for faces per look for persons and objects. */
const FACE_STEPS = 5;
const OBJECT_LOOKS = 2;
/** Seconds for which a thing is propagated without being detected again. */
const PROPAGATION_SECONDS = 1;
/** Seconds per chunk. */
const CHUNK_SECONDS = 8;
/** Frames decoded, and detections awaited, while an earlier one is processed. */
const DECODED_AHEAD = 12;
const DETECTIONS_AHEAD = 3;
/** What was seen in a range of a film. */
export interface SeenChunk {
  range: FrameRange;
  features: FrameFeatures[];
  detected: FrameDetections[];
  camera: CameraStep[];
  /** Frames whose pictures are in the file but could not be decoded. */
  undecoded: FrameRange[];
}

/** Frames between steps, between looks for faces and for objects, and in a chunk. */
export function watchIntervals(rate: Rate): { step: number; faces: number; objects: number; chunk: number } {
  const fps = framesPerSecond(rate);
  const step = Math.max(1, Math.round(fps / STEPS_PER_SECOND));
  const faces = step * FACE_STEPS;
  const objects = faces * OBJECT_LOOKS;
  return { step, faces, objects, chunk: Math.max(1, Math.round((CHUNK_SECONDS * fps) / objects)) * objects };
}

/** A box in pixels of the film's picture, to a tenth. */
function boxInPicture(box: Box, scale: number): Box {
  const tenth = (value: number) => rounded(value, 1);
  const { x, y, width, height } = scaleBox(box, scale);
  return { x: tenth(x), y: tenth(y), width: tenth(width), height: tenth(height) };
}

/** A detection in pixels of the film's picture, without what was needed for propagation. */
function inPicture(detection: Detection, scale: number): Detection {
  const place = (box: Box) => boxInPicture(box, scale);
  const { box, withArm, propagated } = detection;
  const kept = {
    ...detection,
    box: place(box),
    ...(withArm && { withArm: place(withArm) }),
    ...(propagated && { propagated: propagated.map(place) }),
  };
  delete kept.landmarks;
  return kept;
}

/** An area of the film's picture in the small one, with its edges on even pixels inside it. */
function areaInSmall(area: Box | null, size: Size, scale: number): Box {
  if (!area) return wholeOf(size);
  const small = clipBox(scaleBox(area, 1 / scale), size);
  const even = (value: number) => 2 * Math.ceil(value / 2);
  const [x, y] = [even(small.x), even(small.y)];
  return { x, y, width: Math.floor(small.x + small.width) - x, height: Math.floor(small.y + small.height) - y };
}

/** Records undecodable frames of a film while it is watched; undefined where its pictures' times are unknown. */
async function undecodedOf({ file, info }: FilmFile, signal?: AbortSignal): Promise<Undecoded | undefined> {
  if (!info.grid.timeBase) return undefined;
  const { times } = await pictureTimes(file, signal);
  return new Undecoded(times, { ...info, origin: info.grid.origin });
}

/**
 * Decodes a film once and yields what is seen in it, some seconds at a time and in order: features of every frame, the
 * camera's motion, and detections, propagated by optical flow. A resumed pass has the same results as an uninterrupted one:
 * the part before the range from which something is propagated is watched again.
 * @param begin original start of the pass, a whole number of chunks before `range.start`
 * @param active the part of the picture in which cuts are detected, as soon as it is known; all of it if null
 * @param detector for pictures of the size of `smallFrames`
 * @throws FilmError if the film cannot be decoded to its end; CancelledError if the signal is aborted
 */
export async function* watchFilm(
  film: FilmFile,
  range: FrameRange,
  begin: number,
  active: Box | null | Promise<Box | null>,
  detector: Detector,
  signal?: AbortSignal,
): AsyncGenerator<SeenChunk> {
  const [area, undecoded] = await Promise.all([active, undecodedOf(film, signal)]);
  if (range.end <= range.start) return;
  const { size, scale } = smallFrames(film.info.picture);
  const intervals = watchIntervals(film.info.rate);
  const propagationSteps = Math.ceil((PROPAGATION_SECONDS * framesPerSecond(film.info.rate)) / intervals.step);
  // Long enough for everything propagated before to be detected again or given up.
  const warmUp = Math.ceil((propagationSteps * intervals.step) / intervals.objects + 1) * intervals.objects;
  const from = Math.max(begin, range.start - warmUp);
  const reader = new StepReader(intervals.step, propagationSteps, size, scale, areaInSmall(area, size, scale));
  const waiting: Step[] = [];
  let features: FrameFeatures[] = [];
  let pyramidBefore: GreyPlane[] | null = null;
  let start = range.start;
  const textDue = new TextDue();

  /** Processes the steps that need not be waited for, or all. */
  const drain = async (most: number) => {
    while (waiting.filter(({ detection }) => detection).length > most) await reader.read(waiting.shift()!);
  };
  const chunk = (end: number): SeenChunk => {
    const count = end - start;
    const inFilm = (boxes: Box[] | undefined) => boxes?.map((box) => boxInPicture(box, scale));
    const take = <T extends { frame: number }>(seen: T[]): T[] =>
      seen.splice(0, seen.filter(({ frame }) => frame < end).length).filter(({ frame }) => frame >= start);
    const detected = take(reader.detected);
    const camera = take(reader.camera);
    const done: SeenChunk = {
      range: { start, end },
      features: features.slice(0, count),
      detected: detected.map((seen) => ({
        ...seen,
        detections: seen.detections.map((each) => inPicture(each, scale)),
        texts: seen.texts?.map((text) => ({ ...text, box: boxInPicture(text.box, scale) })),
        rectangles: inFilm(seen.rectangles),
      })),
      camera,
      undecoded: undecoded?.within({ start, end }) ?? [],
    };
    features = features.slice(count);
    start = end;
    return done;
  };

  const options = { signal, area, onDecoded: undecoded && ((seconds: number) => undecoded.decoded(seconds)) };
  const decoded = readAhead(decodeForAnalysis(film, { start: from, end: range.end }, options), DECODED_AHEAD);
  for await (const { frame, image, reduced } of decoded) {
    if (frame >= range.start) features.push(frameFeatures(reduced));
    const since = frame - from;
    if (since % intervals.step === 0) {
      const pyramid = greyPyramid(image);
      // A change by a cut is examined at once: a shot may be over before the next look is due.
      const isOther = pyramidBefore !== null && showsOther(pyramidBefore, pyramid);
      const objects = isOther || since % intervals.objects === 0;
      const isDue = isOther || since % intervals.faces === 0;
      pyramidBefore = pyramid;
      const text = isDue ? textDue.see(lumaOf(image), isOther) : null;
      const detection = isDue ? { objects, result: detector.detect(image, objects, text) } : null;
      // A failure is handled where the result is read, possibly after other failures.
      detection?.result.catch(() => {});
      waiting.push({ frame, image, pyramid, detection });
      await drain(DETECTIONS_AHEAD);
    }
    // Everything in a chunk has been propagated as far as it goes once this much more has been processed.
    const dealtWith = waiting[0]?.frame ?? frame;
    if (dealtWith >= start + intervals.chunk + propagationSteps * intervals.step) yield chunk(start + intervals.chunk);
  }
  for (const step of waiting.splice(0)) await reader.read(step);
  while (start + intervals.chunk < range.end) yield chunk(start + intervals.chunk);
  yield chunk(range.end);
}
