/** Everything known of a version, as files in open formats. */
import { captionsIn } from "~/core/captions/caption";
import { writeSrt, writeVtt } from "~/core/captions/write-captions";
import { lackingOf } from "~/core/checks/lacking-pictures";
import { NO_FAULTS, pictureFaults } from "~/core/checks/picture-faults";
import { flagPrint } from "~/core/checks/flag-print";
import { shownIn } from "~/core/composition/shown";
import { versionFlags } from "~/core/version/version-flags";
import { asName, titleOf } from "~/core/formats/file-names";
import { clockOfFilm } from "~/core/film/film-info";
import { writeCutsCsv } from "~/core/formats/cuts-csv";
import { writeEdl } from "~/core/formats/edl";
import { listedFlag, flagsCsv, flagsJson, type FlagsToList } from "~/core/formats/flags";
import { writeOtio } from "~/core/formats/otio";
import { writeKeysCsv, writePathCsv, type WrittenShot } from "~/core/formats/path-csv";
import { Report } from "~/core/formats/report";
import { makeReport } from "~/core/formats/write-report";
import { transitionsOf } from "~/core/shots/shot";
import { framesPerSecond } from "~/core/time/rate";
import { readActivity } from "~/db/activity.server";
import { listUndecoded } from "~/db/analysis.server";
import type { FilmRow } from "~/db/films.server";
import { layVersion } from "./lay-version.server";
import { db } from "~/db/workplace.server";

/** Files of a version, by the endings of their names. */
export const VERSION_FILES = [
  "cuts.edl",
  "cuts.csv",
  "timeline.otio",
  "path.csv",
  "keys.csv",
  "report.json",
  "flags.csv",
  "flags.json",
  "captions.srt",
  "captions.vtt",
] as const;
export type VersionFile = (typeof VERSION_FILES)[number];

export interface VersionFiles {
  /** "Kite Day Vertical 9-16", with which the names of its files begin. */
  base: string;
  /** Writes one of them; null where there is nothing to write, such as captions. */
  write: (file: VersionFile) => string | null;
}

/**
 * Lays a version's paths and returns its files.
 * @throws Refusal if the film has no such version
 */
export function versionFiles(film: FilmRow, versionId: string): VersionFiles {
  const { info } = film;
  const { rate, picture, frames } = info;
  const { state, version, laid } = layVersion(db(), film, versionId);
  const { target, shots, ranges } = laid;
  const lacking = lackingOf(info, listUndecoded(db(), film.id));
  const activity = readActivity(db(), film.id, frames);
  const strengths = new Map(state.film.candidates.map(({ transition, strength }) => [transition.frame, strength]));
  const fps = framesPerSecond(rate);
  const shownOf = (i: number) => shownIn([shots[i]!], target, fps);
  const said = captionsIn(state.captions, ranges);
  const clock = clockOfFilm(info);
  const title = titleOf(film.name);
  const cuts = { title, clock, frames, transitions: transitionsOf(state.shots) };

  const written = (): WrittenShot[] =>
    shots.map((shot, i) => ({
      number: i + 1,
      kept: shot.set.kept,
      shown: shownOf(i),
      keys: [shot, ...shot.others].map(({ keys }) => keys),
    }));
  const flags = (): FlagsToList => {
    const { reviewedFlags, checkLimits: limits, layers, safeArea, captions } = version;
    const seen = new Set(reviewedFlags);
    const faults = activity ? pictureFaults(activity, rate) : NO_FAULTS;
    const found = versionFlags(laid, {
      lacking,
      faults,
      limits,
      layers,
      safeArea,
      strengths,
      captions: state.captions,
      pace: captions.rules.pace,
    });
    return {
      film: film.name,
      version: version.name,
      clock,
      flags: found.flatMap((ofShot, i) =>
        ofShot.map((flag) => ({
          ...flag,
          shot: i + 1,
          isReviewed: seen.has(flagPrint(flag, shots[i]!.set.shot, shownOf(i))),
        })),
      ),
    };
  };
  const report = (): string => {
    const made = makeReport({ file: film.name, picture, rate, frames, lacking }, laid);
    const captions = state.captions.map(({ id, ...caption }) => caption);
    const all = { ...made, flags: flags().flags.map(listedFlag), ...(captions.length > 0 ? { captions } : {}) };
    return `${JSON.stringify(Report.parse(all))}\n`;
  };
  const timeline = (): string =>
    writeOtio(
      cuts,
      film.name,
      shots.map((shot) => ({
        target,
        panes: [shot, ...shot.others].map(({ keys }, pane) => ({ place: shot.laidOut.panes[pane]!, keys })),
      })),
    );
  const writers: Record<VersionFile, () => string | null> = {
    "cuts.edl": () => writeEdl(cuts),
    "cuts.csv": () => writeCutsCsv(cuts),
    "timeline.otio": timeline,
    "path.csv": () => writePathCsv(written(), clock),
    "keys.csv": () => writeKeysCsv(written(), clock),
    "report.json": report,
    "flags.csv": () => flagsCsv(flags()),
    "flags.json": () => `${JSON.stringify(flagsJson(flags()), null, 2)}\n`,
    "captions.srt": () => (said.length > 0 ? writeSrt(said, rate) : null),
    "captions.vtt": () => (said.length > 0 ? writeVtt(said, rate) : null),
  };
  const base = asName(`${title} ${version.name}`);
  return { base, write: (file) => writers[file]() };
}
