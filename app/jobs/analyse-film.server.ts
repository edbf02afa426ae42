import { scaleBox } from "~/core/geometry/box";
import { decideTransitions, type TransitionCandidate, weighTransitions } from "~/core/shots/detect-transitions";
import { type FrameFeatures, frameFeatures } from "~/core/shots/frame-features";
import { hardTransition, shiftTransition, shotsBetween, type Transition } from "~/core/shots/transition";
import { buildTracks } from "~/core/subjects/build-tracks";
import type { FrameDetections, TrackKind } from "~/core/subjects/detection";
import { MotionWatcher, mostMoving } from "~/core/subjects/motion";
import { chooseSubject } from "~/core/subjects/rank";
import type { Track } from "~/core/subjects/track";
import { type FrameRange, framesPerSecond } from "~/core/time/rate";
import { FaceDetector } from "~/media/detect/face-detector.server";
import { ObjectDetector } from "~/media/detect/object-detector.server";
import { readAhead } from "~/media/read-ahead";
import { decodeForAnalysis, decodeSmall, type FilmFile, smallFrames } from "~/media/small-frames.server";
import { followBox } from "./follow-box.server";

/** Looks a second: faces change quickly, whole persons less so. */
const FACE_LOOKS_PER_SECOND = 10;
const OBJECT_LOOKS_PER_SECOND = 5;
/** Frames that are decoded while the detectors look at an earlier one. */
const DECODED_AHEAD = 12;
/** Frames after which what has been seen is handed to the store. */
const CHUNK_FRAMES = 240;

/** What was seen in a stretch of a film. */
export interface SeenChunk {
  range: FrameRange;
  features: FrameFeatures[];
  detections: FrameDetections[];
}

/** Keeps what has been seen and found, so that an analysis that was interrupted goes on where it was. */
export interface AnalysisStore {
  loadChunks(): SeenChunk[];
  saveChunk(chunk: SeenChunk): void;
  /** Tracks of a shot that was finished before; null if it was not. */
  loadTracks(shot: FrameRange): Track[] | null;
  saveTracks(shot: FrameRange, tracks: Track[]): void;
}

/** A store for one run that is not to be taken up again. */
export const forgetfulStore = (): AnalysisStore => ({
  loadChunks: () => [],
  saveChunk: () => {},
  loadTracks: () => null,
  saveTracks: () => {},
});

export interface AnalysisStep {
  step: "looking" | "tracking";
  /** 0 to 1, over the whole analysis. */
  share: number;
}

export interface AnalysisOptions {
  store: AnalysisStore;
  /** The stretch to analyse; the whole film if left out. */
  range?: FrameRange;
  /** How ready to see transitions, 0 to 100. */
  sensitivity?: number;
  onProgress?: (step: AnalysisStep) => void;
  signal?: AbortSignal;
}

export interface AnalysedShot {
  range: FrameRange;
  /** How it begins; the first begins with a cut. */
  begins: Transition;
  tracks: Track[];
}

export interface Analysis {
  /** Everything that may be a transition, to decide again at another sensitivity. */
  candidates: TransitionCandidate[];
  transitions: Transition[];
  shots: AnalysedShot[];
}

/** Share of the whole that looking at every frame takes; following motion in shots without people is the rest. */
const LOOKING_SHARE = 0.9;

