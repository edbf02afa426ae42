/** All that deserves a second look in a version whose paths are laid, for the server and the command line. */
import { joinLooks } from "../checks/join-looks";
import type { SecondLook } from "../checks/second-look";
import { aboveLooks, byPlace, type FilmLooksAt, filmLooks } from "../checks/shot-looks";
import { shownIn, type VersionLayers } from "../composition/shown";
import type { Size } from "../geometry/box";
import type { FramedShot } from "../path/shot-framing";
import { followedTrack } from "../path/solve-version";
import type { Track } from "../subjects/tracking/track";
import { framesPerSecond } from "../time/rate";
import { goesOnFromBefore, looksAtFraming } from "./looks-at-framing";
import type { ShotSettings } from "./path-inputs";

/** A shot of a version with its path. */
export interface LaidShot {
  set: ShotSettings;
  framed: FramedShot;
  tracks: readonly Track[];
  /** How much spoke for the transition that begins it; undefined if nothing was weighed. */
  strength?: number | undefined;
}

interface VersionToLookAt extends FilmLooksAt, Pick<VersionLayers, "layers" | "safeArea"> {
  /** Size of the version, and of the source's picture. */
  target: Size;
  picture: Size;
}

/** The second looks of each shot, in order of its frames. */
export function versionLooks(shots: readonly LaidShot[], version: VersionToLookAt): SecondLook[][] {
  const { target, picture, layers, safeArea, limits, rate } = version;
  const fps = framesPerSecond(rate);
  const found = shots.map(({ set, framed, tracks }) => {
    const shown = shownIn([{ range: set.shot, ...framed }], target, fps);
    return { shown, ...looksAtFraming(set, framed, { tracks, shown, picture, limits, rate }) };
  });
  return shots.map(({ set, framed, tracks, strength }, i) => {
    const { shot, kept } = set;
    const { shown, looks, sides } = found[i]!;
    const whole = () => ({ tracks, subject: followedTrack(framed, tracks) });
    const goesOn = { from: goesOnFromBefore(set), into: goesOnFromBefore(shots[i + 1]?.set) };
    return [
      ...filmLooks(shot, kept, strength, version),
      ...aboveLooks(looks, { kept, shown, found: whole }, { layers, safeArea, size: target, fps, limits, rate }),
      ...joinLooks({ before: found[i - 1]?.sides ?? null, shot: sides, goesOn }, limits.jolt),
    ].sort(byPlace);
  });
}
