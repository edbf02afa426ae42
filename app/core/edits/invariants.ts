import { MOST_CAPTIONS } from "../captions/caption";
import { shownOfClip } from "../clips/clip";
import { MOST_LAYERS } from "../composition/layers/layer";
import { narrowestPane } from "../composition/layout";
import { type Box, boxContains, clipBox, type Size, wholeOf } from "../geometry/box";
import { clampWindow } from "../geometry/crop-window";
import type { HandKey } from "../path/hand-key";
import { LEAST_ACTIVE_SIDE } from "../shots/shot";
import { type FrameRange, inRange } from "../time/rate";
import { inToOut } from "../version/trim";
import type { FilmFacts, FilmState, VersionState } from "../version/film-state";
import { refusalsTexts } from "../../texts/refusals";

const t = refusalsTexts.invariants;

export const MAX_VERSIONS = 50;
const MAX_MARKS = 5000;
const MAX_TRACK_EDITS = 5000;

/** Pixels by which rounding may put a window outside the picture. */
const ROUNDING = 0.5;

const PROTECTED_OUTSIDE = t.protectedOutside;

const isEmptyOrOutside = ({ start, end }: FrameRange, frames: number): boolean =>
  start < 0 || end <= start || end > frames;

function firstDouble<T>(all: readonly T[]): T | undefined {
  const seen = new Set<T>();
  return all.find((one) => seen.has(one) || !seen.add(one));
}

const liesOutside = (box: Box, picture: Size): boolean => {
  const { width, height } = clipBox(box, picture);
  return !(width > 0 && height > 0);
};

const isNoArea = (area: Box, picture: Size): boolean =>
  !boxContains(wholeOf(picture), area) || Math.min(area.width, area.height) < LEAST_ACTIVE_SIDE;

function brokenShots({ shots, film: { frames, picture } }: FilmState, end: number): string | null {
  let covered = 0;
  for (const shot of shots) {
    if (isEmptyOrOutside(shot, frames)) return t.shotRange(shot.start, shot.end);
    if (shot.start !== covered) return t.shotsGap(covered);
    const { mixed } = shot;
    if (mixed.start < 0 || mixed.end < mixed.start || mixed.end > frames) {
      return t.shotMixedOutside(shot.start);
    }
    if (shot.protect && liesOutside(shot.protect, picture)) return PROTECTED_OUTSIDE;
    if (shot.active && isNoArea(shot.active, picture)) return t.pictureAreaInvalid;
    covered = shot.end;
  }
  if (covered !== end) return t.shotsEndEarly(covered, end);
  return null;
}

function brokenKey(key: HandKey, version: Size, { frames, picture }: FilmFacts): string | null {
  if (!inRange(key.frame, { start: 0, end: frames })) return t.theFilmHasNoFrame(key.frame);
  // Its width follows from the shot's layout, which may change: it has to fit in the layout in which it is narrowest.
  const nearest = clampWindow(key, wholeOf(picture), narrowestPane(picture, version));
  const off = Math.max(Math.abs(nearest.x - key.x), Math.abs(nearest.y - key.y), Math.abs(nearest.height - key.height));
  if (!(off <= ROUNDING)) return t.windowOutside(key.frame);
  return null;
}

function brokenTrim({ name, trim }: VersionState, frames: number): string | null {
  const { start, end } = inToOut(trim, frames);
  if (isEmptyOrOutside({ start, end }, frames)) return t.versionRange(name, start, end);
  let last = -1;
  for (const drop of trim.leftOut) {
    if (isEmptyOrOutside(drop, frames) || drop.start <= last) {
      return t.leftOutRange(name, drop.start, drop.end);
    }
    last = drop.end;
  }
  return null;
}

