/** Writes reports of findings, and of the windows. */
import { type z } from "zod";
import type { Box, Size } from "../geometry/box";
import type { CropWindow } from "../geometry/crop-window";
import type { Key } from "../path/keys";
import { transitionInto } from "../shots/shot";
import { isGradual, type Transition } from "../shots/transition";
import type { FollowSpan } from "../subjects/choosing/follow-plan";
import type { Track } from "../subjects/tracking/track";
import type { Lacking } from "../checks/lacking-pictures";
import { type FrameRange, framesIn, type Rate } from "../time/rate";
import type { LaidShot, LaidVersion } from "../version/lay";
import { type AnalysisReport, type Report, type WindowTuple } from "./report";

export interface FoundShotData {
  range: FrameRange;
  /** Its transition. */
  begins: Transition;
  subjectId: string | null;
  reason: string;
  certainty: number;
  tracks: readonly Track[];
  /** What is followed, and when, in order. */
  spans: readonly Omit<FollowSpan, "subject">[];
  active: Box | null;
}

export interface ReportedFilm {
  file: string;
  picture: Size;
  rate: Rate;
  frames: number;
  lacking?: Lacking;
}

/** Thousandths of a pixel are invisible, and keep the file small. */
const rounded = (value: number): number => Math.round(value * 1000) / 1000;
/** Boxes are accurate to whole pixels of the small frame at best. */
const tenths = (value: number): number => Math.round(value * 10) / 10;
const boxTuple = (box: Box): [number, number, number, number] => [
  tenths(box.x),
  tenths(box.y),
  tenths(box.width),
  tenths(box.height),
];

const pairsOf = (ranges: readonly FrameRange[]) => ranges.map(({ start, end }): [number, number] => [start, end]);

const sourceOf = ({ file, picture, rate, frames, lacking }: ReportedFilm): Report["source"] => ({
  file,
  width: picture.width,
  height: picture.height,
  rate: [rate.num, rate.den],
  frames,
  ...(lacking && lacking.held > 0 ? { repeated: { frames: lacking.held, ranges: pairsOf(lacking.longHolds) } } : {}),
  ...(lacking && lacking.undecoded.length > 0 ? { undecoded: pairsOf(lacking.undecoded) } : {}),
  ...(lacking && lacking.cutOff > 0 ? { cutOff: lacking.cutOff } : {}),
});

const reportSwitch = ({ start, trackIds, cause, comesBy }: FoundShotData["spans"][number]) => ({
  frame: start,
  tracks: [...trackIds],
  cause,
  by: comesBy,
});

const foundShot = ({
  range,
  begins,
  subjectId,
  reason,
  certainty,
  spans,
  active,
}: FoundShotData): AnalysisReport["shots"][number] => ({
  start: range.start,
  end: range.end,
  transition: begins.kind,
  ...(isGradual(begins) ? { range: [begins.range.start, begins.range.end] as [number, number] } : {}),
  subject: subjectId,
  reason,
  certainty: rounded(certainty),
  ...(spans.length > 1 ? { switches: spans.map(reportSwitch) } : {}),
  ...(active ? { active: boxTuple(active) } : {}),
});

const reportTracks = (shots: readonly FoundShotData[]): Report["tracks"] =>
  shots.flatMap(({ tracks }, shot) =>
    tracks.map((track) => ({
      id: track.id,
      kind: track.kind,
      shot,
      start: track.start,
      boxes: track.boxes.map((box) => box && boxTuple(box)),
      confidence: rounded(track.confidence),
      ...(track.label ? { label: track.label } : {}),
      ...(track.who ? { who: track.who } : {}),
      ...(track.personId ? { person: track.personId } : {}),
      ...(track.facing ? { facing: track.facing.map(({ frame, side }): [number, number] => [frame, side]) } : {}),
      ...(track.words ? { words: track.words } : {}),
      ...(track.mayBeSign ? { mayBeSign: true as const } : {}),
      ...(track.speaking ? { speaking: pairsOf(track.speaking) } : {}),
      ...(track.acting ? { acting: pairsOf(track.acting) } : {}),
    })),
  );

/** Builds the report of what was found in a film. */
export const makeAnalysisReport = (film: ReportedFilm, shots: readonly FoundShotData[]): AnalysisReport => ({
  format: "glad-pan/analysis",
  version: 2,
  source: sourceOf(film),
  shots: shots.map(foundShot),
  tracks: reportTracks(shots),
});

const windowTuple = ({ x, y, height }: CropWindow): z.infer<typeof WindowTuple> => [
  rounded(x),
  rounded(y),
  rounded(height),
];

const reportKeys = (keys: readonly Key[]) =>
  keys.map((key) => ({ ...key, x: rounded(key.x), y: rounded(key.y), height: rounded(key.height) }));

/** Fields of a shot that does not fill its frame, or has several panes. */
function laidOutOf({ laidOut: { panes, own = [], backdrop, edge }, others }: LaidShot) {
  if (!backdrop && others.length === 0) return {};
  const [first, ...rest] = panes.map(boxTuple);
  return {
    pane: first!,
    ...(backdrop ? { backdrop: backdrop.look, edge } : {}),
    ...(others.length > 0
      ? {
          others: others.map(({ subjectId, movement, keys, windows }, i) => ({
            pane: rest[i]!,
            subject: subjectId,
            movement,
            keys: reportKeys(keys),
            windows: windows.map(windowTuple),
            ...(own[i + 1] ? { own: own[i + 1]! } : {}),
          })),
        }
      : {}),
  };
}

const foundIn = ({ set: { shot }, ...laid }: LaidShot): FoundShotData => ({
  ...laid,
  begins: transitionInto(shot),
  active: shot.active,
});

/** Builds the report of one conversion. */
export const makeReport = (film: ReportedFilm, { target, shots, ranges }: LaidVersion): Report => ({
  format: "glad-pan/report",
  version: 2,
  source: sourceOf(film),
  target: { width: target.width, height: target.height },
  ...(framesIn(ranges) < framesIn(shots.map(({ range }) => range)) ? { kept: pairsOf(ranges) } : {}),
  shots: shots.map((shot) => ({
    ...foundShot(foundIn(shot)),
    movement: shot.movement,
    movementReason: shot.movementReason,
    keys: reportKeys(shot.keys),
    ...laidOutOf(shot),
  })),
  tracks: reportTracks(shots.map(foundIn)),
  windows: shots.flatMap(({ windows }) => windows.map(windowTuple)),
});
