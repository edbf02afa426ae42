import { type Composition, filmPanes, type ShownAt, showsWhole } from "../composition/composition";
import { boxCentre, type Size } from "../geometry/box";
import { aspectRatio, largestWindowHeight } from "../geometry/crop-window";
import type { FramingSettings } from "../path/framing-settings";
import type { LeftOut } from "../subjects/choosing/follow";
import type { Shot } from "../shots/shot";
import { boxAt, laidOver, type Track } from "../subjects/tracking/track";
import { type FrameRange, framesIn, framesOf, rangeLength } from "../time/rate";
import { clipRanges } from "../time/ranges";
import { looksTexts } from "../../texts/looks";

const t = looksTexts.secondLooks;

/** A place that deserves the editor's eye, with its reason and its number. */
export interface SecondLook {
  kind:
    | "unsure-cut"
    | "short-shot"
    | "subject-cut"
    | "unsure-subject"
    | "subject-lost"
    | "two-alike"
    | "two-apart"
    | "enlarged"
    | "face-covered"
    | "protected-cut"
    | "text-cut"
    | "repeated-picture"
    | "undecoded-picture";
  /** Frame to look at. */
  frame: number;
  /** The reason in words, with the number. */
  text: string;
  /** Which of the shot's panes it is about, from 0; left out where it is about the shot. */
  pane?: number;
  /** The track of what is left out. */
  otherId?: string;
}

/** A transition that is decided by less than this, on a scale of 0 to 1 around 0.5, is not certain. */
const UNSURE = 0.06;
/** Shots of fewer frames are more often a mistake than a choice. */
const SHORT_FRAMES = 6;
/** Share of the frames in which a subject may reach beyond the window. */
const CUT_SHARE = 0.05;
/** How far it may reach beyond, as a share of its own size. */
const CUT_TOLERANCE = 0.08;
/** Of text every letter counts; the box has room beside it. */
const TEXT_TOLERANCE = 0.01;

/** A window this near the largest one is no zoom. */
const NEARLY_LARGEST = 0.98;
/** A choice of subject less certain than this, 0 to 1, deserves a look. */
const UNSURE_SUBJECT = 0.5;
/** A subject that is not seen for more than this share of the shot between being seen is lost there. */
const LOST_SHARE = 0.08;

/** The longest stretch in which a track is not seen between being seen; null if there is none. */
export function longestGap(track: Track): FrameRange | null {
  let longest: FrameRange | null = null;
  let last = -1;
  track.boxes.forEach((box, i) => {
    if (!box) return;
    const gap = { start: track.start + last + 1, end: track.start + i };
    const length = gap.end - gap.start;
    if (last >= 0 && length > 0 && (!longest || length > longest.end - longest.start)) longest = gap;
    last = i;
  });
  return longest;
}

/** Whether a pane shows all of the picture, give or take a pixel. */
const showsAll = ({ panes }: Composition, { width, height }: Size): boolean =>
  panes.some(({ source }) => source.width >= width - 1 && source.height >= height - 1);

/** Frames in which a track is to be seen. */
const framesSeen = (track: Track, kept: readonly FrameRange[]): number[] =>
  kept.flatMap(framesOf).filter((frame) => boxAt(track, frame));

/** Those of them in which it is not shown whole. */
const framesCut = (track: Track, kept: readonly FrameRange[], shown: ShownAt): number[] =>
  framesSeen(track, kept).filter((frame) => {
    const box = boxAt(track, frame)!;
    return !showsWhole(shown(frame), box, (laidOver([track]).length > 0 ? TEXT_TOLERANCE : CUT_TOLERANCE) * box.width);
  });

/**
 * What to look at where a shot begins, and in its length.
 *
 * @param strength how much spoke for the transition that begins the shot, 0 to 1; undefined if nothing was weighed
 */
export function cutLooks(shot: Pick<Shot, "start" | "end" | "begins">, strength: number | undefined): SecondLook[] {
  const looks: SecondLook[] = [];
  const frames = shot.end - shot.start;
  if (strength !== undefined && shot.begins !== "turn" && Math.abs(strength - 0.5) < UNSURE) {
    looks.push({
      kind: "unsure-cut",
      frame: shot.start,
      text: t.cutUncertain(strength),
    });
  }
  if (frames < SHORT_FRAMES) {
    looks.push({ kind: "short-shot", frame: shot.start, text: t.thisShotHasOnly(frames) });
  }
  return looks;
}

