import { type Box, boxArea, boxCentre, intersectionArea, type Size } from "../../geometry/box";
import { median } from "../../numbers/median";
import { framesPerSecond, type FrameRange, inRange, type Rate } from "../../time/rate";
import { actingIn } from "./acting";
import { associate, type Tracklet } from "./associate";
import { CLEAR_FACE, type FrameDetections, type TrackKind } from "../detecting/detection";
import { fillTrack } from "./fill-track";
import { joinPieces } from "./join-pieces";
import { tileTracks } from "../tiles/tile-tracks";
import { textTracks } from "../text/text-tracks";
import { joinTracklets } from "./join-tracklets";
import { withMovement } from "./movement";
import { withWords } from "./signs";
import { asWhole, farEnd, whatIsHeld, withoutHolder, withoutMergers } from "./stay";
import { boxAt, isDoubtfulFace, joinTracks, seenTogether, type Track, visibleFrames } from "./track";

interface KindRules {
  /** Score above which detections start tracks; weaker ones only extend them. */
  highScore: number;
  /** Search distance around the expected place, in multiples of its size. */
  reach: number;
  /** Longest gap in seconds that is closed without further evidence. */
  maxGapSeconds: number;
  /** Longest gap in seconds that is closed if the appearance is the same. */
  joinSeconds: number;
  /** Least mean score of a track's detections. */
  leastScore: number;
  /** Least seconds for which it must be seen: detectors err for moments, not for long. */
  leastSeconds: number;
}

const RULES = {
  face: { highScore: CLEAR_FACE, reach: 1.2, maxGapSeconds: 1, joinSeconds: 3, leastScore: 0.62, leastSeconds: 0.35 },
  person: { highScore: 0.45, reach: 0.6, maxGapSeconds: 1, joinSeconds: 3, leastScore: 0.42, leastSeconds: 0.6 },
  object: { highScore: 0.45, reach: 1, maxGapSeconds: 1, joinSeconds: 3, leastScore: 0.38, leastSeconds: 0.6 },
  motion: { highScore: 0.6, reach: 1.6, maxGapSeconds: 1, joinSeconds: 2, leastScore: 0, leastSeconds: 0.8 },
  salient: { highScore: 0.15, reach: 0.8, maxGapSeconds: 2, joinSeconds: 3, leastScore: 0.1, leastSeconds: 0.6 },
} satisfies Partial<Record<TrackKind, KindRules>>;
type FoundKind = keyof typeof RULES;
const FOUND_KINDS = Object.keys(RULES) as FoundKind[];

/** Least share of the looks between first and last sighting at which it was seen. */
const MIN_DENSITY = 0.35;
/** Share of a shot at which a known object makes all that merely moves or is salient superfluous. */
const LASTING_SHARE = 0.3;
/** Certainty that an object needs where there are people as well, and share of the time that it is alone. */
const SURE_THING = 0.5;
const ALONE = 0.8;
/** Share of its frames inside text at which a track is part of the text. */
const TEXT_SHARE = 0.5;
/** The upper part of a person's box that contains the centre of the face. */
const HEAD_PART = 0.55;
/** Seconds for which a lost thing is assumed to be where the flow has it. */
const LINGER_SECONDS = 0.4;

/** Usual distance in frames between looks for a kind: there are additional ones after sudden changes. */
function detectionInterval(frames: FrameDetections[], kind: TrackKind): number {
  const looked = frames.filter((seen) => seen.looked.includes(kind)).map(({ frame }) => frame);
  const intervals = looked.slice(1).map((frame, i) => frame - looked[i]!);
  return intervals.length > 0 ? Math.round(median(intervals)) : 1;
}

function isConvincing(tracklet: Tracklet, interval: number, shot: FrameRange, fps: number): boolean {
  const { sightings } = tracklet;
  const span = sightings.at(-1)!.frame - sightings[0]!.frame + interval;
  const { leastScore, leastSeconds } = RULES[tracklet.kind as FoundKind];
  const score = sightings.reduce((sum, { detection }) => sum + detection.score, 0) / sightings.length;
  if (score < leastScore) return false;
  const wanted = Math.min(leastSeconds * fps, 0.6 * (shot.end - shot.start));
  return span >= wanted && (sightings.length * interval) / span >= MIN_DENSITY;
}

/** Whether a face is at the head of a person. */
function isHeadOf(face: Box, person: Box): boolean {
  const centre = boxCentre(face);
  const inside = intersectionArea(face, person) > 0.5 * boxArea(face);
  return inside && centre.y < person.y + HEAD_PART * person.height;
}

/** Separates detections of persons by their faces: two people who pass each other look alike, and their faces do not. */
function withFaces(frames: readonly FrameDetections[], faces: readonly Track[]): FrameDetections[] {
  return frames.map((seen) => ({
    ...seen,
    detections: seen.detections.map((detection) => {
      if (detection.kind !== "person") return detection;
      const heads = faces.filter((face) => {
        const box = boxAt(face, seen.frame);
        return box && isHeadOf(box, detection.box);
      });
      return heads.length === 1 ? { ...detection, faceId: heads[0]!.id } : detection;
    }),
  }));
}

