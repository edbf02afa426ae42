/**
 * Entry of a worker thread that runs the detectors on pictures, one after the other, so that decoding continues meanwhile.
 */
import { parentPort, workerData } from "node:worker_threads";
import type { Size } from "~/core/geometry/box";
import type { YuvImage } from "~/core/image/yuv-image";
import type { AnyBoxes } from "~/core/subjects/detecting/any-boxes";
import { type Detection, hasCertainFace } from "~/core/subjects/detecting/detection";
import { FaceDetector } from "./face-detector.server";
import { ObjectDetector } from "./object-detector.server";

/** A picture, and what to detect. */
export interface DetectRequest {
  id: number;
  image: YuvImage;
  objects: boolean;
}

/** What was found in a picture. */
export interface Found {
  detections: Detection[];
  /** Boxes around anything, where objects were asked for and there is no certain face. */
  boxes?: AnyBoxes;
}

export type DetectAnswer = ({ id: number } & Found) | { id: number; error: string };

const { picture } = workerData as { picture: Size };
const faces = FaceDetector.load(picture);
const objects = ObjectDetector.load(picture);

async function detect({ image, objects: withObjects }: DetectRequest): Promise<Found> {
  const detections = await (await faces).detect(image, withObjects);
  if (!withObjects) return { detections };
  const withAny = !hasCertainFace(detections, image);
  const { named, boxes } = await (await objects).detect(image, withAny);
  detections.push(...named);
  return withAny ? { detections, boxes } : { detections };
}

/** Resolves after everything requested so far. */
let last: Promise<void> = Promise.resolve();
parentPort!.on("message", (request: DetectRequest | "end") => {
  last = last.then(async () => {
    if (request === "end") return parentPort!.close();
    const answer: DetectAnswer = await detect(request).then(
      (found) => ({ id: request.id, ...found }),
      (error: unknown) => ({ id: request.id, error: error instanceof Error ? error.message : String(error) }),
    );
    parentPort!.postMessage(answer);
  });
});