/**
 * What to look at in how a shot is framed.
 *
 * @param shown what is shown at each frame of the shot
 * @param picture the part of the picture that is not bars
 * @param certainty how sure the choice of the subject is, 0 to 1
 */
export function framingLooks(
  shot: Pick<Shot, "start" | "protect"> & {
    /** What of it is shown; nothing else counts. */
    kept: readonly FrameRange[];
    /** The text that is over it. */
    texts: readonly Track[];
    settings: Pick<FramingSettings, "enlargement">;
  },
  subject: Track | null,
  shown: ShownAt,
  picture: Size,
  certainty = 1,
): SecondLook[] {
  const looks: SecondLook[] = [];
  const { kept, texts } = shot;
  const frames = framesIn(kept);
  if (frames === 0) return looks;
  const { start } = kept[0]!;
  // Where all of the picture is shown, it makes no difference.
  if (certainty < UNSURE_SUBJECT && !showsAll(shown(start), picture)) {
    const text = t.subjectUncertain(certainty);
    looks.push({ kind: "unsure-subject", frame: start, text });
  }
  const gap = subject && longestGap(subject);
  const [lost] = gap ? clipRanges(kept, gap).sort((a, b) => rangeLength(b) - rangeLength(a)) : [];
  if (lost && rangeLength(lost) > LOST_SHARE * frames) {
    const text = t.subjectNotSeenFor(rangeLength(lost));
    looks.push({ kind: "subject-lost", frame: lost.start, text });
  }
  if (subject) {
    const cut = framesCut(subject, kept, shown);
    if (cut.length > CUT_SHARE * frames) {
      looks.push({
        kind: "subject-cut",
        frame: cut[0]!,
        text: t.subjectCutOff(cut.length, frames),
      });
    }
  }
  const { protect } = shot;
  const cut = protect ? kept.flatMap(framesOf).filter((frame) => !showsWhole(shown(frame), protect, 1)) : [];
  if (cut.length > CUT_SHARE * frames) {
    const text = t.protectedAreaCutOff(cut.length, frames);
    looks.push({ kind: "protected-cut", frame: cut[0]!, text });
  }
  const textFrames = texts.flatMap((text) => framesSeen(text, kept));
  const textCut = texts.flatMap((text) => framesCut(text, kept, shown)).sort((a, b) => a - b);
  if (textCut.length > CUT_SHARE * textFrames.length) {
    const what = texts.every(({ kind }) => kind === "inset") ? t.inset : t.text;
    const text = t.cutOffInOf(what, new Set(textCut).size, new Set(textFrames).size);
    looks.push({ kind: "text-cut", frame: textCut[0]!, text });
  }
  const enlarged = mostEnlarged(kept, shown, picture);
  if (enlarged && enlarged.times > shot.settings.enlargement) {
    const text = t.enlargedTimesWhichMayLook(enlarged.times);
    looks.push({ kind: "enlarged", frame: enlarged.frame, text });
  }
  return looks;
}

/** What to look at where something else might as well be followed, or as well, and is left out. */
export function otherLooks(subject: Track, other: Track, why: LeftOut["why"]): SecondLook[] {
  const frame = other.boxes.findIndex((box, i) => box && boxAt(subject, other.start + i)) + other.start;
  const [followed, left] = [boxAt(subject, frame), boxAt(other, frame)];
  if (!followed || !left) return [];
  const side = boxCentre(left).x < boxCentre(followed).x ? "left" : "right";
  const text = why === "alike" ? t.twoSimilarSubjectsTheOne(side) : t.twoSubjectsDoNotFit(side);
  return [{ kind: why === "alike" ? "two-alike" : "two-apart", frame, text, otherId: other.id }];
}

/** Where a zoom enlarges the picture most, if any does; that the largest window is enlarged is not the zoom's doing. */
function mostEnlarged(kept: readonly FrameRange[], shown: ShownAt, picture: Size) {
  let most: { frame: number; times: number } | null = null;
  for (const frame of kept.flatMap(framesOf)) {
    for (const { source, target } of filmPanes(shown(frame))) {
      const least = target.height / (NEARLY_LARGEST * largestWindowHeight(picture, aspectRatio(target)));
      const times = target.height / source.height;
      if (times > (most?.times ?? least)) most = { frame, times };
    }
  }
  return most;
}
