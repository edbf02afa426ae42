/** Propagates the detections of a frame by optical flow, until they are detected again or lost. */
import { clamped } from "../../numbers/clamped";
import { type Box, boxCentre, boxIou, type Point } from "../../geometry/box";
import { PYRAMID_SCALE } from "../../image/grey-pyramid";
import type { YuvImage } from "../../image/yuv-image";
import { median } from "../../numbers/median";
import type { Detection } from "./detection";
import { type FacePatches, facePatches, mouthMovement } from "./mouth";
import { type Flow, isBlind, PICTURE_POINT } from "./optical-flow";

/** Overlap with a propagated box above which a detection is of the same thing. */
const SEEN_ANEW = 0.35;
/** With fewer points than this on a thing, its size is assumed constant. */
const POINTS_FOR_SIZE = 6;
const MAX_GROWTH = 1.06;
/** Fewest points that keep a thing from being lost. */
const LEAST_POINTS = 3;
/** Places of the points that are followed on each thing, as shares of its core. */
const GRID: readonly Point[] = [0.1, 0.37, 0.63, 0.9].flatMap((y) => [0.1, 0.37, 0.63, 0.9].map((x) => ({ x, y })));

interface Carried {
  detection: Detection;
  box: Box;
  mouth: Point | null;
  patches: FacePatches | null;
}

/** The part in or below a box where most points belong to the thing and not to the background. */
function core({ kind }: Detection, { x, y, width, height }: Box): Box {
  // A face may be smooth or small; the chest below moves with it.
  if (kind === "face") return { x: x + 0.1 * width, y: y + 0.1 * height, width: 0.8 * width, height: 1.5 * height };
  const [across, top, bottom] = kind === "person" ? [0.3, 0.05, 0.6] : [0.15, 0.15, 0.85];
  return {
    x: x + across * width,
    y: y + top * height,
    width: (1 - 2 * across) * width,
    height: (bottom - top) * height,
  };
}

/**
 * Points of the flow in a part of the picture: the picture's own, and those of one group. Those of other things are left
 * out, so that propagation does not depend on what else is propagated.
 */
function pointsIn(flow: Flow, part: Box, group: number): number[] {
  const [left, top] = [part.x / PYRAMID_SCALE, part.y / PYRAMID_SCALE];
  const [right, bottom] = [left + part.width / PYRAMID_SCALE, top + part.height / PYRAMID_SCALE];
  const points: number[] = [];
  for (let i = 0; i < flow.count; i++) {
    if (flow.group[i] !== PICTURE_POINT && flow.group[i] !== group) continue;
    if (flow.x[i]! >= left && flow.x[i]! < right && flow.y[i]! >= top && flow.y[i]! < bottom) points.push(i);
  }
  return points;
}

/** Factor by which points have moved apart; 1 where it is unknown. */
function growthOf(flow: Flow, points: readonly number[], dx: number, dy: number): number {
  if (points.length < POINTS_FOR_SIZE) return 1;
  const mx = median(points.map((i) => flow.x[i]!));
  const my = median(points.map((i) => flow.y[i]!));
  const ratios: number[] = [];
  for (const i of points) {
    const before = Math.hypot(flow.x[i]! - mx, flow.y[i]! - my);
    if (before < 4) continue;
    ratios.push(Math.hypot(flow.x[i]! + flow.dx[i]! - mx - dx, flow.y[i]! + flow.dy[i]! - my - dy) / before);
  }
  return ratios.length >= 4 ? clamped(median(ratios), 1 / MAX_GROWTH, MAX_GROWTH) : 1;
}

/** A box moved with its points, in pixels of the picture; null where too few can be followed. */
function follow(box: Box, inside: Box, flow: Flow, group: number): Box | null {
  const points = pointsIn(flow, inside, group);
  if (points.length < LEAST_POINTS) return null;
  const dx = median(points.map((i) => flow.dx[i]!));
  const dy = median(points.map((i) => flow.dy[i]!));
  const growth = growthOf(flow, points, dx, dy);
  const centre = boxCentre(box);
  const [width, height] = [box.width * growth, box.height * growth];
  return { x: centre.x + PYRAMID_SCALE * dx - width / 2, y: centre.y + PYRAMID_SCALE * dy - height / 2, width, height };
}

/** Propagates detections from step to step. They are changed in place: `propagated` and `mouth` grow. */
export class FlowPropagator {
  private active: Carried[] = [];

  /** @param maxSteps steps for which something is propagated without being detected again */
  constructor(private readonly maxSteps: number) {}

  /** Takes the detections of the current picture; what is detected again is propagated no further. */
  see(detections: readonly Detection[], image: YuvImage): void {
    this.active = this.active.filter(
      ({ detection, box }) =>
        !detections.some((seen) => seen.kind === detection.kind && boxIou(seen.box, box) > SEEN_ANEW),
    );
    for (const detection of detections) {
      const mouth = detection.landmarks?.mouth ?? null;
      const patches = mouth && facePatches(image, detection.box, mouth);
      this.active.push({ detection, box: detection.box, mouth, patches });
    }
  }

  /** Points whose flow is needed beside that of the picture's own corners: a grid on each propagated thing. */
  points(): Point[][] {
    return this.active.map(({ detection, box }) => {
      const { x, y, width, height } = core(detection, box);
      return GRID.map((share) => ({
        x: (x + share.x * width) / PYRAMID_SCALE,
        y: (y + share.y * height) / PYRAMID_SCALE,
      }));
    });
  }

  /** Advances everything to the next picture by a flow that includes the `points`. */
  advance(flow: Flow, image: YuvImage): void {
    const lost = new Set<Carried>();
    for (const [group, propagated] of this.active.entries()) {
      const { detection, box, mouth } = propagated;
      // In a blind picture, everything is assumed to stay.
      const next = isBlind(flow) ? box : follow(box, core(detection, box), flow, group);
      if (!next) {
        lost.add(propagated);
        continue;
      }
      propagated.box = next;
      (detection.propagated ??= []).push(propagated.box);
      if (!mouth) continue;
      const [before, after] = [boxCentre(box), boxCentre(propagated.box)];
      propagated.mouth = { x: mouth.x + after.x - before.x, y: mouth.y + after.y - before.y };
      const patches = facePatches(image, propagated.box, propagated.mouth);
      const moved = propagated.patches && patches ? mouthMovement(propagated.patches, patches) : 0;
      (detection.mouth ??= []).push(Math.round(1000 * moved) / 1000);
      propagated.patches = patches;
    }
    this.active = this.active.filter((propagated) => {
      const { detection, box } = propagated;
      if (lost.has(propagated)) return false;
      const centre = boxCentre(box);
      const inside = centre.x > 0 && centre.y > 0 && centre.x < image.width && centre.y < image.height;
      return inside && detection.propagated!.length < this.maxSteps;
    });
  }
}