/** One pass over all frames: features of each, and detections at intervals. */
async function look(film: FilmFile, range: FrameRange, options: AnalysisOptions): Promise<SeenChunk[]> {
  const chunks = options.store.loadChunks();
  const fps = framesPerSecond(film.info.rate);
  const faceInterval = Math.max(1, Math.round(fps / FACE_LOOKS_PER_SECOND));
  const objectInterval = Math.max(1, Math.round(fps / OBJECT_LOOKS_PER_SECOND));
  const from = chunks.at(-1)?.range.end ?? range.start;
  if (from >= range.end) return chunks;
  const [faces, objects] = await Promise.all([FaceDetector.load(), ObjectDetector.load()]);
  const { scale } = smallFrames(film.info.picture);
  let chunk: SeenChunk = { range: { start: from, end: from }, features: [], detections: [] };
  const rest = { start: from, end: range.end };
  const decoded = readAhead(decodeForAnalysis(film, rest, options.signal), DECODED_AHEAD);
  for await (const { frame, image, reduced } of decoded) {
    chunk.features.push(frameFeatures(reduced));
    const looked: TrackKind[] = [];
    const found = [];
    if (frame % faceInterval === 0) {
      looked.push("face");
      found.push(...(await faces.detect(image)));
    }
    if (frame % objectInterval === 0) {
      looked.push("person", "object");
      found.push(...(await objects.detect(image)));
    }
    if (looked.length > 0) {
      const detections = found.map((detection) => ({ ...detection, box: scaleBox(detection.box, scale) }));
      chunk.detections.push({ frame, looked, detections });
    }
    chunk.range.end = frame + 1;
    if (chunk.range.end - chunk.range.start >= CHUNK_FRAMES || frame + 1 === range.end) {
      options.store.saveChunk(chunk);
      chunks.push(chunk);
      chunk = { range: { start: frame + 1, end: frame + 1 }, features: [], detections: [] };
    }
    options.onProgress?.({
      step: "looking",
      share: (LOOKING_SHARE * (frame + 1 - range.start)) / (range.end - range.start),
    });
  }
  return chunks;
}

/** Follows what moves most in a shot in which no detector has found anything that stays. */
async function followMotion(film: FilmFile, shot: FrameRange, id: string, signal?: AbortSignal): Promise<Track[]> {
  const fps = framesPerSecond(film.info.rate);
  const { scale } = smallFrames(film.info.picture);
  const watcher = new MotionWatcher(Math.max(1, Math.round(fps / 10)));
  for await (const { frame, image } of decodeSmall(film, shot, signal)) watcher.add(frame, image);
  const found = mostMoving(watcher.looks, film.info.picture);
  if (!found) return [];
  const seed = { frame: found.frame, box: found.box };
  const tooSmall = Math.min(seed.box.width, seed.box.height) < 4 * scale;
  return tooSmall ? [] : [await followBox(film, shot, seed, { id, kind: "motion" }, { signal })];
}

/** Tracks of one shot, from what was seen in it or, failing that, from what moves in it. */
async function trackShot(
  film: FilmFile,
  shot: FrameRange,
  number: number,
  seen: FrameDetections[],
  signal?: AbortSignal,
): Promise<Track[]> {
  const { picture, rate } = film.info;
  const tracks = buildTracks(seen, shot, number, rate, picture);
  if (chooseSubject(tracks, shot, picture)) return tracks;
  return [...tracks, ...(await followMotion(film, shot, `s${number}-motion-1`, signal))];
}

/**
 * Finds the shots of a film and what is to be seen in each. Memory does not grow with the film but for what is
 * kept of each frame (about a kilobyte).
 *
 * @throws FilmError if the film cannot be decoded to its end; CancelledError if the signal is aborted
 */
export async function analyseFilm(film: FilmFile, options: AnalysisOptions): Promise<Analysis> {
  const range = options.range ?? { start: 0, end: film.info.frames };
  const chunks = await look(film, range, options);
  const features = chunks.flatMap((chunk) => chunk.features);
  const seen = chunks.flatMap((chunk) => chunk.detections);
  const candidates = weighTransitions(features, film.info.rate).map(({ transition, strength }) => ({
    transition: shiftTransition(transition, range.start),
    strength,
  }));
  const transitions = decideTransitions(candidates, options.sensitivity);
  const ranges = shotsBetween(transitions, range);
  const shots: AnalysedShot[] = [];
  for (const [i, shot] of ranges.entries()) {
    let tracks = options.store.loadTracks(shot);
    if (!tracks) {
      tracks = await trackShot(film, shot, i + 1, seen, options.signal);
      options.store.saveTracks(shot, tracks);
    }
    const begins = transitions.find(({ frame }) => frame === shot.start) ?? hardTransition(shot.start, "cut");
    shots.push({ range: shot, begins, tracks });
    options.onProgress?.({
      step: "tracking",
      share: LOOKING_SHARE + ((1 - LOOKING_SHARE) * (i + 1)) / ranges.length,
    });
  }
  return { candidates, transitions, shots };
}
