/** How a film is read: its audio track, and its fields as frames of their own. */
import { framesPerSecond, type FrameRange } from "~/core/time/rate";
import type { FilmInfo } from "~/core/film/film-info";
import { Refusal } from "~/core/basics/refusal";
import { filmErrors } from "~/texts/film-errors";

const t = filmErrors.choices;

/**
 * A film with another audio track.
 * @param index of the track, from 0
 * @throws Refusal if it has no such track
 */
export function withSound<I extends FilmInfo>(info: I, index: number): I {
  const sound = info.sounds[index];
  if (!sound) throw new Refusal(t.noSuchSound(info.sounds.length, index + 1), 422);
  return { ...info, audio: { codec: sound.codec, index: sound.index, start: sound.start } };
}

/**
 * An interlaced film at double rate: each field becomes a frame, which keeps the motion as smooth as it was shot.
 * @throws Refusal if it is not interlaced
 */
export function withFields<I extends FilmInfo>(info: I): I {
  if (!info.interlaced) throw new Refusal(t.notInterlaced, 422);
  if (info.fields) return info;
  const twice = ({ start, end }: FrameRange): FrameRange => ({ start: 2 * start, end: 2 * end });
  const rate = { num: 2 * info.rate.num, den: info.rate.den };
  const { grid } = info;
  return {
    ...info,
    fields: true,
    rate,
    frames: 2 * info.frames,
    cutOff: 2 * info.cutOff,
    grid: {
      ...grid,
      lastPicture: grid.lastPicture + 1 / framesPerSecond(rate),
      held: 2 * grid.held,
      longHolds: grid.longHolds.map(twice),
    },
  };
}
