import { type Size, scaleBox } from "~/core/geometry/box";
import { halveYuv, type YuvImage } from "~/core/image/yuv-image";
import { type Detection, suppressOverlaps } from "~/core/subjects/detecting/detection";
import { type AnyBox, anyBox, type AnyBoxes, distinctBoxes } from "~/core/subjects/detecting/any-boxes";
import { type Cell, NanoDet } from "./nanodet.server";

const MIN_SCORE = 0.3;
/** Least score of its best class at which a cell draws a box around something. */
const ANY_SCORE = 0.06;

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

/** What the network finds in a picture. */
export interface Objects {
  /** Persons, animals, vehicles and moving things, by name. */
  named: Detection[];
  /** Boxes around anything. */
  boxes: AnyBoxes;
}

function namedIn({ scores, box }: Cell): Detection | null {
  let best = 0;
  let score = 0;
  for (const label of FOLLOWED_CLASSES) if (scores[label]! > score) [score, best] = [scores[label]!, label];
  if (score < MIN_SCORE) return null;
  const label = FOLLOWED.get(best)!;
  return label === "person" ? { kind: "person", box: box(), score } : { kind: "object", box: box(), score, label };
}

const anyIn = ({ scores, box }: Cell): AnyBox[] => (Math.max(...scores) < ANY_SCORE ? [] : [anyBox(box(), scores)]);

const doubled = (each: AnyBox): AnyBox => ({ ...each, box: scaleBox(each.box, 2) });

/** Finds persons and objects with NanoDet: two of them, for pictures at full size and at half of it. */
export class ObjectDetector {
  private constructor(
    private readonly full: NanoDet,
    private readonly half: NanoDet,
  ) {}

  /** @param picture size of the pictures */
  static async load(picture: Size): Promise<ObjectDetector> {
    const half = { width: picture.width / 2, height: picture.height / 2 };
    return new ObjectDetector(await NanoDet.load(picture), await NanoDet.load(half));
  }

  /** @param withAny whether boxes around anything are wanted */
  async detect(image: YuvImage, withAny: boolean): Promise<Objects> {
    const named: Detection[] = [];
    const full: AnyBox[] = [];
    await this.full.look(image, (cell) => {
      const found = namedIn(cell);
      if (found) named.push(found);
      if (withAny) full.push(...anyIn(cell));
    });
    const half: AnyBox[] = [];
    if (withAny) await this.half.look(halveYuv(image), (cell) => half.push(...anyIn(cell)));
    const boxes = { full: distinctBoxes(full), half: distinctBoxes(half).map(doubled) };
    return { named: suppressOverlaps(named, 0.5), boxes };
  }
}
