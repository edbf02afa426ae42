import { type Box, boxAround, boxCentre, scaleBox, type Size } from "~/core/geometry/box";
import type { YuvImage } from "~/core/image/yuv-image";
import { CorrelationTracker } from "~/core/subjects/marks/correlation-tracker";
import {
  COAST_SECONDS,
  type Mark,
  type Sweep,
  trackOfMarks,
  type Way,
  waysFrom,
} from "~/core/subjects/marks/follow-thing";
import { guideOf, hasLeft } from "~/core/subjects/marks/guide";
import type { MarkedThing } from "~/core/subjects/marks/marked-things";
import type { Track } from "~/core/subjects/tracking/track";
import { framesPerSecond, type FrameRange } from "~/core/time/rate";
import { readAhead } from "~/media/read-ahead";
import { decodeSmall, scaledFrames } from "~/media/small-frames.server";
import type { FilmFile } from "~/media/film-file";

/** Frames that are decoded at a time and kept, so that going backwards needs no second decoding. */
const KEPT_FRAMES = 320;
/** The picture is looked at in a size in which the marked box has about so many pixels along its shorter side … */
const WANTED_SIDE = 26;
/** … but no smaller or larger than this along the picture's longer side. */
const LEAST_LONG_SIDE = 320;
const MOST_LONG_SIDE = 960;
/** A filter needs some pixels to learn from; a smaller box is taken with its surroundings. */
const MIN_SIDE = 8;

/** Seconds for which a track that has got lost is not trusted in hindsight. */
const LEAD_SECONDS = 0.4;

/** Frames of a shot in small, forwards or backwards, decoded a stretch at a time, ahead of where they are asked for. */
class Frames {
  private kept: { start: number; images: YuvImage[]; decoded: ReturnType<DecodeSmall> } | null = null;

  constructor(
    private readonly film: FilmFile,
    private readonly shot: FrameRange,
    private readonly longSide: number,
    private readonly decode: DecodeSmall,
    private readonly signal?: AbortSignal,
  ) {}

  async at(frame: number): Promise<YuvImage> {
    const start = this.shot.start + Math.floor((frame - this.shot.start) / KEPT_FRAMES) * KEPT_FRAMES;
    if (this.kept?.start !== start) {
      await this.dispose();
      const range = { start, end: Math.min(this.shot.end, start + KEPT_FRAMES) };
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

/** Longer side of the pictures in which a box of the film's picture is followed. */
function longSideFor({ width, height }: Size, marks: readonly Mark[]): number {
  const smallest = Math.min(...marks.map(({ box }) => Math.min(box.width, box.height)));
  const long = Math.max(width, height);
  return Math.min(long, MOST_LONG_SIDE, Math.max(LEAST_LONG_SIDE, Math.round((long * WANTED_SIDE) / smallest)));
}

type DecodeSmall = typeof decodeSmall;

export interface FollowOptions {
  /** Where pictures are had from; from the film itself if left out. */
  decode?: DecodeSmall;
  /** What was found in the shot; what a mark holds of it is followed by it as far as it goes. */
  tracks?: readonly Track[];
  onProgress?: (share: number) => void;
  signal?: AbortSignal;
}

/** Follows what marks hold through their shot, forwards and backwards from each. */
export async function followMarks(
  film: FilmFile,
  { id, shot, marks }: Pick<MarkedThing, "id" | "shot" | "marks">,
  { decode = decodeSmall, tracks = [], onProgress, signal }: FollowOptions = {},
): Promise<Track> {
  const { picture } = film.info;
  const longSide = longSideFor(picture, marks);
  const frames = new Frames(film, shot, longSide, decode, signal);
  const scale = picture.width / scaledFrames(picture, longSide).size.width;
  const fps = framesPerSecond(film.info.rate);
  const [coast, lead] = [COAST_SECONDS * fps, LEAD_SECONDS * fps];
  let done = 0;
  const total = 2 * (shot.end - shot.start);

  const sweep = async ({ mark, until, end }: Way): Promise<Sweep> => {
    const guide = guideOf(mark, until, tracks);
    const found: Sweep = new Map([[mark.frame, mark.box]]);
    const step = Math.sign(end - mark.frame);
    let chase: Chase | null = null;
    let gone = 0;
    const advance = async (to: Chase, frame: number) => {
      const { box, seen } = to.next(await frames.at(frame));
      gone = seen ? 0 : gone + 1;
      found.set(frame, gone > coast ? null : box);
    };
    /** Begins a while before the guide was lost: where it was going astray there is nothing to learn. */
    const takeOver = async (frame: number): Promise<Chase> => {
      let from = frame - step;
      while (from !== mark.frame && Math.abs(frame - from) < lead && found.get(from - step)) from -= step;
      const begun = new Chase(await frames.at(from), found.get(from)!, scale);
      for (let at = from + step; at !== frame; at += step) await advance(begun, at);
      return begun;
    };
    for (let frame = mark.frame + step; frame !== end; frame += step) {
      onProgress?.(Math.min(1, ++done / total));
      const led = guide?.(frame) ?? null;
      if (led) {
        found.set(frame, led);
        [chase, gone] = [null, 0];
        continue;
      }
      if (!chase) {
        const last = found.get(frame - step);
        // Whom a track led out of the picture at its side nobody follows there.
        if (!last || (frame - step !== mark.frame && hasLeft(last, picture))) continue;
        chase = await takeOver(frame);
      }
      await advance(chase, frame);
    }
    return found;
  };

  try {
    const ways = waysFrom(marks, shot);
    const forwards: Sweep[] = [];
    for (const way of ways.forwards) forwards.push(await sweep(way));
    const backwards: Sweep[] = [];
    // From the last one on, where the pictures still are.
    for (const way of ways.backwards.reverse()) backwards.unshift(await sweep(way));
    return trackOfMarks(id, marks, forwards, backwards, shot, picture, film.info.rate);
  } finally {
    await frames.dispose();
  }
}

/** Goes after what a box holds, from picture to picture, in the pixels of the film. */
class Chase {
  private readonly tracker: CorrelationTracker;
  private readonly sides: Size;
  private readonly small: Size;

  /** @param scale pixels of the film's picture to one of the images */
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
    // In the proportion in which the box was drawn.
    const growth = box.width / this.sides.width;
    const size = { width: this.small.width * growth, height: this.small.height * growth };
    return { box: scaleBox(boxAround(boxCentre(box), size), this.scale), seen };
  }
}
