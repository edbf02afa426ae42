/** Converts a film without the app: the common part of `convert`, `export` and `batch`. */
import { writeFile } from "node:fs/promises";
import { resolve } from "node:path";
import { counted } from "~/texts/numbers";
import type { Lacking } from "~/core/checks/lacking-pictures";
import { NO_FAULTS, type PictureFaults } from "~/core/checks/picture-faults";
import { faultsIn, type FileFigures } from "~/core/film/film-status";
import { readReport } from "~/core/formats/read-report";
import { type FrameRange, rangeKey } from "~/core/time/rate";
import { joinRanges, withoutRanges } from "~/core/time/ranges";
import { toRender } from "~/core/version/lay";
import type { RenderPlan } from "~/media/render/plan";
import { renderShare, type Share } from "~/media/render/render.server";
import { exportVersion } from "~/pipelines/export-version.server";
import type { FilmFile } from "~/media/film-file";
import { identityOf } from "~/media/film-identity.server";
import { writeAside } from "~/disk/write-aside.server";
import { barsLines } from "./bars-line";
import { type CaptionOptions, FilmCaptions } from "./captions";
import { type FindOptions, findShots, type FoundShot } from "./find";
import { type FilmChoices, openFilm, undecodedLines } from "./open-film";
import { OwnFiles } from "./own-files";
import { libraryFiles } from "~/library/own/own-files.server";
import { ruleOf } from "./framing-options";
import { layPaths, reportOf } from "./lay-paths";
import { readReportFile } from "./read-report-file";
import { UsageError } from "./options";
import { type OutputOptions, outputOf } from "./output-options";
import type { Running } from "./progress-line";
import type { Target, TargetOptions } from "./targets";
import type { Terminal } from "./terminal";

/** Options of a conversion. */
export interface ConvertOptions
  extends TargetOptions, FilmChoices, CaptionOptions, OutputOptions, Pick<FindOptions, "mark" | "pictureArea"> {
  from?: number;
  to?: number;
  leaveOut: FrameRange[];
  /** Folder of rendered parts. */
  parts?: string;
  /** A report of `analyse` or `convert`, instead of analysing the film. */
  analysis?: string;
  /** Share of a render's parts to make; nothing is joined then. */
  share?: Share;
}

/** Exit code for files that were written, but in which the check has found faults. */
export const NEEDS_A_LOOK = 3;

/** A file that was written. */
export interface Converted {
  out: string;
  /** Its facts, in a line. */
  line: string;
  figures: FileFigures;
  /** Faults found by the check. */
  faults: string[];
}

/** Range of the film to analyse. */
function rangeFrom(options: ConvertOptions, film: FilmFile): FrameRange {
  const range = { start: options.from ?? 0, end: options.to ?? film.info.frames };
  if (range.end > film.info.frames) {
    throw new UsageError(`${film.name} has ${film.info.frames} frames; --to ${range.end} is beyond its end`);
  }
  if (range.start >= range.end) throw new UsageError("--from must come before --to");
  return range;
}

/** Ranges of it to convert. */
function keptFrom(range: FrameRange, { leaveOut }: ConvertOptions, film: FilmFile): FrameRange[] {
  const beyond = leaveOut.find(({ end }) => end > film.info.frames);
  if (beyond) {
    throw new UsageError(
      `${film.name} has ${film.info.frames} frames; --leave-out ${rangeKey(beyond)} is beyond its end`,
    );
  }
  const kept = withoutRanges([range], joinRanges(leaveOut));
  if (kept.length === 0) throw new UsageError("--leave-out leaves nothing of the film");
  return kept;
}

interface Found {
  film: FilmFile;
  shots: FoundShot[];
  lacking: Lacking;
  faults: PictureFaults;
  kept: FrameRange[];
  /** Layers above the picture, if given. */
  layers: TargetOptions["layers"];
  captions: FilmCaptions | null;
  options: OutputOptions & Pick<ConvertOptions, "parts" | "share">;
}

/** How the conversion of a version is monitored and cancelled. */
interface Watched {
  terminal: Terminal;
  show: (what: string, share: number) => void;
  signal: AbortSignal;
}

