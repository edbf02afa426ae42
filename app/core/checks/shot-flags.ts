/** All flags of a shot in a version, for desk, server and command line alike. */
import type { Caption } from "../captions/caption";
import type { ShownAt } from "../composition/composition";
import type { VersionLayers } from "../composition/shown";
import type { Shot } from "../shots/shot";
import { type Track } from "../subjects/tracking/track";
import type { FrameRange, Rate } from "../time/rate";
import { captionFlags } from "./caption-flags";
import type { CheckLimits } from "./check-settings";
import { coveredFlags } from "./covered-flags";
import { textIsCovered } from "./covered-text";
import { cutFlags } from "./cut-flags";
import { lackingFlags, type Lacking } from "./lacking-pictures";
import { type PictureFaults, pictureFlags } from "./picture-faults";
import type { Flag } from "./flag";

/** Known facts of a film's pictures, whatever is shown of them. */
export interface FilmFlagsAt {
  faults: PictureFaults;
  lacking: Pick<Lacking, "longHolds" | "undecoded">;
  captions: readonly Caption[];
  /** Characters per second of a caption that can be read. */
  pace: number;
  limits: CheckLimits;
  rate: Rate;
}

/**
 * Flags of a shot about the film and not its framing.
 * @param strength of the evidence for the transition at its start, 0 to 1; undefined if nothing was weighed
 */
export const filmFlags = (
  shot: Pick<Shot, "start" | "end" | "begins">,
  kept: readonly FrameRange[],
  strength: number | undefined,
  { faults, lacking, captions, pace, limits, rate }: FilmFlagsAt,
): Flag[] => [
  ...cutFlags(shot, strength),
  ...lackingFlags(lacking, shot, rate),
  ...pictureFlags(faults, kept, limits, rate),
  ...captionFlags(captions, kept, pace, rate),
];

/** A shot with its path. */
export interface FramedToCheck {
  kept: readonly FrameRange[];
  shown: ShownAt;
  /** Its tracks, and the subject of its first pane; called only where needed. */
  found: () => { tracks: readonly Track[]; subject: Track | null };
}

/** Layers above a version, and its safe area. */
export interface AboveIt extends Pick<VersionLayers, "layers" | "safeArea" | "size" | "fps"> {
  limits: CheckLimits;
  rate: Rate;
}

/**
 * Flags about a shot's framing, with the layers above it.
 * @param flags the flags of its framing alone
 */
export function aboveFlags(
  flags: readonly Flag[],
  { kept, shown, found }: FramedToCheck,
  { limits, rate, ...above }: AboveIt,
): Flag[] {
  if (kept.length === 0) return [];
  const isCovered = ({ otherId }: Flag) =>
    above.layers.length > 0 &&
    textIsCovered(
      found().tracks.filter(({ id }) => id === otherId),
      kept,
      shown,
      above,
    );
  const left = flags.filter((flag) => flag.kind !== "text-cut" || !isCovered(flag));
  const safe = above.safeArea;
  if (!safe) return left;
  const { tracks, subject } = found();
  return [...left, ...coveredFlags(subject, { kept, tracks, shown, safe, limits, rate })];
}

export const byPlace = (a: Flag, b: Flag): number => a.range.start - b.range.start || b.severity - a.severity;
