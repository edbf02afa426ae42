import type { Ort } from "../onnx-runtime.server";
import { type Size, wholeOf } from "~/core/geometry/box";
import { writePlanes } from "~/core/image/colours";
import type { YuvImage } from "~/core/image/yuv-image";
import { type Detection, suppressOverlaps } from "~/core/subjects/detecting/detection";
import { loadModel, paddedSize, runModel } from "./session.server";

const CLASSES = 80;
/** Bins of the distribution that gives the distance from a cell to each side of a box. */
const BINS = 11;
const MIN_SCORE = 0.3;
/** Scaling of colour values for the model. */
const UNIT = { scale: 1 / 255, offset: 0 };

/** Classes of COCO's 80 that are worth following; the rest is furniture and tableware. */
const FOLLOWED = new Map<number, string>([
  [0, "person"],
  [1, "bicycle"],
  [2, "car"],
  [3, "motorcycle"],
  [4, "aeroplane"],
  [5, "bus"],
  [6, "train"],
  [7, "lorry"],
  [8, "boat"],
  [14, "bird"],
  [15, "cat"],
  [16, "dog"],
  [17, "horse"],
  [18, "sheep"],
  [19, "cow"],
  [20, "elephant"],
  [21, "bear"],
  [22, "zebra"],
  [23, "giraffe"],
  [29, "frisbee"],
  [30, "skis"],
  [31, "snowboard"],
  [32, "ball"],
  [33, "kite"],
  [36, "skateboard"],
  [37, "surfboard"],
]);
const FOLLOWED_CLASSES = Uint8Array.from(FOLLOWED.keys());

const GRIDS = [
  { scores: "Identity", boxes: "Identity_3", stride: 8 },
  { scores: "Identity_1", boxes: "Identity_4", stride: 16 },
  { scores: "Identity_2", boxes: "Identity_5", stride: 32 },
] as const;

/** Mean of a distribution over bins given as logits (Li et al., Generalized Focal Loss, 2020). */
function expectedBin(logits: Float32Array, offset: number): number {
  let largest = -Infinity;
  for (let k = 0; k < BINS; k++) largest = Math.max(largest, logits[offset + k]!);
  let sum = 0;
  let mean = 0;
  for (let k = 0; k < BINS; k++) {
    const weight = Math.exp(logits[offset + k]! - largest);
    sum += weight;
    mean += weight * k;
  }
  return mean / sum;
}

/** Finds persons, animals, vehicles and moving things with NanoDet. */
export class ObjectDetector {
  private readonly input: Float32Array;

  private constructor(
    private readonly session: Ort.InferenceSession,
    private readonly size: Size,
  ) {
    this.input = new Float32Array(3 * size.width * size.height);
  }

  /** @param picture size of the pictures */
  static async load(picture: Size): Promise<ObjectDetector> {
    const size = paddedSize(picture);
    return new ObjectDetector(await loadModel("nanodet", size), size);
  }

  async detect(image: YuvImage): Promise<Detection[]> {
    const { input, size } = this;
    writePlanes(image, wholeOf(size), UNIT, input);
    const out = await runModel(this.session, input, [1, 3, size.height, size.width]);
    const detections: Detection[] = [];
    for (const grid of GRIDS) {
      const scores = out[grid.scores]!;
      const boxes = out[grid.boxes]!;
      const { stride } = grid;
      const columns = size.width / stride;
      for (let cell = 0; cell < scores.length / CLASSES; cell++) {
        let best = 0;
        let score = 0;
        for (let i = 0; i < FOLLOWED_CLASSES.length; i++) {
          const candidate = scores[cell * CLASSES + FOLLOWED_CLASSES[i]!]!;
          if (candidate > score) [score, best] = [candidate, FOLLOWED_CLASSES[i]!];
        }
        if (score < MIN_SCORE) continue;
        const [left, top, right, bottom] = [0, 1, 2, 3].map(
          (side) => expectedBin(boxes, (cell * 4 + side) * BINS) * stride,
        ) as [number, number, number, number];
        const x = ((cell % columns) + 0.5) * stride;
        const y = (Math.floor(cell / columns) + 0.5) * stride;
        const label = FOLLOWED.get(best)!;
        detections.push({
          kind: label === "person" ? "person" : "object",
          box: { x: x - left, y: y - top, width: left + right, height: top + bottom },
          score,
          ...(label === "person" ? {} : { label }),
        });
      }
    }
    return suppressOverlaps(detections, 0.5);
  }
}
