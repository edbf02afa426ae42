import { clamped } from "../../numbers/clamped";
import { type Box, boxCentre, boxContains, boxIou, type Size } from "../../geometry/box";
import { CLEAR_FACE, type Detection } from "./detection";

/**
 * Pixels by which a search region exceeds the face, which may have moved. It equals the detector's own context around a
 * face: with half of it the score falls by a tenth.
 */
const ROOM = 128;
/** Share of the picture above which separate regions take nearly as long as the whole. */
const MOST_SHARE = 0.7;
/** Looks without a face after which it is given up. */
const MOST_MISSED = 4;
/** Overlap above which a face is the one from before. */
const SAME_FACE = 0.2;

/** A face as a detector sees it. */
type SeenFace = Pick<Detection, "box" | "score">;

const isAmong = ({ box }: SeenFace, found: readonly SeenFace[]): boolean =>
  found.some((other) => boxIou(box, other.box) > SAME_FACE);

/**
 * Regions in which faces are searched between two looks at the whole picture: around those found before. Their sides lie on
 * a grid, so that a detector with cells on that grid sees nearly the same as in the whole picture.
 */
export class FacePlaces {
  private known: (SeenFace & { missed: number })[] = [];

  /**
   * @param picture in pixels, a whole number of grains each way
   * @param grain side of the grid's cells, in pixels
   */
  constructor(
    private readonly picture: Size,
    private readonly grain: number,
  ) {}

  /** @returns parts of the picture; null if the whole picture takes no longer, or a face was lost that may be anywhere */
  next(): Box[] | null {
    if (this.known.some(({ missed }) => missed > 0)) return null;
    const places: Box[] = [];
    for (const { box } of this.known) {
      if (!places.some((place) => boxContains(place, this.around(box, ROOM / 2)))) {
        places.push(this.around(box, ROOM));
      }
    }
    const pixels = places.reduce((sum, { width, height }) => sum + width * height, 0);
    return pixels > MOST_SHARE * this.picture.width * this.picture.height ? null : places;
  }

  /** Whether a clear face is missing from those found in the regions: it may be anywhere. */
  lacks(found: readonly SeenFace[]): boolean {
    return this.known.some((face) => face.score >= CLEAR_FACE && !isAmong(face, found));
  }

  /** Takes the faces found at a look, in regions or in the whole picture. */
  see(found: readonly SeenFace[]): void {
    const missing = this.known
      .filter((face) => !isAmong(face, found))
      .map((face) => ({ ...face, missed: face.missed + 1 }))
      .filter(({ missed }) => missed < MOST_MISSED);
    this.known = [...found.map(({ box, score }) => ({ box, score, missed: 0 })), ...missing];
  }

  /** A square on the grid, in the picture, around a box. */
  private around(box: Box, room: number): Box {
    const { grain, picture } = this;
    const side = Math.ceil((Math.max(box.width, box.height) + room) / grain) * grain;
    const [width, height] = [Math.min(side, picture.width), Math.min(side, picture.height)];
    const centre = boxCentre(box);
    const start = (middle: number, length: number, whole: number) =>
      clamped(Math.round((middle - length / 2) / grain) * grain, 0, whole - length);
    return {
      x: start(centre.x, width, picture.width),
      y: start(centre.y, height, picture.height),
      width,
      height,
    };
  }
}
