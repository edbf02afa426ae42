/** All that deserves a second look in a version: written once, for the desk, the server and the command line. */
import { joinLooks, type ShotSides } from "../checks/join-looks";
import type { SecondLook } from "../checks/second-look";
import {
  type AboveIt,
  aboveLooks,
  byPlace,
  type FilmLooksAt,
  filmLooks,
  type FramedToCheck,
} from "../checks/shot-looks";
import { shownIn, type VersionLayers } from "../composition/shown";
import { followedTrack } from "../path/solve-version";
import { framesPerSecond } from "../time/rate";
import type { LaidVersion } from "./lay";
import { type FramingLooks, goesOnFromBefore, looksAtFraming } from "./looks-at-framing";
import type { ShotSettings } from "./shot-settings";

/** The shots on both sides of a shot. */
export interface Beside {
  /** How the one before it begins and ends; null where there is none, or that is not known. */
  before: ShotSides | null;
  next: ShotSettings | undefined;
}

/**
 * What to look at in a shot's framing: by itself, under what lies above it, and beside the shots next to it.
 *
 * @param found what is there in its framing alone
 */
export function looksInFraming(
  set: ShotSettings,
  { looks, sides }: FramingLooks,
  framed: Omit<FramedToCheck, "kept">,
  { before, next }: Beside,
  above: AboveIt,
): SecondLook[] {
  const goesOn = { from: goesOnFromBefore(set), into: goesOnFromBefore(next) };
  return [
    ...aboveLooks(looks, { ...framed, kept: set.kept }, above),
    ...joinLooks({ before, shot: sides, goesOn }, above.limits.jolt),
  ];
}

/** What is known of a version that is looked at. */
export interface VersionToLookAt extends Omit<FilmLooksAt, "rate">, Pick<VersionLayers, "layers" | "safeArea"> {
  /** How much spoke for the transition at a frame; none where nothing was weighed. */
  strengths?: ReadonlyMap<number, number>;
}

/** The second looks of each shot of a version, in order of its frames. */
export function versionLooks({ film, target, shots }: LaidVersion, version: VersionToLookAt): SecondLook[][] {
  const { picture, rate } = film;
  const { layers, safeArea, limits, strengths } = version;
  const fps = framesPerSecond(rate);
  const found = shots.map(({ set, tracks, ...framed }) => {
    const shown = shownIn([{ ...framed, range: set.shot }], target, fps);
    return { shown, ...looksAtFraming(set, framed, { tracks, shown, picture, limits, rate }) };
  });
  return shots.map(({ set, tracks, ...framed }, i) => {
    const whole = () => ({ tracks, subject: followedTrack(framed, tracks) });
    const beside = { before: found[i - 1]?.sides ?? null, next: shots[i + 1]?.set };
    const above = { layers, safeArea, size: target, fps, limits, rate };
    return [
      ...filmLooks(set.shot, set.kept, strengths?.get(set.shot.start), { ...version, rate }),
      ...looksInFraming(set, found[i]!, { shown: found[i]!.shown, found: whole }, beside, above),
    ].sort(byPlace);
  });
}
