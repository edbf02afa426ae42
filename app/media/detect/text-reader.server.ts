import { readFileSync } from "node:fs";
import sharp from "sharp";
import { type Box, clipBox, scaleBox, type Size } from "~/core/geometry/box";
import { writeInterleaved } from "~/core/image/colours";
import { halveYuv, type YuvImage } from "~/core/image/yuv-image";
import { decodeLetters } from "~/core/subjects/text/decode-letters";
import { lineColours } from "~/core/subjects/text/line-colours";
import type { ReadLine } from "~/core/subjects/text/read-text";
import { projectPath } from "~/disk/project-path.server";
import type { Ort } from "../onnx-runtime.server";
import { GRAIN, loadModel, runModel, TEXT_LETTERS, TEXT_READER } from "./session.server";
import type { TextDetector } from "./text-detector.server";

/** Height of a line as the network sees it, in pixels. */
const HEIGHT = 48;
/** Most pixels in which lines are looked for; a larger part is reduced by half, once or twice. */
const MOST_PIXELS = 300_000;

/** A part with even corners, and sides in whole multiples of the detector's grain. */
function inGrains({ x, y, width, height }: Box): Box {
  const even = (value: number) => 2 * Math.floor(value / 2);
  const up = (value: number) => GRAIN * Math.ceil(value / GRAIN);
  return { x: even(x), y: even(y), width: up(width + 1), height: up(height + 1) };
}

/** The red, green and blue of a part of a picture, with even corners. */
function rgbOf(image: YuvImage, part: Box): Uint8Array {
  const values = new Float32Array(3 * part.width * part.height);
  writeInterleaved(image, part, { scale: 1, offset: 0 }, values);
  return Uint8ClampedArray.from(values) as unknown as Uint8Array;
}

/** A box with even corners and sides that holds another, within a picture. */
function evenBox(box: Box, picture: Size): Box {
  const { x, y, width, height } = clipBox(box, picture);
  const [left, top] = [2 * Math.floor(x / 2), 2 * Math.floor(y / 2)];
  const [right, bottom] = [x + width, y + height].map((value) => 2 * Math.ceil(value / 2)) as [number, number];
  return { x: left, y: top, width: right - left, height: bottom - top };
}

/** Reads lines of text with the recogniser of PP-OCRv4 (PaddleOCR, 2023): Latin letters, digits, and Chinese. */
export class TextReader {
  private readonly letters: string[];

  private constructor(
    private readonly session: Ort.InferenceSession,
    private readonly detector: TextDetector,
  ) {
    const file = readFileSync(projectPath(TEXT_LETTERS), "utf8");
    this.letters = ["", ...file.split("\n").filter((letter) => letter !== ""), " "];
  }

  static async load(detector: TextDetector): Promise<TextReader> {
    return new TextReader(await loadModel(TEXT_READER), detector);
  }

  /**
   * Finds and reads the lines in a part of a picture.
   * @returns boxes in pixels of the picture
   */
  async read(image: YuvImage, part: Box): Promise<ReadLine[]> {
    let [small, scale] = [image, 1];
    while ((part.width * part.height) / scale ** 2 > MOST_PIXELS) [small, scale] = [halveYuv(small), 2 * scale];
    const found = await this.detector.detect(small, inGrains(scaleBox(part, 1 / scale)));
    const lines: ReadLine[] = [];
    for (const box of found) {
      const line = evenBox(scaleBox(box, scale), image);
      if (line.width >= 4 && line.height >= 4) lines.push(await this.readLine(image, line));
    }
    return lines;
  }

  private async readLine(image: YuvImage, box: Box): Promise<ReadLine> {
    const rgb = rgbOf(image, box);
    const width = Math.max(GRAIN, Math.round((HEIGHT * box.width) / box.height));
    const raw = { width: box.width, height: box.height, channels: 3 as const };
    const pixels = await sharp(rgb, { raw }).resize(width, HEIGHT, { fit: "fill" }).raw().toBuffer();
    const area = width * HEIGHT;
    const input = new Float32Array(3 * area);
    for (let i = 0; i < area; i++) for (let c = 0; c < 3; c++) input[c * area + i] = pixels[3 * i + c]! / 127.5 - 1;
    const out = await runModel(this.session, input, [1, 3, HEIGHT, width]);
    const reading = decodeLetters(Object.values(out)[0]!, this.letters);
    return { ...reading, ...lineColours(pixels, width), box };
  }
}
