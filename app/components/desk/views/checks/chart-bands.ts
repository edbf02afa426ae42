import { type FrameRange, inRange } from "~/core/time/rate";
import type { CastMember } from "~/core/subjects/choosing/cast";
import { clipRanges } from "~/core/time/ranges";
import type { DeskShot } from "../../model/desk-types";

/** A range of a chart that belongs to a cast member. */
export interface Band extends FrameRange, Pick<CastMember, "letter" | "name" | "colour"> {}

const bandOf = ({ letter, name, colour }: CastMember, { start, end }: FrameRange): Band => ({
  letter,
  name,
  colour,
  start,
  end,
});

/** Whom the version follows, and when. */
export const followedBands = (shots: readonly DeskShot[]): Band[] =>
  shots.flatMap(({ cast, framed }) =>
    (framed?.spans ?? []).flatMap((span) => {
      const member = cast.find(({ track }) => track.id === (span.trackId ?? framed?.subjectId));
      return member ? [bandOf(member, span)] : [];
    }),
  );

/** Who speaks, and when, as far as they are seen. */
export const speakingBands = (shots: readonly DeskShot[]): Band[] =>
  shots.flatMap((shot) =>
    shot.cast.flatMap((member) => {
      const { id, who } = member.track;
      const voices = shot.tracks.filter(
        (track) => track.speaking && (track.id === id || (who !== undefined && track.who === who)),
      );
      return voices.flatMap(({ speaking = [] }) => clipRanges(speaking, shot).map((range) => bandOf(member, range)));
    }),
  );

export const bandAt = (bands: readonly Band[], frame: number): Band | undefined =>
  bands.find((band) => inRange(frame, band));
