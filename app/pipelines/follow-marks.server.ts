import { COAST_SECONDS, type Sweep, trackOfMarks, type Way, waysFrom } from "~/core/subjects/marks/follow-thing";
import { guideOf, hasLeft } from "~/core/subjects/marks/guide";
import type { MarkedThing } from "~/core/subjects/marks/marked-things";
import type { Track } from "~/core/subjects/tracking/track";
import { framesPerSecond } from "~/core/time/rate";
import type { FilmFile } from "~/media/film-file";
import { decodeSmall } from "~/media/small-frames.server";
import { Chase, type DecodeSmall, SmallFrames } from "./chase.server";

/** Seconds before a track was lost for which it is not trusted in hindsight. */
const LEAD_SECONDS = 0.4;

export interface FollowOptions {
  /** Source of pictures; the film itself if left out. */
  decode?: DecodeSmall;
  /** The tracks found in the shot; where a mark is on one of them, that track guides it as far as it goes. */
  tracks?: readonly Track[];
  onProgress?: (share: number) => void;
  signal?: AbortSignal;
}

/** Tracks the content of marks through their shot, forwards and backwards from each. */
export async function followMarks(
  film: FilmFile,
  { id, shot, marks }: Pick<MarkedThing, "id" | "shot" | "marks">,
  { decode = decodeSmall, tracks = [], onProgress, signal }: FollowOptions = {},
): Promise<Track> {
  const { picture } = film.info;
  const boxes = marks.map(({ box }) => box);
  const frames = new SmallFrames(film, shot, boxes, decode, signal);
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
    /** Begins some time before the guide was lost: where it was going astray there is nothing to learn. */
    const takeOver = async (frame: number): Promise<Chase> => {
      let from = frame - step;
      while (from !== mark.frame && Math.abs(frame - from) < lead && found.get(from - step)) from -= step;
      const begun = new Chase(await frames.at(from), found.get(from)!, frames.scale);
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
        // Somebody whose track left the picture at its side is not tracked there.
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
