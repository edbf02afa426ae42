import type { Size } from "~/core/geometry/box";
import { frameShots, type FramedShot, type ShotFraming } from "~/core/path/solve-version";
import { carriesOver } from "~/core/shots/shot";
import type { Transition } from "~/core/shots/transition";
import type { Rate } from "~/core/time/rate";
import { type FramingOptions, settingsOf } from "./framing-options";

/** Lays the paths of shots as the options say; on the command line nothing is set by hand. */
export function layPaths<S extends Pick<ShotFraming, "range" | "tracks" | "rule" | "active"> & { begins: Transition }>(
  shots: readonly S[],
  options: FramingOptions & { size: Size },
  film: { picture: Size; rate: Rate },
): (S & FramedShot)[] {
  const framings = shots.map((shot) => ({
    ...shot,
    carry: carriesOver(shot.begins.kind),
    settings: settingsOf(options),
    handKeys: [],
    protect: null,
  }));
  const paths = frameShots(framings, film.picture, options.size, film.rate);
  return shots.map((shot, i) => ({ ...shot, ...paths[i]! }));
}