/** Share of a face's frames in which its centre lies in the upper part of the person's box. */
function belonging(face: Track, person: Track): number {
  let together = 0;
  let seen = 0;
  face.boxes.forEach((box, i) => {
    if (!box) return;
    seen++;
    const body = boxAt(person, face.start + i);
    if (body && isHeadOf(box, body)) together++;
  });
  return seen > 0 ? together / seen : 0;
}

/** Assigns each face the person with whom it is seen most, one face per person at a time. */
function joinFacesToPersons(tracks: Track[]): void {
  const persons = tracks.filter((track) => track.kind === "person");
  for (const face of tracks.filter((track) => track.kind === "face")) {
    const best = persons
      .map((person) => ({ person, share: belonging(face, person) }))
      .sort((a, b) => b.share - a.share)[0];
    if (best && best.share > 0.4) face.personId = best.person.id;
  }
}

/** A tracklet without sightings whose box contains more than the thing itself, for kinds that no detector knows. */
function wellSeen(tracklet: Tracklet, picture: Size): Tracklet {
  if (tracklet.kind === "salient") return withoutHolder(tracklet);
  return tracklet.kind === "motion" ? farEnd(withoutMergers(whatIsHeld(tracklet)), picture) : tracklet;
}

/**
 * All tracks of one shot from its detections. Ids are unique in the film: the shot's first frame and a serial, such as
 * "s120-face-1".
 */
export function buildTracks(frames: FrameDetections[], shot: FrameRange, rate: Rate, picture: Size): Track[] {
  const fps = framesPerSecond(rate);
  const inShot = frames.filter(({ frame }) => inRange(frame, shot));
  const tracksOf = (kind: FoundKind, detected: FrameDetections[]): Track[] => {
    const interval = detectionInterval(detected, kind);
    const { highScore, reach, maxGapSeconds, joinSeconds } = RULES[kind];
    const maxGapFrames = Math.max(2 * interval, Math.round(maxGapSeconds * fps));
    const found = associate(detected, kind, shot, { highScore, reach, maxGapFrames });
    const pieces = found.map((tracklet) => wellSeen(tracklet, picture));
    const joined = joinTracklets(pieces, {
      maxGapFrames: Math.round(joinSeconds * fps),
      reach: 2,
      reachPerSecond: 2.5,
      maxUnlikeness: 0.35,
      fps,
    });
    return joined
      .map((tracklet) => (kind === "motion" ? whatIsHeld(tracklet) : tracklet))
      .filter((tracklet) => isConvincing(tracklet, interval, shot, fps))
      .map((tracklet, i) => {
        const id = `s${shot.start}-${kind}-${i + 1}`;
        return fillTrack(tracklet, id, shot, picture, {
          bridgeFrames: maxGapFrames,
          detectionInterval: interval,
          lingerFrames: Math.round(LINGER_SECONDS * fps),
          placeSigma: 0.08 * fps,
          sizeSigma: 0.3 * fps,
        });
      });
  };
  const faces = tracksOf("face", inShot);
  const known = withFaces(inShot, faces);
  const others = FOUND_KINDS.filter((kind) => kind !== "face").flatMap((kind) => tracksOf(kind, known));
  const texts = textTracks(inShot, shot, picture);
  const wholes = inShot.map((seen) => ({ ...seen, detections: seen.detections.map(asWhole) }));
  const moving = others.some(({ held }) => held) ? inShot : wholes;
  const tracks = [...faces, ...others].map((track) =>
    track.kind === "salient" ? withWords(withMovement(track, moving, texts), inShot) : track,
  );
  joinFacesToPersons(tracks);
  for (const track of tracks) {
    const acting = actingIn(track, wholes, rate);
    if (acting.length > 0) track.acting = acting;
  }
  const tiles = tileTracks(inShot, shot, picture);
  return [...withoutShadows(withoutText(oneFaceEach(tracks), texts, picture), shot, picture), ...tiles, ...texts];
}

/** Motion or salience that is text is nothing else; nor is a face that may be a round letter. */
function withoutText(tracks: readonly Track[], texts: readonly Track[], picture: Size): Track[] {
  const mayBeText = (track: Track) =>
    track.kind === "motion" || track.kind === "salient" || isDoubtfulFace(track, picture);
  return tracks.filter((track) => !mayBeText(track) || shareWithin(track, texts) < TEXT_SHARE);
}

/** Faces of one person that are never seen together are one face, with a gap. */
function oneFaceEach(tracks: readonly Track[]): Track[] {
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
function withoutShadows(tracks: readonly Track[], shot: FrameRange, picture: Size): Track[] {
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
