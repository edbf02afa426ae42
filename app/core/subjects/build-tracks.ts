import { boxArea, boxCentre, intersectionArea, type Size } from "../geometry/box";
import { framesPerSecond, type FrameRange, type Rate } from "../time/rate";
import { associate, type Tracklet } from "./associate";
import type { FrameDetections, TrackKind } from "./detection";
import { fillTrack } from "./fill-track";
import { boxAt, type Track } from "./track";

/** Seconds for which something must be seen to count: a detector errs for moments, not for long. */
const MIN_SECONDS: Record<string, number> = { face: 0.3, person: 0.4, object: 0.5 };
/** Share of the looks between first and last sighting in which it must have been seen. */
const MIN_DENSITY = 0.35;

const RULES: Record<string, { highScore: number; reach: number; maxGapSeconds: number }> = {
  face: { highScore: 0.7, reach: 1.2, maxGapSeconds: 1 },
  person: { highScore: 0.45, reach: 0.6, maxGapSeconds: 1 },
  object: { highScore: 0.45, reach: 1, maxGapSeconds: 0.7 },
};

function lookInterval(frames: FrameDetections[], kind: TrackKind): number {
  const looks = frames.filter((f) => f.looked.includes(kind)).map((f) => f.frame);
  return Math.max(1, (looks[1] ?? 1) - (looks[0] ?? 0));
}

function isConvincing(tracklet: Tracklet, interval: number, shot: FrameRange, fps: number): boolean {
  const { sightings } = tracklet;
  const span = sightings.at(-1)!.frame - sightings[0]!.frame + interval;
  const wanted = Math.min(MIN_SECONDS[tracklet.kind]! * fps, 0.6 * (shot.end - shot.start));
  return span >= wanted && (sightings.length * interval) / span >= MIN_DENSITY;
}

/** Share of the frames in which a face is seen where its centre lies in the upper part of the person's box. */
function belonging(face: Track, person: Track): number {
  let together = 0;
  let seen = 0;
  face.boxes.forEach((box, i) => {
    if (!box) return;
    seen++;
    const body = boxAt(person, face.start + i);
    if (!body) return;
    const centre = boxCentre(box);
    const inside = intersectionArea(box, body) > 0.5 * boxArea(box);
    if (inside && centre.y < body.y + 0.55 * body.height) together++;
  });
  return seen > 0 ? together / seen : 0;
}

/** Gives each face the person it is seen with most, one face a person at a time. */
function joinFacesToPersons(tracks: Track[]): void {
  const persons = tracks.filter((track) => track.kind === "person");
  for (const face of tracks.filter((track) => track.kind === "face")) {
    const best = persons
      .map((person) => ({ person, share: belonging(face, person) }))
      .sort((a, b) => b.share - a.share)[0];
    if (best && best.share > 0.4) face.personId = best.person.id;
  }
}

/**
 * All tracks of one shot from what the detectors saw in it. Ids are unique in the film: shot's number and a
 * serial, such as "s3-face-1".
 */
export function buildTracks(
  frames: FrameDetections[],
  shot: FrameRange,
  shotNumber: number,
  rate: Rate,
  picture: Size,
): Track[] {
  const fps = framesPerSecond(rate);
  const inShot = frames.filter(({ frame }) => frame >= shot.start && frame < shot.end);
  const tracks = (["face", "person", "object"] as const).flatMap((kind) => {
    const interval = lookInterval(inShot, kind);
    const { highScore, reach, maxGapSeconds } = RULES[kind]!;
    const tracklets = associate(inShot, kind, shot, {
      highScore,
      reach,
      maxGapFrames: Math.max(2 * interval, Math.round(maxGapSeconds * fps)),
    });
    return tracklets
      .filter((tracklet) => isConvincing(tracklet, interval, shot, fps))
      .map((tracklet, i) =>
        fillTrack(tracklet, `s${shotNumber}-${kind}-${i + 1}`, shot, picture, {
          bridgeFrames: Math.max(2 * interval, Math.round(maxGapSeconds * fps)),
          lookInterval: interval,
          placeSigma: 0.08 * fps,
          sizeSigma: 0.3 * fps,
        }),
      );
  });
  joinFacesToPersons(tracks);
  return tracks;
}
