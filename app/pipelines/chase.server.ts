/** Tracks the content of a box in small pictures of a shot. */
import { type Box, boxAround, boxCentre, scaleBox, type Size } from "~/core/geometry/box";
import type { YuvImage } from "~/core/image/yuv-image";
import { CorrelationTracker } from "~/core/subjects/marks/correlation-tracker";
import type { FrameRange } from "~/core/time/rate";
import type { FilmFile } from "~/media/film-file";
import { readAhead } from "~/media/read-ahead";
import { type decodeSmall, scaledFrames } from "~/media/small-frames.server";

/** Frames decoded at a time and kept, so that going backwards needs no second decoding. */
const KEPT_FRAMES = 320;
/** Pixels along the shorter side of the marked box in the small pictures … */
const WANTED_SIDE = 26;
/** … whose longer side is within these limits. */
const LEAST_LONG_SIDE = 320;
const MOST_LONG_SIDE = 960;
/** Pixels that a filter needs to learn from; a smaller box is extended by its surroundings. */
const MIN_SIDE = 8;

export type DecodeSmall = typeof decodeSmall;

/** Small frames of a range, forwards or backwards, decoded one part at a time, ahead of their use. */
export class SmallFrames {
  /** Pixels of the film's picture per pixel of these. */
  readonly scale: number;
  private readonly longSide: number;
  private kept: { start: number; images: YuvImage[]; decoded: ReturnType<DecodeSmall> } | null = null;

  /** @param boxes to be examined, in pixels of the film */
  constructor(
    private readonly film: FilmFile,
    private readonly range: FrameRange,
    boxes: readonly Box[],
    private readonly decode: DecodeSmall,
    private readonly signal?: AbortSignal,
  ) {
    const { picture } = film.info;
    this.longSide = longSideFor(picture, boxes);
    this.scale = picture.width / scaledFrames(picture, this.longSide).size.width;
  }

  async at(frame: number): Promise<YuvImage> {
    const first = this.range.start;
    const start = first + Math.floor((frame - first) / KEPT_FRAMES) * KEPT_FRAMES;
    if (this.kept?.start !== start) {
      await this.dispose();
      const range = { start, end: Math.min(this.range.end, start + KEPT_FRAMES) };
      const decoded = readAhead(this.decode(this.film, range, this.signal, this.longSide), KEPT_FRAMES);
      this.kept = { start, images: [], decoded };
    }
    const { images, decoded } = this.kept;
    while (images.length <= frame - start) images.push((await decoded.next()).value.image);
    return images[frame - start]!;
  }

  async dispose(): Promise<void> {
    await this.kept?.decoded.return(undefined);
    this.kept = null;
  }
}

/** Longer side of the pictures in which a box of the film's picture is tracked. */
function longSideFor({ width, height }: Size, boxes: readonly Box[]): number {
  // An hour's single take has more boxes than a function takes arguments.
  const smallest = boxes.reduce((least, box) => Math.min(least, box.width, box.height), Infinity);
  const long = Math.max(width, height);
  return Math.min(long, MOST_LONG_SIDE, Math.max(LEAST_LONG_SIDE, Math.round((long * WANTED_SIDE) / smallest)));
}

/** Tracks the content of a box from picture to picture, in pixels of the film. */
export class Chase {
  private readonly tracker: CorrelationTracker;
  private readonly sides: Size;
  private readonly small: Size;

  /** @param scale pixels of the film's picture per pixel of the images */
  constructor(
    image: YuvImage,
    box: Box,
    private readonly scale: number,
  ) {
    const small = scaleBox(box, 1 / scale);
    this.small = small;
    this.sides = { width: Math.max(MIN_SIDE, small.width), height: Math.max(MIN_SIDE, small.height) };
    this.tracker = new CorrelationTracker(image, boxAround(boxCentre(small), this.sides));
  }

  next(image: YuvImage): { box: Box; seen: boolean } {
    const { box, seen } = this.tracker.update(image);
    // In the box's original proportions.
    const growth = box.width / this.sides.width;
    const size = { width: this.small.width * growth, height: this.small.height * growth };
    return { box: scaleBox(boxAround(boxCentre(box), size), this.scale), seen };
  }
}
