import type { Ort } from "../onnx-runtime.server";
import { type Box, type Point, scaleBox, type Size, wholeOf } from "~/core/geometry/box";
import { writeInterleaved } from "~/core/image/colours";
import { halveYuv, type YuvImage } from "~/core/image/yuv-image";
import { type Detection, type Landmarks, suppressOverlaps } from "~/core/subjects/detecting/detection";
import { withoutPatterns } from "~/core/subjects/detecting/face-patterns";
import { FacePlaces } from "~/core/subjects/detecting/face-places";
import { BLAZEFACE, GRAIN, loadModel, paddedSize, runModel } from "./session.server";

/** Weak detections are kept, since they may extend a track. */
const MIN_SCORE = 0.4;
/** The same as the model's output, before the sigmoid. */
const MIN_LOGIT = Math.log(MIN_SCORE / (1 - MIN_SCORE));
/** Values per candidate: a box, then six landmarks. */
const VALUES = 16;
/** Width in pixels above which a face is hardly ever found at full size, and not searched for in a region. */
const LARGEST = 130;
/** Overlap above which boxes are of one face. */
const SAME_FACE = 0.3;

/** Scaling of colour values for the model. */
const UNIT = { scale: 1 / 127.5, offset: -1 };

type Face = Detection & { landmarks: Landmarks };

/** The model's two grids: cell size in pixels, candidates per cell, and outputs. */
const GRIDS = [
  { stride: 16, each: 2, scores: "Identity", boxes: "Identity_2" },
  { stride: 32, each: 6, scores: "Identity_1", boxes: "Identity_3" },
] as const;

/**
 * Finds faces with BlazeFace (Bazarevsky et al. 2019). Made for squares of 256 pixels, it is fully convolutional, and so
 * finds faces of about 14 to 120 pixels anywhere in a larger picture. A thorough look includes larger ones, in the picture
 * at half size; any other is limited to regions around earlier faces while they are still there. Boxes reach from the brow
 * to the chin.
 */
export class FaceDetector {
  private readonly places: FacePlaces;

  private constructor(
    private readonly whole: FaceNet,
    private readonly half: FaceNet,
    private readonly parts: FaceNet,
    private readonly size: Size,
  ) {
    this.places = new FacePlaces(size, GRAIN);
  }

  /** @param picture size of the pictures */
  static async load(picture: Size): Promise<FaceDetector> {
    const size = paddedSize(picture);
    const half = paddedSize({ width: picture.width >> 1, height: picture.height >> 1 });
    return new FaceDetector(await FaceNet.load(size), await FaceNet.load(half), await FaceNet.load(), size);
  }

  /** @param thorough whether to search everywhere, and for faces that fill half of the picture or more as well */
  async detect(image: YuvImage, thorough: boolean): Promise<Detection[]> {
    const found = (thorough ? null : await this.whereTheyWere(image)) ?? (await this.anywhere(image));
    if (thorough) {
      const halved = halveYuv(image);
      found.push(...(await this.half.detect(halved, wholeOf(paddedSize(halved)))).map(doubled));
    }
    const faces = withoutPatterns(suppressOverlaps(found, SAME_FACE), image);
    this.places.see(faces.filter(({ box }) => box.width < LARGEST));
    return faces;
  }

  private anywhere(image: YuvImage): Promise<Face[]> {
    return this.whole.detect(image, wholeOf(this.size));
  }

  /** Faces in regions around earlier ones; null if that takes as long as everywhere, or one of them has moved away. */
  private async whereTheyWere(image: YuvImage): Promise<Face[] | null> {
    const places = this.places.next();
    if (!places) return null;
    const found: Face[] = [];
    for (const place of places) found.push(...(await this.parts.detect(image, place)));
    return this.places.lacks(found) ? null : found;
  }
}

const doublePoint = ({ x, y }: Point): Point => ({ x: 2 * x, y: 2 * y });

/** A face found in a picture at half size. */
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

/** The network, for regions of one size, or of any. */
class FaceNet {
  /** The model's input, reused between looks, most of which have one size. */
  private input = new Float32Array();

  private constructor(private readonly session: Ort.InferenceSession) {}

  /** @param size of the regions, if it is constant */
  static async load(size?: Size): Promise<FaceNet> {
    return new FaceNet(await loadModel(BLAZEFACE, size));
  }

  /** @param part a region in whole multiples of the model's grain */
  async detect(image: YuvImage, part: Box): Promise<Face[]> {
    const length = 3 * part.width * part.height;
    if (this.input.length !== length) this.input = new Float32Array(length);
    writeInterleaved(image, part, UNIT, this.input);
    const out = await runModel(this.session, this.input, [1, part.height, part.width, 3]);
    const faces: Face[] = [];
    for (const { stride, each, ...names } of GRIDS) {
      const scores = out[names.scores]!;
      const boxes = out[names.boxes]!;
      const columns = part.width / stride;
      for (let i = 0; i < scores.length; i++) {
        if (scores[i]! < MIN_LOGIT) continue;
        const score = 1 / (1 + Math.exp(-scores[i]!));
        const cell = Math.floor(i / each);
        const anchor = {
          x: part.x + ((cell % columns) + 0.5) * stride,
          y: part.y + (Math.floor(cell / columns) + 0.5) * stride,
        };
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
