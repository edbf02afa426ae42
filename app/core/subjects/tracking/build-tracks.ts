import { type Size } from "../../geometry/box";
import { median } from "../../numbers/median";
import { framesPerSecond, type FrameRange, inRange, type Rate } from "../../time/rate";
import { actingIn } from "./acting";
import { associate, type Tracklet } from "./associate";
import { CLEAR_FACE, CLEAR_THING, type FrameDetections, type TrackKind } from "../detecting/detection";
import { fillTrack } from "./fill-track";
import { tileTracks } from "../tiles/tile-tracks";
import { textTracks } from "../text/text-tracks";
import { joinTracklets } from "./join-tracklets";
import { withMovement } from "./movement";
import { withWords } from "./signs";
import { asWhole, farEnd, whatIsHeld, withoutHolder, withoutMergers } from "./stay";
import { type Track } from "./track";
import { joinFacesToPersons, withFaces } from "./heads";
import { oneFaceEach, withoutShadows, withoutText } from "./superfluous";

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
  salient: {
    highScore: CLEAR_THING,
    reach: 0.8,
    maxGapSeconds: 2,
    joinSeconds: 3,
    leastScore: 0.15,
    leastSeconds: 0.6,
  },
} satisfies Partial<Record<TrackKind, KindRules>>;
type FoundKind = keyof typeof RULES;
const FOUND_KINDS = Object.keys(RULES) as FoundKind[];

/** Least share of the looks between first and last sighting at which it was seen. */
const MIN_DENSITY = 0.35;
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

/** A tracklet without sightings whose box contains more than the thing itself, for kinds that no detector knows. */
function wellSeen(tracklet: Tracklet, picture: Size): Tracklet {
  if (tracklet.kind === "salient") return withoutHolder(tracklet);
  return tracklet.kind === "motion" ? farEnd(withoutMergers(whatIsHeld(tracklet)), picture) : tracklet;
}

/**
 * All tracks of one shot from its detections, and those of later frames where they are known: text may end with the shot.
 * Ids are unique in the film: the shot's first frame and a serial, such as
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
  const texts = textTracks(frames, shot, picture);
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
