/** All that deserves a flag in a shot of a version: written once, for the desk, the server and the command line. */
import type { Caption } from "../captions/caption";
import type { ShownAt } from "../composition/composition";
import type { VersionLayers } from "../composition/shown";
import type { Shot } from "../shots/shot";
import { laidOver, type Track } from "../subjects/tracking/track";
import type { FrameRange, Rate } from "../time/rate";
import { captionFlags } from "./caption-flags";
import type { CheckLimits } from "./check-settings";
import { coveredFlags } from "./covered-flags";
import { textIsCovered } from "./covered-text";
import { cutFlags } from "./cut-flags";
import { lackingFlags, type Lacking } from "./lacking-pictures";
import { type PictureFaults, pictureFlags } from "./picture-faults";
import type { Flag } from "./flag";

/** What is known of a film's pictures, whatever is shown of them. */
export interface FilmFlagsAt {
  faults: PictureFaults;
  lacking: Pick<Lacking, "longHolds" | "undecoded">;
  captions: readonly Caption[];
  /** Letters a second of a caption that can be read. */
  pace: number;
  limits: CheckLimits;
  rate: Rate;
}

/**
 * What to look at in a shot that is about the film and not about its framing.
 *
 * @param strength how much spoke for the transition that begins it, 0 to 1; undefined if nothing was weighed
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
  /** What was found in it, and what is followed in its first pane; asked for only where that counts. */
  found: () => { tracks: readonly Track[]; subject: Track | null };
}

/** What lies above a version, and where nothing covers it. */
export interface AboveIt extends Pick<VersionLayers, "layers" | "safeArea" | "size" | "fps"> {
  limits: CheckLimits;
  rate: Rate;
}

/**
 * What to look at in a shot's framing, with what lies above it.
 *
 * @param looks what was found in its framing alone
 */
export function aboveFlags(
  flags: readonly Flag[],
  { kept, shown, found }: FramedToCheck,
  { limits, rate, ...above }: AboveIt,
): Flag[] {
  if (kept.length === 0) return [];
  const isTextCovered = () => above.layers.length > 0 && textIsCovered(laidOver(found().tracks), kept, shown, above);
  const left = flags.filter(({ kind }) => kind !== "text-cut" || !isTextCovered());
  const safe = above.safeArea;
  if (!safe) return left;
  const { tracks, subject } = found();
  return [...left, ...coveredFlags(subject, { kept, tracks, shown, safe, limits, rate })];
}

export const byPlace = (a: Flag, b: Flag): number => a.range.start - b.range.start || b.severity - a.severity;
