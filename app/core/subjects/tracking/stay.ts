/** What is known only by its movement, when it does not move, or moves where something else does. */
import { type Box, boxArea, boxAround, boxCentre, type Size, visiblePart } from "../../geometry/box";
import { median } from "../../numbers/median";
import type { FrameRange } from "../../time/rate";
import type { Sighting, Tracklet } from "./associate";
import type { CameraStep } from "../detecting/camera-motion";
import type { Detection } from "../detecting/detection";
import { extentOf, type Track } from "./track";

/** Sightings to each side that say how large a thing is around one of them. */
const NEIGHBOURS = 8;
/** A sighting so many times as large holds something else as well. */
const TOO_LARGE = 1.6;
/** A box this near the picture's edge, as a share of the picture's longer side, is leaving it or coming in. */
const AT_EDGE = 0.01;

const areaOf = ({ detection }: Sighting) => boxArea(detection.box);

/** Leaves out the sightings in which a thing was taken together with one that it passed. */
export function withoutMergers(tracklet: Tracklet): Tracklet {
  const sightings = tracklet.sightings.filter((sighting, i, all) => {
    const around = all.slice(Math.max(0, i - NEIGHBOURS), i + NEIGHBOURS + 1);
    return areaOf(sighting) <= TOO_LARGE * median(around.map(areaOf));
  });
  return { ...tracklet, sightings };
}

/** Of the sightings of what stands out, so many have no more in their box than the thing. */
const ALONE_SHARE = 0.35;

/** Leaves out the sightings in which what stands out was taken together with what holds it, or lies beside it. */
export function withoutHolder(tracklet: Tracklet): Tracklet {
  const areas = tracklet.sightings.map(areaOf).sort((a, b) => a - b);
  const alone = areas[Math.floor(ALONE_SHARE * areas.length)]!;
  return { ...tracklet, sightings: tracklet.sightings.filter((sighting) => areaOf(sighting) <= TOO_LARGE * alone) };
}

/** What moves is a thing with an arm if it is seen as that in this share of its sightings, and more than once. */
const HELD = 0.5;
const LEAST_HELD = 2;

/** What moves with all that may be an arm, where a closer look says it is none. */
export function asWhole(detection: Detection): Detection {
  const { withArm, ...whole } = detection;
  // Where the thing went by the flow says nothing of the whole.
  return withArm ? { ...whole, box: withArm, ...(whole.propagated && { propagated: [] }) } : detection;
}

/** The sightings in which a thing was told from the arm that moves it; all, with what moves as a whole, where few are. */
export function whatIsHeld(tracklet: Tracklet): Tracklet {
  const held = tracklet.sightings.filter(({ detection }) => detection.withArm);
  if (held.length >= Math.max(LEAST_HELD, HELD * tracklet.sightings.length)) return { ...tracklet, sightings: held };
  const sightings = tracklet.sightings.map((sighting) => ({ ...sighting, detection: asWhole(sighting.detection) }));
  return { ...tracklet, sightings };
}

/** What moves leads out of the picture at a side if it does so in this share of its sightings. */
const LEADING_OUT = 0.7;
/** The end of what leads out of the picture, as a multiple of its height, in which it holds something. */
const HELD_PART = 0.8;

/**
 * Of what leads out of the picture at a side all the time, as an arm does, the other end: that is what it is about, also
 * where nothing tells the one from the other.
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
      // Where all of it went by the flow says nothing of its end.
      return { ...sighting, detection: { ...sighting.detection, box: end, propagated: [] } };
    }),
  };
}

/** Where a box that does not move itself is when the camera has gone a share of a step on, or back. */
function withCamera(box: Box, { a, b, tx, ty }: CameraStep, share: number, back: boolean): Box {
  const { x, y } = boxCentre(box);
  const [dx, dy] = [a * x - b * y + tx - x, b * x + a * y + ty - y];
  const growth = a ** share;
  // A step is so small that going back along it is going the opposite way.
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
 * A thing that begins to move was there before, and one that stops is there still: its track goes on to both ends of the
 * shot as the camera moves, unless it came into the picture or left it.
 *
 * @param camera the steps within the shot, in order
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
