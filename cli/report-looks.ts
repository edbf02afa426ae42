/** The second looks that a report carries. */
import { USUAL_LIMITS } from "~/core/checks/check-settings";
import type { Lacking } from "~/core/checks/lacking-pictures";
import { NO_FAULTS, type PictureFaults } from "~/core/checks/picture-faults";
import { USUAL_CAPTIONS } from "~/core/captions/caption-settings";
import type { Caption } from "~/core/captions/caption";
import type { VersionLayers } from "~/core/composition/shown";
import { type LaidShot, versionLooks } from "~/core/edits/version-looks";
import { type ListedLook, listedLook } from "~/core/formats/looks";
import type { Size } from "~/core/geometry/box";
import type { FramedShot } from "~/core/path/shot-framing";
import type { Rate } from "~/core/time/rate";

interface LookedThrough {
  target: Size;
  film: { picture: Size; rate: Rate };
  lacking: Lacking;
  faults?: PictureFaults;
  captions?: readonly Caption[] | undefined;
  above?: Pick<VersionLayers, "layers" | "safeArea">;
}

/** @param shots with their paths, as `layPaths` gives them */
export function looksOf(
  shots: readonly (FramedShot & Pick<LaidShot, "set" | "tracks">)[],
  { target, film, lacking, faults = NO_FAULTS, captions = [], above = { layers: [], safeArea: null } }: LookedThrough,
): ListedLook[] {
  const laid = shots.map((shot): LaidShot => ({ set: shot.set, tracks: shot.tracks, framed: shot }));
  const looks = versionLooks(laid, {
    ...{ target, picture: film.picture, rate: film.rate, lacking, faults, captions },
    ...{ pace: USUAL_CAPTIONS.rules.pace, limits: USUAL_LIMITS, layers: above.layers, safeArea: above.safeArea },
  });
  return looks.flatMap((ofShot, i) => ofShot.map((look) => listedLook({ ...look, shot: i + 1 })));
}
