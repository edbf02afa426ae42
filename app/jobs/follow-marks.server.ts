import { type Box, boxAround, boxCentre, scaleBox, type Size } from "~/core/geometry/box";
import type { YuvImage } from "~/core/image/yuv-image";
import { CorrelationTracker } from "~/core/subjects/correlation-tracker";
import { COAST_SECONDS, type Mark, type Sweep, trackOfMarks } from "~/core/subjects/follow-thing";
import type { MarkedThing } from "~/core/subjects/marked-things";
import type { Track } from "~/core/subjects/track";
import { framesPerSecond, type FrameRange } from "~/core/time/rate";
import { decodeSmall, type FilmFile, scaledFrames } from "~/media/small-frames.server";

/** Frames that are decoded at a time and kept, so that going backwards needs no second decoding. */
const KEPT_FRAMES = 320;
/** The picture is looked at in a size in which the marked box has about so many pixels along its shorter side … */
const WANTED_SIDE = 26;
/** … but no smaller or larger than this along the picture's longer side. */
const LEAST_LONG_SIDE = 320;
const MOST_LONG_SIDE = 960;
/** A filter needs some pixels to learn from; a smaller box is taken with its surroundings. */
const MIN_SIDE = 8;

/** Frames of a shot in small, forwards or backwards, decoded a stretch at a time. */
class Frames {
  private kept: { start: number; images: YuvImage[] } | null = null;

  constructor(
    private readonly film: FilmFile,
    private readonly shot: FrameRange,
    private readonly longSide: number,
    private readonly signal?: AbortSignal,
  ) {}

  async at(frame: number): Promise<YuvImage> {
    const start = this.shot.start + Math.floor((frame - this.shot.start) / KEPT_FRAMES) * KEPT_FRAMES;
    if (this.kept?.start !== start) {
      this.kept = null;
      const range = { start, end: Math.min(this.shot.end, start + KEPT_FRAMES) };
      const images: YuvImage[] = [];
      for await (const { image } of decodeSmall(this.film, range, this.signal, this.longSide)) images.push(image);
      this.kept = { start, images };
    }
    return this.kept.images[frame - start]!;
  }
}

/** Longer side of the pictures in which a box of the film's picture is followed. */
function longSideFor({ width, height }: Size, marks: readonly Mark[]): number {
  const smallest = Math.min(...marks.map(({ box }) => Math.min(box.width, box.height)));
  const long = Math.max(width, height);
  return Math.min(long, MOST_LONG_SIDE, Math.max(LEAST_LONG_SIDE, Math.round((long * WANTED_SIDE) / smallest)));
}

/**
 * Follows what marks hold through their shot, forwards and backwards from each.
 *
 * @param film the film, or a light copy of it
 * @param picture size of the picture in whose pixels the marks are drawn and the track is given
 */
export async function followMarks(
  film: FilmFile,
  picture: Size,
  { id, shot, marks }: Pick<MarkedThing, "id" | "shot" | "marks">,
  options: { onProgress?: (share: number) => void; signal?: AbortSignal } = {},
): Promise<Track> {
  const longSide = longSideFor(picture, marks);
  const { size } = scaledFrames(film.info.picture, longSide);
  const scale = picture.width / size.width;
  const frames = new Frames(film, shot, longSide, options.signal);
  const coast = COAST_SECONDS * framesPerSecond(film.info.rate);
  let done = 0;
  const total = 2 * (shot.end - shot.start);

  const sweep = async ({ frame, box }: Mark, end: number): Promise<Sweep> => {
    const found: Sweep = new Map();
    const small = scaleBox(box, 1 / scale);
    const sides = { width: Math.max(MIN_SIDE, small.width), height: Math.max(MIN_SIDE, small.height) };
    const tracker = new CorrelationTracker(await frames.at(frame), boxAround(boxCentre(small), sides));
    const step = Math.sign(end - frame);
    let gone = 0;
    for (let at = frame + step; at !== end; at += step) {
      const sighting = tracker.update(await frames.at(at));
      gone = sighting.seen ? 0 : gone + 1;
      found.set(at, gone > coast ? null : toPicture(sighting.box, sides, small, scale));
      options.onProgress?.(Math.min(1, ++done / total));
    }
    return found;
  };

  const forwards: Sweep[] = [];
  for (const [i, mark] of marks.entries()) forwards.push(await sweep(mark, marks[i + 1]?.frame ?? shot.end));
  const backwards: Sweep[] = [];
  for (let i = marks.length - 1; i >= 0; i--) {
    backwards.unshift(await sweep(marks[i]!, marks[i - 1]?.frame ?? shot.start - 1));
  }
  return trackOfMarks(id, marks, forwards, backwards, shot, picture, film.info.rate);
}

/** A followed box in the picture's pixels, in the proportion in which the mark was drawn. */
function toPicture(box: Box, followed: Size, drawn: Size, scale: number): Box {
  const growth = box.width / followed.width;
  return scaleBox(boxAround(boxCentre(box), { width: drawn.width * growth, height: drawn.height * growth }), scale);
}
