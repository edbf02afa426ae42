/** Clips that are one film: each in its place, with its own in and out point. */
import { z } from "zod";
import { FilmInfo } from "../film/film-info";
import { Box, type Size } from "../geometry/box";
import { Id } from "../basics/ids";
import { Frame, type FrameRange, rangeLength } from "../time/rate";

export const Clip = z.object({
  id: Id,
  name: z.string().min(1).max(255),
  /** The frames of the film that are the clip's, all of it. */
  start: Frame,
  end: Frame,
  /** The first frame of the clip that is shown, and the first that is not any more, from its own beginning; null for all. */
  in: Frame.nullable(),
  out: Frame.nullable(),
  /** Where its picture is in the film's. */
  area: Box,
  /** Its own size. */
  picture: z.object({ width: z.number(), height: z.number() }),
});
export type Clip = z.infer<typeof Clip>;

/** A clip with the file that it is made of. */
export const ClipWithFile = Clip.omit({ picture: true }).extend({
  /** Path of its own file, as films have theirs. */
  file: z.string(),
  /** What was found out about that. */
  info: FilmInfo,
});
export type ClipWithFile = z.infer<typeof ClipWithFile>;

/** Where a clip is, and what is set of it. */
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

/** Sizes in which what a film shows was taken: its clips', or its own. */
export const picturesOf = (clips: readonly Clip[], film: Size): Size[] =>
  clips.length > 0 ? clips.map(({ picture }) => picture) : [film];

/** Frames at which another clip begins. */
export const clipBorders = (clips: readonly TrimmedClip[]): number[] => clips.slice(1).map(({ start }) => start);
