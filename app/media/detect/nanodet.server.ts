import { type Box, type Size, wholeOf } from "~/core/geometry/box";
import { writePlanes } from "~/core/image/colours";
import type { YuvImage } from "~/core/image/yuv-image";
import type { Ort } from "../onnx-runtime.server";
import { loadModel, NANODET, paddedSize, runModel } from "./session.server";

/** Classes of COCO. */
const CLASSES = 80;
/** Bins of the distribution that gives the distance from a cell to each side of a box. */
const BINS = 11;
/** Scaling of colour values for the model. */
const UNIT = { scale: 1 / 255, offset: 0 };

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

/** What the network says about one cell of its grids. */
export interface Cell {
  /** Score of each class, 0 to 1. */
  scores: Float32Array;
  /** The box that it draws, in pixels of the picture. */
  box(): Box;
}

/** The object network NanoDet, for pictures of one size. */
export class NanoDet {
  private readonly input: Float32Array;

  private constructor(
    private readonly session: Ort.InferenceSession,
    private readonly size: Size,
  ) {
    this.input = new Float32Array(3 * size.width * size.height);
  }

  /** @param picture size of the pictures */
  static async load(picture: Size): Promise<NanoDet> {
    const size = paddedSize(picture);
    return new NanoDet(await loadModel(NANODET, size), size);
  }

  /** Runs the network on a picture, and calls back with each cell. */
  async look(image: YuvImage, see: (cell: Cell) => void): Promise<void> {
    const { input, size } = this;
    writePlanes(image, wholeOf(size), UNIT, input);
    const out = await runModel(this.session, input, [1, 3, size.height, size.width]);
    for (const { scores: scoresName, boxes: boxesName, stride } of GRIDS) {
      const scores = out[scoresName]!;
      const boxes = out[boxesName]!;
      const columns = size.width / stride;
      for (let cell = 0; cell < scores.length / CLASSES; cell++) {
        see({
          scores: scores.subarray(cell * CLASSES, (cell + 1) * CLASSES),
          box: () => {
            const side = (index: number) => expectedBin(boxes, (cell * 4 + index) * BINS) * stride;
            const [left, top, right, bottom] = [side(0), side(1), side(2), side(3)];
            const x = ((cell % columns) + 0.5) * stride;
            const y = (Math.floor(cell / columns) + 0.5) * stride;
            return { x: x - left, y: y - top, width: left + right, height: top + bottom };
          },
        });
      }
    }
  }
}
