import { writeFile } from "node:fs/promises";
import { Command } from "commander";
import { AnalysisReport } from "~/core/formats/report";
import { makeAnalysisReport } from "~/core/formats/write-report";
import { counted } from "~/texts/numbers";
import { USUAL_ATTENTION } from "~/core/subjects/attention/attention-settings";
import { planFollowing } from "~/core/subjects/choosing/follow";
import { writeAside } from "~/disk/write-aside.server";
import { barsLines } from "./bars-line";
import { type FindOptions, findShots } from "./find";
import { addFilmOptions, type FilmChoices, openFilm, undecodedLines } from "./open-film";
import { addActiveOption, addFollowOption, addMarkOption } from "./options";
import { type Running, runWithProgress } from "./progress-line";
import type { Terminal } from "./terminal";

interface AnalyseOptions extends FilmChoices, FindOptions {
  report: string;
}

async function analyse(file: string, options: AnalyseOptions, { terminal, progress, signal }: Running): Promise<void> {
  const film = await openFilm(file, terminal, options);
  const { picture, rate, frames } = film.info;
  const { shots: found, lacking } = await findShots(film, { start: 0, end: frames }, options, {
    signal,
    onProgress: (share) => progress.show({ number: 1, of: 1, what: "Looking for shots and people" }, share),
  });
  let before: string | null = null;
  const shots = found.map((shot) => {
    // Without a version, the window of the most usual upright one is assumed.
    const window = { width: (picture.height * 9) / 16, height: picture.height };
    const problem = { ...shot, shot: shot.range, picture, window, rate, before, attention: USUAL_ATTENTION };
    const plan = planFollowing(problem);
    before = plan.who;
    const { spans, trackId: subjectId, reason, certainty } = plan;
    return { ...shot, spans, subjectId, reason, certainty };
  });
  const report = AnalysisReport.parse(makeAnalysisReport({ file: film.name, ...film.info, lacking }, shots));
  await writeAside(options.report, (aside) => writeFile(aside, `${JSON.stringify(report)}\n`));
  progress.end();
  for (const line of undecodedLines(lacking, film)) terminal.tell(line);
  for (const line of barsLines(shots, picture)) terminal.tell(line);
  const people = new Set(report.tracks.flatMap(({ who }) => who ?? [])).size;
  terminal.tell(
    `${options.report}: ${counted(shots.length, "shot")}, ${counted(people, "person", "people")}, ${counted(report.tracks.length, "track")}.`,
  );
}

export function analyseCommand(terminal: Terminal): Command {
  const command = new Command("analyse")
    .description("find the shots of a film and who is in them, and write a report without rendering")
    .argument("<film>", "the film to analyse")
    .requiredOption("--report <file>", "the JSON file to write (docs/formats.md)");
  return addFilmOptions(addActiveOption(addMarkOption(addFollowOption(command)))).action(
    (file: string, options: AnalyseOptions) => runWithProgress(terminal, (running) => analyse(file, options, running)),
  );
}
