import type * as ort from "onnxruntime-node";
import type { Box } from "~/core/geometry/box";
import { fitIntoSquare, type RgbImage, unfitBox } from "~/core/image/rgb-image";
import { type Detection, suppressOverlaps } from "~/core/subjects/detection";
import { loadModel, runModel } from "./session.server";

const INPUT = 256;
/** Weak detections are kept, since they may extend a track that stronger ones began. */
const MIN_SCORE = 0.45;
/** Values the model gives a candidate: box, then six landmarks. */
const VALUES = 16;
/** Below this height-to-width proportion of a tile the picture is looked at in squares beside each other. */
const TILE_OVERLAP = 0.15;

/** Centres of the model's anchors: two on each cell of a 16 × 16 grid, then six on each of an 8 × 8 grid. */
const ANCHORS = [
  { cells: 16, each: 2 },
  { cells: 8, each: 6 },
].flatMap(({ cells, each }) => {
  const stride = INPUT / cells;
  return Array.from({ length: cells * cells * each }, (_, i) => {
    const cell = Math.floor(i / each);
    return { x: ((cell % cells) + 0.5) * stride, y: (Math.floor(cell / cells) + 0.5) * stride };
  });
});

/** Squares that cover a picture along its longer side with some overlap. */
function squareTiles({ width, height }: RgbImage): Box[] {
  const side = Math.min(width, height);
  const length = Math.max(width, height);
  const count = Math.max(1, Math.ceil((length - side * TILE_OVERLAP) / (side * (1 - TILE_OVERLAP))));
  return Array.from({ length: count }, (_, i) => {
    const at = count > 1 ? (i * (length - side)) / (count - 1) : (length - side) / 2;
    return width >= height ? { x: at, y: 0, width: side, height: side } : { x: 0, y: at, width: side, height: side };
  });
}

/**
 * Finds faces with BlazeFace (Bazarevsky et al. 2019), on the whole picture for large ones and on square tiles
 * for small ones. Boxes reach from the brow to the chin.
 */
export class FaceDetector {
  private readonly input = new Float32Array(INPUT * INPUT * 3);

  private constructor(private readonly session: ort.InferenceSession) {}

  static async load(): Promise<FaceDetector> {
    return new FaceDetector(await loadModel("blazeface"));
  }

  async detect(image: RgbImage): Promise<Detection[]> {
    const whole: Box = { x: 0, y: 0, width: image.width, height: image.height };
    const tiles = squareTiles(image);
    const regions = tiles.length > 1 ? [whole, ...tiles] : [whole];
    const found: Detection[] = [];
    for (const region of regions) {
      for (const detection of await this.detectIn(image, region)) {
        if (!this.cutByTile(detection.box, region, image)) found.push(detection);
      }
    }
    return suppressOverlaps(found, 0.3);
  }

  /** A face at a tile's inner border is seen whole by the tile beside it, or by the look at the whole picture. */
  private cutByTile(box: Box, region: Box, image: RgbImage): boolean {
    const margin = 2;
    const left = region.x > 0 && box.x < region.x + margin;
    const right = region.x + region.width < image.width && box.x + box.width > region.x + region.width - margin;
    const top = region.y > 0 && box.y < region.y + margin;
    const bottom = region.y + region.height < image.height && box.y + box.height > region.y + region.height - margin;
    return left || right || top || bottom;
  }

  private async detectIn(image: RgbImage, region: Box): Promise<Detection[]> {
    const { input } = this;
    const fit = fitIntoSquare(image, region, INPUT, input);
    for (let i = 0; i < input.length; i++) input[i] = input[i]! / 127.5 - 1;
    const out = await runModel(this.session, input, [1, INPUT, INPUT, 3]);
    // Scores and boxes of the 16 × 16 grid (512 anchors), then of the 8 × 8 grid (384).
    const grids = [
      { scores: out.Identity!, boxes: out.Identity_2!, firstAnchor: 0 },
      { scores: out.Identity_1!, boxes: out.Identity_3!, firstAnchor: 512 },
    ];
    const detections: Detection[] = [];
    for (const { scores, boxes, firstAnchor } of grids) {
      for (let i = 0; i < scores.length; i++) {
        const score = 1 / (1 + Math.exp(-scores[i]!));
        if (score < MIN_SCORE) continue;
        const anchor = ANCHORS[firstAnchor + i]!;
        const width = boxes[i * VALUES + 2]!;
        const height = boxes[i * VALUES + 3]!;
        const x = boxes[i * VALUES]! + anchor.x - width / 2;
        const y = boxes[i * VALUES + 1]! + anchor.y - height / 2;
        detections.push({ kind: "face", box: unfitBox({ x, y, width, height }, fit), score });
      }
    }
    return suppressOverlaps(detections, 0.3);
  }
}
