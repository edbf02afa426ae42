/** The common part of `convert` and `analyse`: the analysis, the marks, and whom each shot follows. */
import { type Lacking, lackingOf } from "~/core/checks/lacking-pictures";
import type { PictureFaults } from "~/core/checks/picture-faults";
import { type Box, boxContains, clipBox, wholeOf } from "~/core/geometry/box";
import type { FollowRule } from "~/core/subjects/choosing/follow-rule";
import { markedThings } from "~/core/subjects/marks/marked-things";
import { type FrameRange, inRange } from "~/core/time/rate";
import { analyseAtOnce } from "~/pipelines/analyse-film.server";
import type { AnalysedShot } from "~/pipelines/analysis-store";
import { followMarks } from "~/pipelines/follow-marks.server";
import type { FilmFile } from "~/media/film-file";
import { type MarkOption, UsageError } from "./options";

export interface FindOptions {
  follow: FollowRule;
  mark: MarkOption[];
  pictureArea?: Box | null;
}

/** A shot with its tracks and its subject. */
export interface FoundShot extends AnalysedShot {
  rule: FollowRule;
}

function requireMarks(film: FilmFile, range: FrameRange, marks: readonly MarkOption[]): void {
  for (const { frame, box } of marks) {
    if (!inRange(frame, range)) throw new UsageError(`the mark at frame ${frame} lies outside the frames to convert`);
    const inside = clipBox(box, film.info.picture);
    if (inside.width < 2 || inside.height < 2) {
      throw new UsageError(`the mark at frame ${frame} lies outside the picture`);
    }
  }
}

function requireActive({ info }: FilmFile, active: FindOptions["pictureArea"]): void {
  if (!active || boxContains(wholeOf(info.picture), active)) return;
  const { width, height } = info.picture;
  throw new UsageError(`the picture area reaches beyond the picture, which is ${width} × ${height}`);
}

/** Several marks in one shot are of one thing, which is followed there. */
async function withMark(
  film: FilmFile,
  shot: AnalysedShot,
  options: FindOptions,
  signal: AbortSignal,
): Promise<FoundShot> {
  const marks = options.mark.map(({ frame, box }) => ({ thing: "1", frame, box: clipBox(box, film.info.picture) }));
  const [thing] = markedThings(marks, shot.range);
  if (!thing) return { ...shot, rule: options.follow };
  const track = await followMarks(film, thing, { tracks: shot.tracks, signal });
  return { ...shot, tracks: [...shot.tracks, track], rule: { kind: "track", trackId: track.id } };
}

/**
 * Finds the shots of a range of a film, their tracks and subjects, and what the film lacks.
 * @throws UsageError for marks outside the range or the picture, and for such an area
 */
export async function findShots(
  film: FilmFile,
  range: FrameRange,
  options: FindOptions,
  { onProgress, signal }: { onProgress: (share: number) => void; signal: AbortSignal },
): Promise<{ shots: FoundShot[]; lacking: Lacking; faults: PictureFaults }> {
  requireMarks(film, range, options.mark);
  requireActive(film, options.pictureArea);
  const { shots, undecoded, faults } = await analyseAtOnce(film, {
    range,
    signal,
    onProgress,
    active: options.pictureArea,
  });
  const found: FoundShot[] = [];
  for (const shot of shots) found.push(await withMark(film, shot, options, signal));
  return { shots: found, lacking: lackingOf(film.info, undecoded), faults };
}
