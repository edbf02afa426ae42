/** Clips joined into one film: each in its place, with its own in and out point. */
import { z } from "zod";
import { FilmInfo } from "../film/film-info";
import { Box, type Size } from "../geometry/box";
import { Id } from "../basics/ids";
import { Frame, type FrameRange, rangeLength } from "../time/rate";

export const Clip = z.object({
  id: Id,
  name: z.string().min(1).max(255),
  /** The frames of the film that the whole clip covers. */
  start: Frame,
  end: Frame,
  /** First frame shown, and the first not shown any more, from the clip's own start; null for all. */
  in: Frame.nullable(),
  out: Frame.nullable(),
  /** Place of its picture in the film's. */
  area: Box,
  /** Its own size. */
  picture: z.object({ width: z.number(), height: z.number() }),
});
export type Clip = z.infer<typeof Clip>;

/** A clip with the file it is made from. */
export const ClipWithFile = Clip.omit({ picture: true }).extend({
  /** Path of its own file, stored as films' paths are. */
  file: z.string(),
  /** Facts about that file. */
  info: FilmInfo,
});
export type ClipWithFile = z.infer<typeof ClipWithFile>;

/** A clip's place, and its in and out point. */
export type TrimmedClip = Pick<Clip, "start" | "end" | "in" | "out">;

/** The range of a clip that is shown, in frames of the film. */
export const shownOfClip = ({ start, end, in: first, out }: TrimmedClip): FrameRange => ({
  start: start + (first ?? 0),
  end: out === null ? end : start + out,
});

/** What the in and out points of clips leave out of the film. */
export const leftOutOfClips = (clips: readonly TrimmedClip[]): FrameRange[] =>
  clips
    .flatMap((clip) => {
      const shown = shownOfClip(clip);
      return [
        { start: clip.start, end: shown.start },
        { start: shown.end, end: clip.end },
      ];
    })
    .filter((range) => rangeLength(range) > 0);

/** Sizes of the source pictures: the clips', or the film's own. */
export const picturesOf = (clips: readonly Clip[], film: Size): Size[] =>
  clips.length > 0 ? clips.map(({ picture }) => picture) : [film];

/** Frames at which another clip begins. */
export const clipBorders = (clips: readonly TrimmedClip[]): number[] => clips.slice(1).map(({ start }) => start);
