/** Things known only by their motion, while they do not move, or move where something else does. */
import { type Box, boxArea, boxAround, boxCentre, type Size, visiblePart } from "../../geometry/box";
import { median } from "../../numbers/median";
import type { FrameRange } from "../../time/rate";
import type { Sighting, Tracklet } from "./associate";
import type { CameraStep } from "../detecting/camera-motion";
import type { Detection } from "../detecting/detection";
import { extentOf, type Track } from "./track";

/** Sightings on each side from which the usual size around one is taken. */
const NEIGHBOURS = 8;
/** Multiple of the usual size above which a sighting holds something else as well. */
const TOO_LARGE = 1.6;
/** Distance from the picture's edge, as a share of its longer side, within which a box is leaving or entering. */
const AT_EDGE = 0.01;

const areaOf = ({ detection }: Sighting) => boxArea(detection.box);

/** Removes sightings in which a thing was merged with one that it passed. */
export function withoutMergers(tracklet: Tracklet): Tracklet {
  const sightings = tracklet.sightings.filter((sighting, i, all) => {
    const around = all.slice(Math.max(0, i - NEIGHBOURS), i + NEIGHBOURS + 1);
    return areaOf(sighting) <= TOO_LARGE * median(around.map(areaOf));
  });
  return { ...tracklet, sightings };
}

/** Quantile of a salient thing's sightings that hold nothing beside it. */
const ALONE_SHARE = 0.35;

/** Removes sightings in which a salient thing was merged with what holds it, or with its surroundings. */
export function withoutHolder(tracklet: Tracklet): Tracklet {
  const areas = tracklet.sightings.map(areaOf).sort((a, b) => a - b);
  const alone = areas[Math.floor(ALONE_SHARE * areas.length)]!;
  return { ...tracklet, sightings: tracklet.sightings.filter((sighting) => areaOf(sighting) <= TOO_LARGE * alone) };
}

/** Share of sightings in which motion must be that of a thing with an arm, and more than once. */
const HELD = 0.5;
const LEAST_HELD = 2;

/** Motion with everything that may be an arm, where closer analysis finds none. */
export function asWhole(detection: Detection): Detection {
  const { withArm, ...whole } = detection;
  // The flow of the thing alone is not that of the whole.
  return withArm ? { ...whole, box: withArm, ...(whole.propagated && { propagated: [] }) } : detection;
}

/**
 * The sightings in which a thing was separated from the arm that moves it; all of them, with motion as a whole, where these
 * are few.
 */
export function whatIsHeld(tracklet: Tracklet): Tracklet {
  const held = tracklet.sightings.filter(({ detection }) => detection.withArm);
  if (held.length >= Math.max(LEAST_HELD, HELD * tracklet.sightings.length)) return { ...tracklet, sightings: held };
  const sightings = tracklet.sightings.map((sighting) => ({ ...sighting, detection: asWhole(sighting.detection) }));
  return { ...tracklet, sightings };
}

/** Share of sightings in which motion must lead out of the picture at a side. */
const LEADING_OUT = 0.7;
/** The held part at the far end, as a multiple of the height. */
const HELD_PART = 0.8;

/**
 * Of motion that leads out of the picture at a side all the time, as an arm does, the other end: that is the subject, even
 * where nothing separates the two.
 */
export function farEnd(tracklet: Tracklet, picture: Size): Tracklet {
  const { sightings } = tracklet;
  const margin = AT_EDGE * picture.width;
  const isLong = ({ width, height }: Box) => width > HELD_PART * height;
  const outAt = (isOut: (box: Box) => boolean) =>
    sightings.filter(({ detection: { box } }) => isOut(box) && isLong(box)).length >= LEADING_OUT * sightings.length;
  const left = outAt(({ x }) => x < margin);
  const right = outAt(({ x, width }) => x + width > picture.width - margin);
  if (left === right) return tracklet;
  return {
    ...tracklet,
    sightings: sightings.map((sighting) => {
      const { box } = sighting.detection;
      if (!isLong(box)) return sighting;
      const width = HELD_PART * box.height;
      const end = { ...box, width, x: left ? box.x + box.width - width : box.x };
      // The flow of the whole is not that of its end.
      return { ...sighting, detection: { ...sighting.detection, box: end, propagated: [] } };
    }),
  };
}

/** A stationary box after the camera has moved by a share of a step, forwards or back. */
function withCamera(box: Box, { a, b, tx, ty }: CameraStep, share: number, back: boolean): Box {
  const { x, y } = boxCentre(box);
  const [dx, dy] = [a * x - b * y + tx - x, b * x + a * y + ty - y];
  const growth = a ** share;
  // A step is so small that its inverse is the opposite step.
  const sign = back ? -share : share;
  const size = back ? 1 / growth : growth;
  return boxAround({ x: x + sign * dx, y: y + sign * dy }, { width: box.width * size, height: box.height * size });
}

const atEdge = (box: Box, picture: Size): boolean => {
  const margin = AT_EDGE * Math.max(picture.width, picture.height);
  return (
    box.x < margin ||
    box.y < margin ||
    box.x + box.width > picture.width - margin ||
    box.y + box.height > picture.height - margin
  );
};

/**
 * A thing that starts to move was there before, and one that stops is still there: its track is extended to both ends of
 * the shot along the camera's motion, unless it entered or left the picture.
 * @param camera the steps in the shot, in order
 */
export function stayingOn(track: Track, shot: FrameRange, camera: readonly CameraStep[], picture: Size): Track {
  const { start, end } = extentOf(track);
  const boxes = new Map<number, Box | null>(track.boxes.map((box, i) => [start + i, box]));
  const go = (from: number, to: number, direction: 1 | -1) => {
    let box = boxes.get(from) ?? null;
    if (!box || atEdge(box, picture)) return;
    for (let frame = from + direction; frame !== to && box; frame += direction) {
      const later = direction > 0 ? frame : frame + 1;
      const at = camera.findIndex((step) => step.frame >= later);
      const step = camera[at];
      if (step) {
        const frames: number = step.frame - (camera[at - 1]?.frame ?? shot.start);
        box = withCamera(box, step, 1 / Math.max(1, frames), direction < 0);
      }
      box = visiblePart(box, picture);
      boxes.set(frame, box);
    }
  };
  go(end - 1, shot.end, 1);
  go(start, shot.start - 1, -1);
  const frames = Array.from({ length: shot.end - shot.start }, (_, i) => shot.start + i);
  return { ...track, start: shot.start, boxes: frames.map((frame) => boxes.get(frame) ?? null) };
}
