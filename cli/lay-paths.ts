/** Lays the paths of a version from options, without any hand keys. */
import { USUAL_CAPTIONS } from "~/core/captions/caption-settings";
import type { Caption } from "~/core/captions/caption";
import { USUAL_LIMITS } from "~/core/checks/check-settings";
import type { Lacking } from "~/core/checks/lacking-pictures";
import { NO_FAULTS, type PictureFaults } from "~/core/checks/picture-faults";
import type { VersionLayers } from "~/core/composition/shown";
import { listedFlag } from "~/core/formats/flags";
import { Report } from "~/core/formats/report";
import { makeReport, type ReportedFilm } from "~/core/formats/write-report";
import type { Size } from "~/core/geometry/box";
import type { ShotFraming } from "~/core/path/shot-framing";
import { freshShot } from "~/core/shots/shot";
import type { Transition } from "~/core/shots/transition";
import { USUAL_ATTENTION } from "~/core/subjects/attention/attention-settings";
import type { FrameRange } from "~/core/time/rate";
import { partsWithin } from "~/core/time/ranges";
import { lay, type LaidVersion } from "~/core/version/lay";
import type { ShotSettings } from "~/core/version/shot-settings";
import { versionFlags } from "~/core/version/version-flags";
import { type ReadyOptions, settingsOf } from "./framing-options";

/** A shot with its tracks and its subject. */
type ShotToLay = Pick<ShotFraming, "range" | "tracks" | "rule" | "active"> & { begins: Transition };

/** @param options with the ranges of the shots that are shown; all if left out */
export function layPaths(
  film: LaidVersion["film"],
  shots: readonly ShotToLay[],
  options: ReadyOptions & { size: Size; kept?: readonly FrameRange[] },
): LaidVersion {
  const inVersion = settingsOf(options);
  const ranges = shots.map(({ range }) => range);
  const kept = partsWithin(options.kept ?? ranges, ranges);
  const sets = shots.map(({ range, begins, active, rule }, i): ShotSettings => {
    const shot = { ...freshShot(String(range.start), range, begins, active), follow: rule };
    return { shot, inVersion, usual: {}, attention: USUAL_ATTENTION, handKeys: [], kept: kept[i]! };
  });
  const tracks = shots.map((shot) => shot.tracks);
  return lay(film, options.size, sets, tracks);
}

/** What a report contains beside the paths. */
interface Known {
  lacking: Lacking;
  faults?: PictureFaults;
  captions?: readonly Caption[] | undefined;
  above?: Pick<VersionLayers, "layers" | "safeArea">;
}

/** The report of a version, with its flags. */
export function reportOf(
  film: Omit<ReportedFilm, "lacking">,
  laid: LaidVersion,
  { lacking, faults = NO_FAULTS, captions, above: { layers, safeArea } = { layers: [], safeArea: null } }: Known,
): Report {
  const flags = versionFlags(laid, {
    lacking,
    faults,
    captions: captions ?? [],
    layers,
    safeArea,
    pace: USUAL_CAPTIONS.rules.pace,
    limits: USUAL_LIMITS,
  });
  return Report.parse({
    ...makeReport({ ...film, lacking }, laid),
    flags: flags.flatMap((ofShot, i) => ofShot.map((flag) => listedFlag({ ...flag, shot: i + 1 }))),
    captions,
  });
}
