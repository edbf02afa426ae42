import { type Box, moveBox } from "~/core/geometry/box";
import { writePlanes } from "~/core/image/colours";
import type { YuvImage } from "~/core/image/yuv-image";
import { linesInMap } from "~/core/subjects/text/text-regions";
import type { Ort } from "../onnx-runtime.server";
import { loadModel, runModel, TEXT_DETECTOR } from "./session.server";

/** Mean and deviation of red, green and blue in the pictures that the network learned from, from 0 to 1. */
const MEAN = [0.485, 0.456, 0.406] as const;
const DEVIATION = [0.229, 0.224, 0.225] as const;
const UNIT = { scale: 1 / 255, offset: 0 };

/** Finds lines of text with the detector of PP-OCRv4 (PaddleOCR, 2023), in a picture or a part of it. */
export class TextDetector {
  private input = new Float32Array();

  private constructor(private readonly session: Ort.InferenceSession) {}

  static async load(): Promise<TextDetector> {
    return new TextDetector(await loadModel(TEXT_DETECTOR));
  }

  /**
   * @param part in whole multiples of the model's grain
   * @returns boxes around lines, in pixels of the picture
   */
  async detect(image: YuvImage, part: Box): Promise<Box[]> {
    const area = part.width * part.height;
    if (this.input.length !== 3 * area) this.input = new Float32Array(3 * area);
    writePlanes(image, part, UNIT, this.input);
    toNormal(this.input, area);
    const out = await runModel(this.session, this.input, [1, 3, part.height, part.width]);
    const lines = linesInMap(Object.values(out)[0]!, part);
    return lines.map((line) => moveBox(line, part));
  }
}

/** Turns planes of blue, green and red into normalised ones of red, green and blue. */
function toNormal(planes: Float32Array, area: number): void {
  for (let i = 0; i < area; i++) {
    const [blue, green, red] = [planes[i]!, planes[i + area]!, planes[i + 2 * area]!];
    planes[i] = (red - MEAN[0]) / DEVIATION[0];
    planes[i + area] = (green - MEAN[1]) / DEVIATION[1];
    planes[i + 2 * area] = (blue - MEAN[2]) / DEVIATION[2];
  }
}