function brokenVersion(version: VersionState, { film, shots }: FilmState): string | null {
  const broken = brokenTrim(version, film.frames);
  if (broken) return broken;
  for (const key of version.handKeys) {
    const broken = brokenKey(key, version, film);
    if (broken) return broken;
  }
  if (firstDouble(version.layers.map(({ id }) => id)) !== undefined) return t.duplicateLayer;
  if (version.layers.length > MOST_LAYERS) return t.tooManyLayers(version.name, MOST_LAYERS);
  const outside = version.layers.find(({ range }) => range && isEmptyOrOutside(range, film.frames));
  if (outside) return t.layerOutside(version.name);
  const ids = new Set(shots.map(({ id }) => id));
  for (const [id, { protect }] of version.shots) {
    if (!ids.has(id)) return t.foreignShot(version.name);
    if (protect && liesOutside(protect, film.picture)) return PROTECTED_OUTSIDE;
  }
  return null;
}

function brokenVersions(state: FilmState): string | null {
  const { versions } = state;
  if (versions.length === 0) return t.needsOneVersion;
  if (versions.length > MAX_VERSIONS) return t.mostVersions(MAX_VERSIONS);
  for (const version of versions) {
    const broken = brokenVersion(version, state);
    if (broken) return broken;
  }
  return null;
}

function brokenCaptions({ captions, film }: FilmState): string | null {
  if (captions.length > MOST_CAPTIONS) return t.mostCaptions(MOST_CAPTIONS);
  if (firstDouble(captions.map(({ id }) => id)) !== undefined) return t.duplicateThing;
  const outside = captions.find((caption) => isEmptyOrOutside(caption, film.frames));
  return outside ? t.captionOutside(outside.text) : null;
}

function brokenMarks({ marks, film: { frames, picture } }: FilmState): string | null {
  if (marks.length > MAX_MARKS) return t.mostMarks(MAX_MARKS);
  for (const { frame, box } of marks) {
    if (!inRange(frame, { start: 0, end: frames })) return t.theFilmHasNoFrame(frame);
    if (liesOutside(box, picture)) return t.markOutside(frame);
  }
  return null;
}

function brokenClips({ clips, film: { frames } }: FilmState): string | null {
  let covered = 0;
  for (const clip of clips) {
    if (clip.start !== covered || clip.end <= clip.start) return t.clipsGap(covered);
    covered = clip.end;
    const { start, end } = shownOfClip(clip);
    if (start < clip.start || end > clip.end || end <= start) return t.clipPointsInvalid(clip.name);
  }
  return clips.length > 0 && covered !== frames ? t.clipsEndEarly(covered, frames) : null;
}

function brokenPeople({ people }: FilmState): string | null {
  const byId = new Map(people.map((person) => [person.id, person]));
  for (const person of people) {
    const seen = new Set<string>();
    for (let at = person; at.mergedInto !== null;) {
      const into = byId.get(at.mergedInto);
      if (!into) return t.mergeTargetGone;
      if (seen.has(into.id)) return t.mergeWithSelf;
      seen.add(into.id);
      at = into;
    }
  }
  return null;
}

function brokenTrackEdits({ trackEdits, film: { frames } }: FilmState): string | null {
  if (trackEdits.size > MAX_TRACK_EDITS) return t.mostTrackEdits(MAX_TRACK_EDITS);
  for (const [id, { removed, joinedTo }] of trackEdits) {
    if (joinedTo === id) return t.joinWithSelf;
    const wrong = removed.find((range) => isEmptyOrOutside(range, frames));
    if (wrong) return t.trackRange(wrong.start, wrong.end);
  }
  return null;
}

/**
 * What is wrong with a film's state, as a sentence to follow "That did not work: "; null if nothing is. These invariants
 * hold after every edit: shots cover the film without gap or overlap, everything lies in the film and its picture, and
 * everything that is named exists.
 * @param shotsEnd the frame at which the shots have to end
 */
export function brokenInvariant(state: FilmState, shotsEnd: number): string | null {
  const { shots, versions } = state;
  if (firstDouble([...shots, ...versions].map(({ id }) => id)) !== undefined) return t.duplicateThing;
  return (
    brokenShots(state, shotsEnd) ??
    brokenVersions(state) ??
    brokenMarks(state) ??
    brokenCaptions(state) ??
    brokenClips(state) ??
    brokenPeople(state) ??
    brokenTrackEdits(state)
  );
}
