import { writeFile } from "node:fs/promises";
import { resolve } from "node:path";
import { Command } from "commander";
import { shownIn } from "~/core/composition/shown";
import { counted } from "~/core/counted";
import { makeReport, Report } from "~/core/formats/report";
import type { Size } from "~/core/geometry/box";
import { type FrameRange, rangeKey } from "~/core/time/rate";
import { joinRanges, withoutRanges } from "~/core/time/ranges";
import { exportVersion } from "~/pipelines/export-version.server";
import type { FilmFile } from "~/media/film-file";
import { writeAside } from "~/disk/write-aside.server";
import { barsLines } from "./bars-line";
import { type FindOptions, findShots } from "./find";
import { addFilmOptions, type FilmChoices, openFilm, undecodedLines } from "./open-film";
import { addFramingOptions, type FramingOptions, ruleOf } from "./framing-options";
import { layPaths } from "./lay-paths";
import { addActiveOption, addMarkOption, collectDrop, parseFrame, parseSize, UsageError } from "./options";
import { type ProgressLine, runWithProgress } from "./progress-line";

const ANALYSIS = { number: 1, of: 3, what: "Looking for shots and people" };
const RENDERING = { number: 2, of: 3, what: "Rendering" };
const CHECKING = { number: 3, of: 3, what: "Checking" };

interface ConvertOptions extends FramingOptions, FilmChoices, Pick<FindOptions, "mark" | "active"> {
  size: Size;
  out: string;
  report?: string;
  from?: number;
  to?: number;
  drop: FrameRange[];
}

/** What is looked at of the film. */
function rangeFrom(options: ConvertOptions, film: FilmFile): FrameRange {
  const range = { start: options.from ?? 0, end: options.to ?? film.info.frames };
  if (range.end > film.info.frames) {
    throw new UsageError(`${film.name} has ${film.info.frames} frames; --to ${range.end} is beyond its end`);
  }
  if (range.start >= range.end) throw new UsageError("--from must come before --to");
  return range;
}

/** What of that is converted. */
function keptFrom(range: FrameRange, { drop }: ConvertOptions, film: FilmFile): FrameRange[] {
  const beyond = drop.find(({ end }) => end > film.info.frames);
  if (beyond) {
    throw new UsageError(`${film.name} has ${film.info.frames} frames; --drop ${rangeKey(beyond)} is beyond its end`);
  }
  const kept = withoutRanges([range], joinRanges(drop));
  if (kept.length === 0) throw new UsageError("--drop leaves nothing of the film");
  return kept;
}

async function convert(
  file: string,
  options: ConvertOptions,
  progress: ProgressLine,
  signal: AbortSignal,
): Promise<void> {
  if (resolve(file) === resolve(options.out)) throw new UsageError("--out would overwrite the film itself");
  const film = await openFilm(file, options);
  const range = rangeFrom(options, film);
  const kept = keptFrom(range, options, film);
  const { shots: found, lacking } = await findShots(
    film,
    range,
    { follow: ruleOf(options), mark: options.mark, active: options.active },
    {
      signal,
      onProgress: (share) => progress.show(ANALYSIS, share),
    },
  );
  const shots = layPaths(found, { ...options, kept }, film.info);
  const shown = shownIn(shots, options.size);
  const figures = await exportVersion({ film, target: options.size, ranges: kept, shown }, options.out, {
    signal,
    onProgress: ({ step, share }) => progress.show(step === "rendering" ? RENDERING : CHECKING, share),
  });
  if (options.report) {
    const report = Report.parse(makeReport({ file: film.name, ...film.info, lacking }, options.size, shots, kept));
    await writeAside(options.report, (aside) => writeFile(aside, `${JSON.stringify(report)}\n`));
  }
  progress.end();
  for (const line of undecodedLines(lacking, film)) console.error(line);
  for (const line of barsLines(shots, film.info.picture)) console.error(line);
  const sound = figures.soundSeconds === null ? "no sound" : "with sound";
  console.error(
    `${options.out}: ${figures.width} × ${figures.height}, ${figures.frames} frames at ${figures.rate} a second, ${sound}, ${counted(shots.length, "shot")}; checked.`,
  );
}

export function convertCommand(): Command {
  const command = new Command("convert")
    .description("convert one film without the app")
    .argument("<film>", "the film to convert")
    .requiredOption("--size <size>", "size of the result, such as 1080x1920", parseSize)
    .requiredOption("--out <file>", "the MP4 file to write")
    .option("--report <file>", "write shots, tracks, keys and windows as JSON (docs/formats.md)");
  return addFilmOptions(addActiveOption(addMarkOption(addFramingOptions(command))))
    .option("--from <frame>", "first frame to convert", parseFrame)
    .option("--to <frame>", "first frame not to convert any more", parseFrame)
    .option("--drop <A-B>", "leave out frames A up to B; may be given again", collectDrop, [])
    .exitOverride()
    .action(async (file: string, options: ConvertOptions) => {
      if (!/\.(mp4|m4v|mov)$/i.test(options.out)) throw new UsageError("--out must end in .mp4, .m4v or .mov");
      await runWithProgress((progress, signal) => convert(file, options, progress, signal));
    });
}
