import { USUAL_ATTENTION } from "~/core/subjects/attention/attention-settings";
import type { Size } from "~/core/geometry/box";
import { shotFraming, type ShotSettings } from "~/core/edits/path-inputs";
import type { FramedShot, ShotFraming } from "~/core/path/shot-framing";
import { frameShots } from "~/core/path/version-paths";
import { freshShot } from "~/core/shots/shot";
import type { Transition } from "~/core/shots/transition";
import type { FrameRange, Rate } from "~/core/time/rate";
import { partsWithin } from "~/core/time/ranges";
import { type ReadyOptions, settingsOf } from "./framing-options";

/**
 * Lays the paths of shots as the options say; on the command line nothing is set by hand.
 *
 * @param options with what of the shots is shown; all of them if left out
 */
export function layPaths<S extends Pick<ShotFraming, "range" | "tracks" | "rule" | "active"> & { begins: Transition }>(
  shots: readonly S[],
  options: ReadyOptions & { size: Size; kept?: readonly FrameRange[] },
  film: { picture: Size; rate: Rate },
): (S & FramedShot & { set: ShotSettings })[] {
  const inVersion = settingsOf(options);
  const ranges = shots.map(({ range }) => range);
  const kept = partsWithin(options.kept ?? ranges, ranges);
  const sets = shots.map(({ range, begins, active, rule }, i): ShotSettings => {
    const shot = { ...freshShot(String(range.start), range, begins, active), follow: rule };
    return { shot, inVersion, usual: {}, attention: USUAL_ATTENTION, handKeys: [], kept: kept[i]! };
  });
  const framings = sets.map((set, i) => shotFraming(set, shots[i]!.tracks));
  const paths = frameShots(framings, film.picture, options.size, film.rate);
  return shots.map((shot, i) => ({ ...shot, ...paths[i]!, set: sets[i]! }));
}