/** Lays the paths of one version, renders it, and writes its report. */
async function convertTo(
  { size, out, report, framing, limitSeconds, above }: Target,
  { film, shots: found, lacking, faults, kept, layers, captions, options }: Found,
  watched: Watched,
): Promise<Converted | null> {
  const { show, signal } = watched;
  const output = outputOf(options, out, above.output);
  // Marks are followed whatever rule is given.
  const own = new OwnFiles();
  const ready = { ...framing, backdrop: await own.backdrop(framing.backdrop) };
  const laid = layPaths(
    film.info,
    found.map((shot) => ({ ...shot, rule: shot.rule.kind === "track" ? shot.rule : ruleOf(framing) })),
    { ...ready, size, kept },
  );
  const { layers: ownLayers, safeArea } = layers ? await own.layers(layers) : above;
  const over = { layers: ownLayers, safeArea, captions: captions?.shownBy(above.captions) ?? above.captions };
  const library = libraryFiles({ ...over, usual: ready });
  const files = {
    pictures: new Map<string, Buffer | string>([...library.pictures, ...own.pictures]),
    moving: new Map([...library.moving, ...own.moving]),
    fonts: new Map<string, Buffer | string>([...library.fonts, ...own.fonts]),
  };
  const plan = { ...film, ...toRender(laid, over, captions?.captions ?? []), own: files, output };
  const isOwn = files.pictures.size + files.moving.size + files.fonts.size > 0;
  // The editor's own files are identified by name only here; parts are kept only without them.
  const parts = options.parts !== undefined && !isOwn ? { folder: options.parts, film: identityOf(film) } : undefined;
  const render = (track?: string) =>
    exportVersion(track === undefined ? plan : { ...plan, captions: track }, out, {
      signal,
      limitSeconds,
      parts,
      onProgress: ({ step, share }) => show(step === "rendering" ? "Rendering" : "Checking", share),
    });
  if (options.share) return convertShare(plan, out, options.share, parts, watched);
  const figures = await (captions ? captions.withTrack(kept, render) : render());
  await captions?.writeBeside(out, kept);
  if (report) {
    const known = { lacking, faults, captions: captions?.captions, above: over };
    const written = reportOf({ ...film.info, file: film.name }, laid, known);
    await writeAside(report, (aside) => writeFile(aside, `${JSON.stringify(written)}\n`));
  }
  const sound = figures.soundSeconds === null ? "no sound" : "with sound";
  const wrong = faultsIn(figures);
  const checked = wrong.length > 0 ? `check failed: ${wrong.join("; ")}.` : "checked.";
  const line = `${out}: ${figures.width} × ${figures.height}, ${figures.frames} frames at ${figures.rate} per second, ${sound}, ${counted(laid.shots.length, "shot")}; ${checked}`;
  return { out, line, figures, faults: wrong };
}

/** Makes one share of the parts of a file. */
async function convertShare(
  plan: RenderPlan,
  out: string,
  share: Share,
  parts: { folder: string; film: string } | undefined,
  { terminal, show, signal }: Watched,
): Promise<null> {
  if (!parts) throw new UsageError("--share does not go with pictures, films or fonts of your own");
  const onProgress = (done: number) => show("Rendering", done);
  const { made, parts: all } = await renderShare(plan, share, { parts, signal, onProgress });
  terminal.tell(`${out}: share ${share.number} of ${share.count}, ${made} of ${counted(all, "part")} made.`);
  return null;
}

/**
 * Findings of an earlier run.
 * @throws UsageError if the report is of another film, or cannot be read
 */
async function foundBefore(report: string, film: FilmFile, options: ConvertOptions) {
  const found = await readReportFile(report, readReport);
  if (found.frames !== film.info.frames || found.shots.at(-1)?.range.end !== film.info.frames) {
    throw new UsageError(`${report} is not of all of ${film.name}; make it again with \`analyse\``);
  }
  if (options.mark.length > 0) throw new UsageError("--mark does not go with --analysis; say it with `analyse`");
  const rule = ruleOf(options);
  return { shots: found.shots.map((shot) => ({ ...shot, rule })), lacking: found.lacking, faults: NO_FAULTS };
}

/**
 * Converts a film to each of some targets, after one analysis.
 * @returns the files, in the order of the targets
 * @throws UsageError where the options do not fit the film, and FilmError where the film cannot be used
 */
export async function convertFilm(
  file: string,
  options: ConvertOptions,
  targets: readonly Target[],
  { terminal, progress, signal }: Running,
): Promise<Converted[]> {
  if (targets.some(({ out }) => resolve(file) === resolve(out))) {
    throw new UsageError("--out would overwrite the film itself");
  }
  if (options.share && options.parts === undefined) throw new UsageError("--share needs --parts");
  const film = await openFilm(file, terminal, options);
  const range = rangeFrom(options, film);
  const kept = keptFrom(range, options, film);
  const captions = await FilmCaptions.open(options, film.info);
  const of = 1 + 2 * targets.length;
  const { shots, lacking, faults } =
    options.analysis === undefined
      ? await findShots(
          film,
          range,
          { follow: ruleOf(options), mark: options.mark, pictureArea: options.pictureArea },
          {
            signal,
            onProgress: (share) => progress.show({ number: 1, of, what: "Looking for shots and people" }, share),
          },
        )
      : await foundBefore(options.analysis, film, options);
  const done: Converted[] = [];
  for (const [i, target] of targets.entries()) {
    const show = (what: string, share: number) =>
      progress.show({ number: 2 + 2 * i + (what === "Checking" ? 1 : 0), of, what }, share);
    const about = { film, shots, lacking, faults, kept, layers: options.layers, captions, options };
    const converted = await convertTo(target, about, { terminal, show, signal });
    if (converted) done.push(converted);
  }
  progress.end();
  for (const line of captions?.said ?? []) terminal.tell(line);
  for (const line of undecodedLines(lacking, film)) terminal.tell(line);
  for (const line of barsLines(shots, film.info.picture)) terminal.tell(line);
  for (const { line } of done) terminal.tell(line);
  return done;
}
