import type * as ort from "onnxruntime-node";
import { type Point, scaleBox, type Size } from "~/core/geometry/box";
import { halveYuv, rgbOf, type YuvImage } from "~/core/image/yuv-image";
import { type Detection, type Landmarks, suppressOverlaps } from "~/core/subjects/detecting/detection";
import { loadModel, paddedSize, runModel } from "./session.server";

/** Weak detections are kept, since they may extend a track that stronger ones began. */
const MIN_SCORE = 0.4;
/** Values the model gives a candidate: box, then six landmarks. */
const VALUES = 16;
/** Boxes of a face that overlap by more than this are of one face. */
const SAME_FACE = 0.3;

type Face = Detection & { landmarks: Landmarks };

/** The model's two grids: pixels from cell to cell, candidates a cell, and its outputs. */
const GRIDS = [
  { stride: 16, each: 2, scores: "Identity", boxes: "Identity_2" },
  { stride: 32, each: 6, scores: "Identity_1", boxes: "Identity_3" },
] as const;

/**
 * Finds faces with BlazeFace (Bazarevsky et al. 2019). Made for squares of 256 pixels, it is convolutional throughout,
 * and so finds faces of some 14 to 120 pixels anywhere in a larger picture; for larger ones it looks at the picture in
 * half its size as well. Boxes reach from the brow to the chin.
 */
export class FaceDetector {
  private constructor(
    private readonly whole: FaceNet,
    private readonly half: FaceNet,
  ) {}

  /** @param picture size of the pictures that are going to be looked at */
  static async load(picture: Size): Promise<FaceDetector> {
    const half = { width: picture.width >> 1, height: picture.height >> 1 };
    return new FaceDetector(await FaceNet.load(picture), await FaceNet.load(half));
  }

  /** @param large whether to look for faces that fill half of the picture or more as well */
  async detect(image: YuvImage, large: boolean): Promise<Detection[]> {
    const found = await this.whole.detect(image);
    if (large) found.push(...(await this.half.detect(halveYuv(image))).map(doubled));
    return suppressOverlaps(found, SAME_FACE);
  }
}

const doublePoint = ({ x, y }: Point): Point => ({ x: 2 * x, y: 2 * y });

/** A face seen in a picture of half the size. */
const doubled = ({ landmarks, ...rest }: Face): Face => ({
  ...rest,
  box: scaleBox(rest.box, 2),
  landmarks: {
    rightEye: doublePoint(landmarks.rightEye),
    leftEye: doublePoint(landmarks.leftEye),
    nose: doublePoint(landmarks.nose),
    mouth: doublePoint(landmarks.mouth),
  },
});

/** The network, for pictures of one size. */
class FaceNet {
  /** What the model is given; the border on the right and below stays black. */
  private readonly input: Float32Array;

  private constructor(
    private readonly session: ort.InferenceSession,
    private readonly size: Size,
  ) {
    this.input = new Float32Array(size.width * size.height * 3).fill(-1);
  }

  static async load(picture: Size): Promise<FaceNet> {
    const size = paddedSize(picture);
    return new FaceNet(await loadModel("blazeface", size), size);
  }

  async detect(image: YuvImage): Promise<Face[]> {
    const { input, size } = this;
    const rgb = rgbOf(image);
    const line = 3 * image.width;
    for (let y = 0, from = 0; y < image.height; y++) {
      for (let i = 0, to = 3 * y * size.width; i < line; i++) input[to++] = rgb[from++]! / 127.5 - 1;
    }
    const out = await runModel(this.session, input, [1, size.height, size.width, 3]);
    const faces: Face[] = [];
    for (const { stride, each, ...names } of GRIDS) {
      const scores = out[names.scores]!;
      const boxes = out[names.boxes]!;
      const columns = size.width / stride;
      for (let i = 0; i < scores.length; i++) {
        const score = 1 / (1 + Math.exp(-scores[i]!));
        if (score < MIN_SCORE) continue;
        const cell = Math.floor(i / each);
        const anchor = { x: ((cell % columns) + 0.5) * stride, y: (Math.floor(cell / columns) + 0.5) * stride };
        const value = (k: number) => boxes[i * VALUES + k]!;
        const [width, height] = [value(2), value(3)];
        const box = { x: value(0) + anchor.x - width / 2, y: value(1) + anchor.y - height / 2, width, height };
        const landmark = (k: number): Point => ({
          x: value(4 + 2 * k) + anchor.x,
          y: value(5 + 2 * k) + anchor.y,
        });
        const [rightEye, leftEye, nose, mouth] = [0, 1, 2, 3].map(landmark) as [Point, Point, Point, Point];
        faces.push({ kind: "face", box, score, landmarks: { rightEye, leftEye, nose, mouth } });
      }
    }
    return faces;
  }
}
