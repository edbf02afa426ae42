import { writeFile } from "node:fs/promises";
import { basename, resolve } from "node:path";
import { Command } from "commander";
import { makeReport, Report } from "~/core/formats/report";
import { clipBox, type Size } from "~/core/geometry/box";
import type { Manner } from "~/core/path/manner";
import { frameShots } from "~/core/path/solve-version";
import { carriesOver } from "~/core/shots/shot";
import type { Track } from "~/core/subjects/track";
import { type FrameRange, inRange } from "~/core/time/rate";
import { type AnalysedShot, analyseFilm, forgetfulStore } from "~/jobs/analyse-film.server";
import { exportVersion } from "~/jobs/export-version.server";
import { followBox } from "~/jobs/follow-box.server";
import { probeFilm } from "~/media/probe.server";
import type { FilmFile } from "~/media/small-frames.server";
import { writeAside } from "~/media/write-aside.server";
import { collectMark, type MarkOption, parseFrame, parseManner, parseSize, UsageError } from "./options";
import { type ProgressLine, runWithProgress } from "./progress-line";

interface ConvertOptions {
  size: Size;
  out: string;
  report?: string;
  manner: Manner;
  mark: MarkOption[];
  from?: number;
  to?: number;
}

function rangeFrom(options: ConvertOptions, film: FilmFile): FrameRange {
  const range = { start: options.from ?? 0, end: options.to ?? film.info.frames };
  if (range.end > film.info.frames) {
    throw new UsageError(`${film.name} has ${film.info.frames} frames; --to ${range.end} is beyond its end`);
  }
  if (range.start >= range.end) throw new UsageError("--from must come before --to");
  return range;
}

/** The mark's track for each marked shot; of several marks in one shot the last given is followed. */
async function followMarks(
  film: FilmFile,
  shots: AnalysedShot[],
  marks: MarkOption[],
  signal: AbortSignal,
): Promise<Map<AnalysedShot, Track>> {
  const tracks = new Map<AnalysedShot, Track>();
  for (const { frame, box } of marks) {
    const shot = shots.find(({ range }) => inRange(frame, range));
    if (!shot) throw new UsageError(`the mark at frame ${frame} lies outside the frames to convert`);
    const inside = clipBox(box, film.info.picture);
    if (inside.width < 2 || inside.height < 2)
      throw new UsageError(`the mark at frame ${frame} lies outside the picture`);
    const id = `s${shots.indexOf(shot) + 1}-mark-1`;
    tracks.set(shot, await followBox(film, shot.range, { frame, box: inside }, { id, kind: "mark" }, { signal }));
  }
  return tracks;
}

async function convert(
  file: string,
  options: ConvertOptions,
  progress: ProgressLine,
  signal: AbortSignal,
): Promise<void> {
  const name = basename(file);
  if (resolve(file) === resolve(options.out)) throw new UsageError("--out would overwrite the film itself");
  const film: FilmFile = { file, name, info: await probeFilm(file) };
  const { picture, rate, frames } = film.info;
  const range = rangeFrom(options, film);
  const outside = options.mark.find(({ frame }) => !inRange(frame, range));
  if (outside) throw new UsageError(`the mark at frame ${outside.frame} lies outside the frames to convert`);

  const analysis = await analyseFilm(film, {
    store: forgetfulStore(),
    range,
    signal,
    onProgress: ({ step, share }) =>
      progress.show(step === "looking" ? "Looking for shots and people" : "Following subjects", share * 0.6),
  });
  const marks = await followMarks(film, analysis.shots, options.mark, signal);
  const framings = analysis.shots.map((shot) => {
    const mark = marks.get(shot);
    const tracks = mark ? [...shot.tracks, mark] : shot.tracks;
    const { range: frames, begins } = shot;
    const carry = carriesOver(begins.kind);
    return { range: frames, begins, carry, manner: options.manner, tracks, subjectId: mark?.id, handKeys: [] };
  });
  const paths = frameShots(framings, picture, options.size, rate);
  const shots = framings.map((framing, i) => ({ ...framing, ...paths[i]! }));
  const windows = shots.flatMap((shot) => shot.windows);
  const figures = await exportVersion({ film, target: options.size, ranges: [range], windows }, options.out, {
    signal,
    onProgress: ({ step, share }) => progress.show(step === "rendering" ? "Rendering" : "Checking", 0.6 + share * 0.4),
  });
  if (options.report) {
    const report = Report.parse(makeReport({ file: name, picture, rate, frames }, options.size, shots));
    await writeAside(options.report, (aside) => writeFile(aside, `${JSON.stringify(report)}\n`));
  }
  progress.end();
  const sound = figures.soundSeconds === null ? "no sound" : "with sound";
  console.error(
    `${options.out}: ${figures.width} × ${figures.height}, ${figures.frames} frames at ${figures.rate} a second, ${sound}, ${shots.length} shots; checked.`,
  );
}

export function convertCommand(): Command {
  return new Command("convert")
    .description("convert one film without the app")
    .argument("<film>", "the film to convert")
    .requiredOption("--size <size>", "size of the result, such as 1080x1920", parseSize)
    .requiredOption("--out <file>", "the MP4 file to write")
    .option("--report <file>", "write shots, tracks, keys and windows as JSON (docs/formats.md)")
    .option("--manner <manner>", "how the window moves: still, glide or chase", parseManner, "glide")
    .option(
      "--mark <mark>",
      "follow what the box FRAME:X,Y,W,H holds, in its shot; may be given again",
      collectMark,
      [],
    )
    .option("--from <frame>", "first frame to convert", parseFrame)
    .option("--to <frame>", "first frame not to convert any more", parseFrame)
    .exitOverride()
    .action(async (file: string, options: ConvertOptions) => {
      if (!/\.(mp4|m4v|mov)$/i.test(options.out)) throw new UsageError("--out must end in .mp4, .m4v or .mov");
      await runWithProgress((progress, signal) => convert(file, options, progress, signal));
    });
}
