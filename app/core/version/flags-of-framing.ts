/** Flags about the framing of a shot in a version, in all of its panes, and about its start and end. */
import type { CheckedShot } from "../checks/checked-shot";
import { otherFlags } from "../checks/cut-flags";
import { framingFlags, paneFlags } from "../checks/framing-flags";
import { type ShotSides, sidesOf } from "../checks/join-flags";
import type { Flag } from "../checks/flag";
import type { ShownAt } from "../composition/composition";
import type { Size } from "../geometry/box";
import type { FramedShot } from "../path/shot-framing";
import { followedTrack } from "../path/solve-version";
import { activeArea } from "../shots/shot";
import type { Track } from "../subjects/tracking/track";
import { flagsTexts } from "../../texts/flags";
import { settledShot, type ShotSettings } from "./shot-settings";

const t = flagsTexts.flagsOfFraming;

interface FramedTracks extends Pick<CheckedShot, "limits" | "rate"> {
  tracks: readonly Track[];
  shown: ShownAt;
  /** Size of the source's picture. */
  picture: Size;
}

/** Whether a shot continues the one before it; a missing shot continues nothing. */
export const goesOnFromBefore = (set: ShotSettings | undefined): boolean =>
  set !== undefined && (set.shot.begins === "switch" || set.shot.carry);

export interface FramingFlags {
  flags: Flag[];
  /** How the shot begins and ends, for flags of its neighbours. */
  sides: ShotSides;
}

export function flagsOfFraming(set: ShotSettings, framed: FramedShot, at: FramedTracks): FramingFlags {
  const { tracks, shown, picture, limits, rate } = at;
  const { shot, kept } = set;
  const { settings, protect } = settledShot(set);
  const [subject, area] = [followedTrack(framed, tracks), activeArea(shot, picture)];
  const checked: CheckedShot = { kept, protect, tracks, settings, area, limits, rate };
  const isFollowed = (trackId: string) =>
    framed.others.some(({ spans }) => spans.some((span) => span.trackId === trackId));
  const { other } = framed;
  const left = other && !isFollowed(other.trackId) && tracks.find((track) => track.id === other.trackId);
  const [first, last] = [kept[0], kept.at(-1)];
  const flags = [
    ...framingFlags(checked, subject, shown, framed.certainty),
    ...(subject && left && first && last
      ? otherFlags(subject, left, other.why, { start: first.start, end: last.end })
      : []),
    ...framed.others.flatMap((pane, i) => {
      if (framed.laidOut.own?.[i + 1]) return [];
      const flags = paneFlags(checked, followedTrack(pane, tracks), shown, pane.certainty);
      return flags.map((flag) => ({ ...flag, pane: i + 1, text: t.inPane(i + 2, flag.text) }));
    }),
  ];
  return { flags, sides: sidesOf(checked, subject, shown) };
}
