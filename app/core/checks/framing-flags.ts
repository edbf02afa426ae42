/** Flags about how a shot is framed. */
import { type Composition, filmPanes, type ShownAt } from "../composition/composition";
import type { Box, Size } from "../geometry/box";
import { aspectRatio, largestWindowHeight } from "../geometry/crop-window";
import { boxAt, laidOver, type Track, wordsOf } from "../subjects/tracking/track";
import { type FrameRange, framesIn, framesPerSecond, rangeLength } from "../time/rate";
import { clipRanges } from "../time/ranges";
import { flagsTexts } from "../../texts/flags";
import type { CheckedShot } from "./checked-shot";
import { type Flag, severityOf } from "./flag";
import { absentFlags, lookRoomFlags, emptyFrameFlags } from "./people-flags";
import { troubleIn } from "./trouble";
import { stuckFlags } from "./window-flags";

const t = flagsTexts.framingFlags;

/** How far a subject may reach beyond the window, as a share of its own size. */
const CUT_TOLERANCE = 0.08;
/** Of text every character counts; its box includes a margin. */
const TEXT_TOLERANCE = 0.01;
/** Share of the largest window above which there is no zoom. */
const NEARLY_LARGEST = 0.98;
/** Certainty of the subject, 0 to 1, below which it is flagged. */
const UNSURE_SUBJECT = 0.5;

/** How much of a box lies outside what is shown of the source, 0 to 1 of its width or height; 0 within the tolerance. */
export function shareOutside(composition: Composition, box: Box, tolerance: number): number {
  const beyond = filmPanes(composition).map(({ source }) => {
    const across = Math.max(source.x - box.x, 0) + Math.max(box.x + box.width - source.x - source.width, 0);
    const down = Math.max(source.y - box.y, 0) + Math.max(box.y + box.height - source.y - source.height, 0);
    return Math.max(across / box.width, down / box.height);
  });
  const least = Math.min(1, ...beyond);
  return least > tolerance ? least : 0;
}

/** Whether a pane shows the whole picture, within a pixel. */
const showsAll = ({ panes }: Composition, { width, height }: Size): boolean =>
  panes.some(({ source }) => source.width >= width - 1 && source.height >= height - 1);

/** The ranges in which a track is not seen, between two in which it is. */
export function gapsOf(track: Track): FrameRange[] {
  const gaps: FrameRange[] = [];
  let last = -1;
  track.boxes.forEach((box, i) => {
    if (!box) return;
    if (last >= 0 && i > last + 1) gaps.push({ start: track.start + last + 1, end: track.start + i });
    last = i;
  });
  return gaps;
}

/** The longest of them; null if there is none. */
export const longestGap = (track: Track): FrameRange | null =>
  gapsOf(track).reduce<FrameRange | null>(
    (best, gap) => (best && rangeLength(best) >= rangeLength(gap) ? best : gap),
    null,
  );

/** Where the subject is cut off, and where it is not seen. */
function subjectFlags({ kept, limits, rate }: CheckedShot, subject: Track, shown: ShownAt): Flag[] {
  const fps = framesPerSecond(rate);
  const isFace = subject.kind === "face";
  const cut = troubleIn(kept, rate, {
    kind: "subject-cut",
    limit: limits.cut,
    at: (frame) => {
      const box = boxAt(subject, frame);
      return box ? shareOutside(shown(frame), box, CUT_TOLERANCE) : 0;
    },
    text: (seconds, worst) => (isFace ? t.faceCutOff : t.subjectCutOff)(seconds, worst),
  });
  const lost = kept
    .flatMap((part) => clipRanges(gapsOf(subject), part))
    .filter(({ start, end }) => end - start >= limits.lost * fps)
    .map((range): Flag => {
      const seconds = (range.end - range.start) / fps;
      const text = t.subjectNotSeen(seconds);
      const severity = severityOf("subject-lost", 1, seconds);
      return { kind: "subject-lost", range, frame: range.start, text, severity };
    });
  return [...cut, ...lost];
}

/** Where each burnt-in text, each inset and the protected area are cut off. */
function heldFlags({ kept, protect, tracks, limits, rate }: CheckedShot, shown: ShownAt): Flag[] {
  const held = protect
    ? troubleIn(kept, rate, {
        kind: "protected-cut",
        limit: limits.cut,
        at: (frame) => shareOutside(shown(frame), protect, 1 / Math.max(protect.width, protect.height)),
        text: t.protectedAreaCutOff,
      })
    : [];
  const cutOff = laidOver(tracks).flatMap((track) =>
    troubleIn(kept, rate, {
      kind: "text-cut",
      limit: limits.cut,
      at: (frame) => {
        const box = boxAt(track, frame);
        return box ? shareOutside(shown(frame), box, TEXT_TOLERANCE) : 0;
      },
      text: track.kind === "inset" ? t.insetCutOff : t.textCutOff(wordsOf(track), track.mayBeSign === true),
    }).map((flag): Flag => ({ ...flag, otherId: track.id })),
  );
  return [...held, ...cutOff];
}

/** Where a zoom enlarges the picture too much; the scale of the largest window is not the zoom's doing. */
function enlargedFlags({ kept, settings, area, limits, rate }: CheckedShot, shown: ShownAt): Flag[] {
  const timesAt = (frame: number) =>
    Math.max(
      0,
      ...filmPanes(shown(frame)).map(({ source, target }) => {
        const least = target.height / (NEARLY_LARGEST * largestWindowHeight(area, aspectRatio(target)));
        const times = target.height / source.height;
        return times > least ? times : 0;
      }),
    );
  const { largestScale } = settings;
  // Twice the limit is the worst.
  return troubleIn(kept, rate, {
    kind: "enlarged",
    limit: limits.cut,
    at: (frame) => Math.max(0, timesAt(frame) / largestScale - 1),
    text: (_seconds, worst) => t.enlarged((1 + worst) * largestScale),
  });
}

/**
 * Flags about the framing of one pane: its subject.
 * @param shown at each frame of the shot
 * @param certainty of the choice of subject, 0 to 1
 */
export function paneFlags(shot: CheckedShot, subject: Track | null, shown: ShownAt, certainty: number): Flag[] {
  const { kept, area } = shot;
  if (framesIn(kept) === 0) return [];
  const range = { start: kept[0]!.start, end: kept.at(-1)!.end };
  // Where the whole picture is shown, the subject makes no difference.
  const isUnsure = certainty < UNSURE_SUBJECT && !showsAll(shown(range.start), area);
  const unsure: Flag = {
    kind: "unsure-subject",
    range,
    frame: range.start,
    text: t.subjectUncertain(certainty),
    severity: severityOf("unsure-subject", 1 - certainty),
  };
  return [...(isUnsure ? [unsure] : []), ...(subject ? subjectFlags(shot, subject, shown) : [])];
}

/**
 * Flags about the framing of a whole shot, in order of its frames.
 * @param subject followed in its first pane
 */
export function framingFlags(shot: CheckedShot, subject: Track | null, shown: ShownAt, certainty = 1): Flag[] {
  if (framesIn(shot.kept) === 0) return [];
  return [
    ...paneFlags(shot, subject, shown, certainty),
    ...heldFlags(shot, shown),
    ...enlargedFlags(shot, shown),
    ...emptyFrameFlags(shot, subject, shown),
    ...absentFlags(shot, shown),
    ...lookRoomFlags(shot, subject, shown),
    ...stuckFlags(shot, subject, shown),
  ].sort((a, b) => a.range.start - b.range.start);
}
