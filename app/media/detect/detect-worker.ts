/**
 * Entry of a worker thread that runs the detectors on pictures, one after the other, so that decoding continues meanwhile.
 */
import { parentPort, workerData } from "node:worker_threads";
import type { Size } from "~/core/geometry/box";
import type { YuvImage } from "~/core/image/yuv-image";
import type { Detection } from "~/core/subjects/detecting/detection";
import { FaceDetector } from "./face-detector.server";
import { ObjectDetector } from "./object-detector.server";

/** A picture, and what to detect. */
export interface DetectRequest {
  id: number;
  image: YuvImage;
  objects: boolean;
}

export type DetectAnswer = { id: number; detections: Detection[] } | { id: number; error: string };

const { picture } = workerData as { picture: Size };
const faces = FaceDetector.load(picture);
const objects = ObjectDetector.load(picture);

async function detect({ image, objects: withObjects }: DetectRequest): Promise<Detection[]> {
  const found = await (await faces).detect(image, withObjects);
  if (withObjects) found.push(...(await (await objects).detect(image)));
  return found;
}

/** Resolves after everything requested so far. */
let last: Promise<void> = Promise.resolve();
parentPort!.on("message", (request: DetectRequest | "end") => {
  last = last.then(async () => {
    if (request === "end") return parentPort!.close();
    const answer: DetectAnswer = await detect(request).then(
      (detections) => ({ id: request.id, detections }),
      (error: unknown) => ({ id: request.id, error: error instanceof Error ? error.message : String(error) }),
    );
    parentPort!.postMessage(answer);
  });
});
