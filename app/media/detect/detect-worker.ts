/**
 * Entry of a worker thread that runs the detectors on pictures, one after the other, so that decoding continues meanwhile.
 */
import { parentPort, workerData } from "node:worker_threads";
import type { Box, Size } from "~/core/geometry/box";
import type { YuvImage } from "~/core/image/yuv-image";
import type { AnyBoxes } from "~/core/subjects/detecting/any-boxes";
import { type Detection, hasCertainFace } from "~/core/subjects/detecting/detection";
import type { ReadLine } from "~/core/subjects/text/read-text";
import { FaceDetector } from "./face-detector.server";
import { ObjectDetector } from "./object-detector.server";
import { TextDetector } from "./text-detector.server";
import { TextReader } from "./text-reader.server";

/** A picture, and what to detect in it; or the parts of one in which text is to be read. */
export type DetectRequest = { id: number; image: YuvImage } & (
  | {
      objects: boolean;
      /** The part in which text is looked for, if any. */
      text: Box | null;
    }
  | { read: Box[] }
);

/** What was found in a picture. */
export interface Found {
  detections: Detection[];
  /** Boxes around anything, where objects were asked for and there is no certain face. */
  boxes?: AnyBoxes;
  /** Boxes around lines of text, where it was looked for. */
  lines?: Box[];
}

/** What was found, or the lines in each of the parts that were to be read. */
export type DetectResult = Found | ReadLine[][];
export type DetectAnswer = { id: number } & ({ result: DetectResult } | { error: string });

const { picture } = workerData as { picture: Size };
const faces = FaceDetector.load(picture);
const objects = ObjectDetector.load(picture);
const texts = TextDetector.load();
/** Loaded once there is something to read. */
let reader: Promise<TextReader> | undefined;

async function detect(image: YuvImage, withObjects: boolean, text: Box | null): Promise<Found> {
  const found: Found = { detections: await (await faces).detect(image, withObjects) };
  if (text) found.lines = await (await texts).detect(image, text);
  if (!withObjects) return found;
  const withAny = !hasCertainFace(found.detections, image);
  const { named, boxes } = await (await objects).detect(image, withAny);
  found.detections.push(...named);
  return withAny ? { ...found, boxes } : found;
}

async function read(image: YuvImage, parts: readonly Box[]): Promise<ReadLine[][]> {
  reader ??= texts.then((detector) => TextReader.load(detector));
  const lines: ReadLine[][] = [];
  for (const part of parts) lines.push(await (await reader).read(image, part));
  return lines;
}

async function answer(request: DetectRequest): Promise<DetectAnswer> {
  const { id, image } = request;
  try {
    const result =
      "read" in request ? await read(image, request.read) : await detect(image, request.objects, request.text);
    return { id, result };
  } catch (error) {
    return { id, error: error instanceof Error ? error.message : String(error) };
  }
}

/** Resolves after everything requested so far. */
let last: Promise<void> = Promise.resolve();
parentPort!.on("message", (request: DetectRequest | "end") => {
  last = last.then(async () => {
    if (request === "end") return parentPort!.close();
    parentPort!.postMessage(await answer(request));
  });
});
