/** Which tracks of a shot are only others seen once more: parts, texts, shadows of people. */
import { type Box, boxArea, intersectionArea, type Size } from "../../geometry/box";
import { type FrameRange } from "../../time/rate";
import { joinPieces } from "./join-pieces";
import { boxAt, isDoubtfulFace, joinTracks, seenTogether, type Track, visibleFrames } from "./track";

/** Share of a shot at which a known object makes all that merely moves or is salient superfluous. */
const LASTING_SHARE = 0.3;
/** Certainty that an object needs where there are people as well, and share of the time that it is alone. */
const SURE_THING = 0.5;
const ALONE = 0.8;
/** Share of its frames inside text at which a track is part of the text. */
const TEXT_SHARE = 0.5;

/** Motion or salience that is text is nothing else; nor is a face that may be a round letter. */
export function withoutText(tracks: readonly Track[], texts: readonly Track[], picture: Size): Track[] {
  const mayBeText = (track: Track) =>
    track.kind === "motion" || track.kind === "salient" || isDoubtfulFace(track, picture);
  return tracks.filter((track) => !mayBeText(track) || shareWithin(track, texts) < TEXT_SHARE);
}

/** Faces of one person that are never seen together are one face, with a gap. */
export function oneFaceEach(tracks: readonly Track[]): Track[] {
  const kept: Track[] = [];
  for (const track of tracks) {
    const same = kept.findIndex(
      (other) =>
        track.kind === "face" &&
        other.kind === "face" &&
        other.personId !== undefined &&
        other.personId === track.personId &&
        !seenTogether(other, track),
    );
    if (same < 0) kept.push(track);
    else kept[same] = joinTracks(kept[same]!, track);
  }
  return kept;
}

/** Share of its frames in which one of some others is seen as well. */
function shareBeside(track: Track, others: readonly Track[]): number {
  const seen = track.boxes.flatMap((box, i) => (box ? [track.start + i] : []));
  return seen.filter((frame) => others.some((other) => boxAt(other, frame))).length / Math.max(1, seen.length);
}

/**
 * Share of its frames in which a track lies inside one of another kind.
 * @param whole of two boxes, the one whose area counts as the whole
 */
function shareWithin(
  track: Track,
  others: readonly Track[],
  whole = (box: Box, other: Box) => Math.min(boxArea(box), boxArea(other)),
): number {
  let inside = 0;
  let seen = 0;
  track.boxes.forEach((box, i) => {
    if (!box) return;
    seen++;
    const covered = others.some((other) => {
      const known = boxAt(other, track.start + i);
      return known && intersectionArea(box, known) > 0.35 * whole(box, known);
    });
    if (covered) inside++;
  });
  return seen > 0 ? inside / seen : 1;
}

/**
 * Of motion and salience, keeps what is there while nobody is seen for long and no object is known; where somebody is,
 * certain motion before they come, or after they have gone.
 */
export function withoutShadows(tracks: readonly Track[], shot: FrameRange, picture: Size): Track[] {
  const known = tracks.filter(({ kind }) => kind !== "motion" && kind !== "salient");
  const doubtful = known.filter((track) => isDoubtfulFace(track, picture));
  const certain = known.filter((track) => !doubtful.includes(track));
  const people = certain.filter(
    (track) =>
      (track.kind === "person" || track.kind === "face") &&
      visibleFrames(track) > LASTING_SHARE * (shot.end - shot.start),
  );
  // A moon is more than the face that is seen in it, and a nose is part of a face.
  const isPartOf = (track: Track) => shareWithin(track, certain) >= 0.5 || shareWithin(track, doubtful, boxArea) >= 0.5;
  const isSure = (track: Track) => track.kind === "motion" || track.confidence >= SURE_THING;
  const isAlone = (track: Track) => people.length === 0 || (isSure(track) && shareBeside(track, people) < 1 - ALONE);
  const unknown = tracks.filter((track) => !known.includes(track) && isAlone(track) && !isPartOf(track));
  const moving = joinPieces(unknown.filter(({ kind }) => kind === "motion"));
  return [...known, ...moving, ...unknown.filter(({ kind }) => kind === "salient")];
}
