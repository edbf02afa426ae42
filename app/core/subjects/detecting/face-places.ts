import { type Box, boxCentre, boxContains, boxIou, type Size } from "../../geometry/box";

/** A place is so many times as large as the face was, and by so many pixels more, in which it may have moved. */
const ROOM = { times: 1.6, pixels: 64 };
/** Places that together make up more than this share of the picture take as long as all of it. */
const MOST_SHARE = 0.5;
/** A face that was not found again in so many looks is not looked for any more. */
const MOST_MISSED = 2;
/** A face with this overlap is the one of before. */
const SAME_FACE = 0.2;

/**
 * Where faces are looked for between two looks at the whole picture: around those that were found before. Their sides and
 * corners lie on a grid, so that a detector whose cells lie on it sees there what it sees in the whole picture.
 */
export class FacePlaces {
  private known: { box: Box; missed: number }[] = [];

  /**
   * @param picture in pixels, a whole number of grains each way
   * @param grain side of the grid's cells, in pixels
   */
  constructor(
    private readonly picture: Size,
    private readonly grain: number,
  ) {}

  /** @returns parts of the picture; null if all of it is looked at as quickly */
  next(): Box[] | null {
    const places: Box[] = [];
    for (const { box } of this.known) {
      if (!places.some((place) => boxContains(place, this.around(box, ROOM.pixels / 2)))) {
        places.push(this.around(box, ROOM.pixels));
      }
    }
    const pixels = places.reduce((sum, { width, height }) => sum + width * height, 0);
    return pixels > MOST_SHARE * this.picture.width * this.picture.height ? null : places;
  }

  /** Takes what was found at a look, wherever that was. */
  see(found: readonly Box[]): void {
    const missing = this.known
      .filter(({ box }) => !found.some((other) => boxIou(box, other) > SAME_FACE))
      .map(({ box, missed }) => ({ box, missed: missed + 1 }))
      .filter(({ missed }) => missed < MOST_MISSED);
    this.known = [...found.map((box) => ({ box, missed: 0 })), ...missing];
  }

  /** A square on the grid, in the picture, around a box. */
  private around(box: Box, room: number): Box {
    const { grain, picture } = this;
    const side = Math.ceil((ROOM.times * Math.max(box.width, box.height) + room) / grain) * grain;
    const [width, height] = [Math.min(side, picture.width), Math.min(side, picture.height)];
    const centre = boxCentre(box);
    const start = (middle: number, length: number, whole: number) =>
      Math.min(whole - length, Math.max(0, Math.round((middle - length / 2) / grain) * grain));
    return {
      x: start(centre.x, width, picture.width),
      y: start(centre.y, height, picture.height),
      ...{ width, height },
    };
  }
}
