/** The ground truth of a made film, and how a conversion's report compares with it. */
import { readFileSync } from "node:fs";
import { z } from "zod";
import type { Report } from "~/core/formats/report";
import { type Box, boxContains, boxIou } from "~/core/geometry/box";
import { windowBox } from "~/core/geometry/crop-window";

const BoxTuple = z.tuple([z.number(), z.number(), z.number(), z.number()]);

export const Truth = z.object({
  width: z.number(),
  height: z.number(),
  rate: z.tuple([z.number(), z.number()]),
  frames: z.number(),
  shots: z.array(
    z.object({
      name: z.string(),
      start: z.number(),
      end: z.number(),
      transition: z.enum(["cut", "dissolve", "fade"]),
      range: z.tuple([z.number(), z.number()]).optional(),
    }),
  ),
  speech: z.array(z.object({ person: z.string(), start: z.number(), end: z.number() })),
  titles: z.array(z.object({ start: z.number(), end: z.number(), box: BoxTuple })),
  tracks: z.array(
    z.object({
      shot: z.number(),
      id: z.string(),
      kind: z.enum(["person", "object"]),
      start: z.number(),
      face: z.array(BoxTuple.nullable()).optional(),
      boxes: z.array(BoxTuple.nullable()),
    }),
  ),
});
export type Truth = z.infer<typeof Truth>;
type TruthTrack = Truth["tracks"][number];

export const readTruth = (file: string): Truth => Truth.parse(JSON.parse(readFileSync(file, "utf8")));

const toBox = (tuple: number[] | null | undefined): Box | null =>
  tuple ? { x: tuple[0]!, y: tuple[1]!, width: tuple[2]!, height: tuple[3]! } : null;

export interface ShotComparison {
  name: string;
  start: number;
  /** Whether the report has a shot that begins at exactly this frame. */
  found: boolean;
  /** Who or what of the truth the followed track shows. */
  subject: string | null;
  /** Share of the frames with the face in the picture in which it is wholly inside the window; null without one. */
  faceInside: number | null;
  /** The same for the body, or for a thing. */
  bodyInside: number | null;
  keys: number;
}

export interface Comparison {
  shots: ShotComparison[];
  cuts: number;
  cutsFound: number;
  falseCuts: number;
  keysPerShot: number;
}

/** The truth's track that a reported track overlaps most. */
function matchTrack(candidates: TruthTrack[], reported: Report["tracks"][number] | undefined): TruthTrack | null {
  if (!reported) return null;
  const overlap = (track: TruthTrack) => {
    let sum = 0;
    reported.boxes.forEach((tuple, i) => {
      const frame = reported.start + i - track.start;
      const seen = toBox(tuple);
      const boxes = reported.kind === "face" ? track.face : track.boxes;
      const real = toBox(boxes?.[frame]);
      if (seen && real) sum += boxIou(seen, real);
    });
    return sum;
  };
  const ranked = candidates.map((track) => ({ track, score: overlap(track) })).sort((a, b) => b.score - a.score);
  return ranked[0] && ranked[0].score > 0 ? ranked[0].track : null;
}

/** Share of the frames in which a box is in the picture whole and inside the window whole. */
function shareInside(report: Report, boxes: TruthTrack["boxes"], start: number, truth: Truth): number | null {
  const aspect = report.target.width / report.target.height;
  const first = report.shots[0]!.start;
  const picture = { x: 0, y: 0, width: truth.width, height: truth.height };
  let inside = 0;
  let seen = 0;
  boxes.forEach((tuple, i) => {
    const box = toBox(tuple);
    const window = report.windows[start + i - first];
    // What the picture itself cuts cannot be whole in any window.
    if (!box || !window || !boxContains(picture, box)) return;
    seen++;
    if (boxContains(windowBox({ x: window[0], y: window[1], height: window[2] }, aspect), box, 1)) inside++;
  });
  return seen > 0 ? inside / seen : null;
}

/** Compares a report on a made film with what is known of it. */
export function compareWithTruth(report: Report, truth: Truth): Comparison {
  const starts = new Set(report.shots.map((shot) => shot.start));
  const shots = truth.shots.map((shot, index): ShotComparison => {
    const middle = Math.floor((shot.start + shot.end) / 2);
    const reported = report.shots.find((other) => middle >= other.start && middle < other.end);
    const followed = report.tracks.find((track) => track.id === reported?.subject);
    const match = matchTrack(
      truth.tracks.filter((track) => track.shot === index),
      followed,
    );
    return {
      name: shot.name,
      start: shot.start,
      found: starts.has(shot.start),
      subject: match?.id ?? null,
      faceInside: match?.face ? shareInside(report, match.face, match.start, truth) : null,
      bodyInside: match ? shareInside(report, match.boxes, match.start, truth) : null,
      keys: reported?.keys.length ?? 0,
    };
  });
  const hard = truth.shots.filter((shot) => shot.transition === "cut" && shot.start > 0);
  const known = truth.shots.flatMap((shot) => [shot.start, ...(shot.range ?? [])]);
  const isFalse = (start: number) => start > 0 && !known.some((frame) => Math.abs(frame - start) <= 12);
  return {
    shots,
    cuts: hard.length,
    cutsFound: hard.filter((shot) => starts.has(shot.start)).length,
    falseCuts: report.shots.filter((shot) => isFalse(shot.start)).length,
    keysPerShot: report.shots.reduce((sum, shot) => sum + shot.keys.length, 0) / report.shots.length,
  };
}
