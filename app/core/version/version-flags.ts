/** All flags of a version, for desk, server and command line alike. */
import { joinFlags, type ShotSides } from "../checks/join-flags";
import type { Flag } from "../checks/flag";
import {
  type AboveIt,
  aboveFlags,
  byPlace,
  type FilmFlagsAt,
  filmFlags,
  type FramedToCheck,
} from "../checks/shot-flags";
import { shownIn, type VersionLayers } from "../composition/shown";
import { followedTrack } from "../path/solve-version";
import { framesPerSecond } from "../time/rate";
import type { LaidVersion } from "./lay";
import { type FramingFlags, goesOnFromBefore, flagsOfFraming } from "./flags-of-framing";
import type { ShotSettings } from "./shot-settings";

/** The neighbours of a shot. */
export interface Beside {
  /** How the one before it begins and ends; null where there is none, or that is unknown. */
  before: ShotSides | null;
  next: ShotSettings | undefined;
}

/**
 * Flags of a shot's framing: by itself, under the layers above it, and beside its neighbours.
 * @param found flags of its framing alone
 */
export function flagsInFraming(
  set: ShotSettings,
  { flags, sides }: FramingFlags,
  framed: Omit<FramedToCheck, "kept">,
  { before, next }: Beside,
  above: AboveIt,
): Flag[] {
  const goesOn = { from: goesOnFromBefore(set), into: goesOnFromBefore(next) };
  return [
    ...aboveFlags(flags, { ...framed, kept: set.kept }, above),
    ...joinFlags({ before, shot: sides, goesOn }, above.limits.jolt),
  ];
}

/** What is known of a version for its flags. */
export interface VersionToCheck extends Omit<FilmFlagsAt, "rate">, Pick<VersionLayers, "layers" | "safeArea"> {
  /** Strength of the transition at a frame; none where nothing was weighed. */
  strengths?: ReadonlyMap<number, number>;
}

/** The flags of each shot of a version, in order of its frames. */
export function versionFlags({ film, target, shots }: LaidVersion, version: VersionToCheck): Flag[][] {
  const { picture, rate } = film;
  const { layers, safeArea, limits, strengths } = version;
  const fps = framesPerSecond(rate);
  const found = shots.map(({ set, tracks, ...framed }) => {
    const shown = shownIn([{ ...framed, range: set.shot }], target, fps);
    return { shown, ...flagsOfFraming(set, framed, { tracks, shown, picture, limits, rate }) };
  });
  return shots.map(({ set, tracks, ...framed }, i) => {
    const whole = () => ({ tracks, subject: followedTrack(framed, tracks) });
    const beside = { before: found[i - 1]?.sides ?? null, next: shots[i + 1]?.set };
    const above = { layers, safeArea, size: target, fps, limits, rate };
    return [
      ...filmFlags(set.shot, set.kept, strengths?.get(set.shot.start), { ...version, rate }),
      ...flagsInFraming(set, found[i]!, { shown: found[i]!.shown, found: whole }, beside, above),
    ].sort(byPlace);
  });
}
