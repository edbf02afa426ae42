/** What is seen in the pictures of a film that optical flow goes by, one after the other. */
import { type Box, boxArea, intersectionArea, type Size } from "~/core/geometry/box";
import { type GreyPlane, lumaOf } from "~/core/image/grey-plane";
import { PYRAMID_SCALE } from "~/core/image/grey-pyramid";
import type { YuvImage } from "~/core/image/yuv-image";
import { plainEdges } from "~/core/shots/plain-edges";
import { boxesInside } from "~/core/subjects/detecting/any-boxes";
import { cameraMotion, type CameraStep } from "~/core/subjects/detecting/camera-motion";
import { FlowPropagator } from "~/core/subjects/detecting/propagate";
import { type Detection, type FrameDetections, type TrackKind } from "~/core/subjects/detecting/detection";
import { facingOf } from "~/core/subjects/detecting/facing";
import { likelyThings } from "~/core/subjects/detecting/likely-things";
import { movingThings } from "~/core/subjects/detecting/moving";
import { opticalFlow } from "~/core/subjects/detecting/optical-flow";
import { salientThings } from "~/core/subjects/detecting/saliency";
import { detailSide, sharpnessOf } from "~/core/subjects/detecting/sharpness";
import { signatureOf } from "~/core/subjects/detecting/signature";
import { TextWatch } from "~/core/subjects/text/text-watch";
import { RectangleFinder } from "~/core/subjects/tiles/rectangles";
import type { Found } from "~/media/detect/detect-worker";

/** Share of the picture's width by which a camera clearly moves between looks. */
const CAMERA_MOVES = 0.004;

/** Rounded to a number of decimal places, for storage. */
export const rounded = (value: number, digits: number) => Number(value.toFixed(digits));

/** Share of a box that lines of text cover. */
const shareCovered = (box: Box, lines: readonly Box[]): number =>
  Math.min(1, lines.reduce((sum, line) => sum + intersectionArea(line, box), 0) / boxArea(box));

/** A picture on its way from the decoder to the propagation of its detections. */
export interface Step {
  frame: number;
  image: YuvImage;
  pyramid: GreyPlane[];
  detection: { objects: boolean; result: Promise<Found> } | null;
}

/** Processes steps in order once their detections are there; the result does not depend on when that is. */
export class StepReader {
  readonly detected: FrameDetections[] = [];
  readonly camera: CameraStep[] = [];
  private readonly propagator: FlowPropagator;
  private readonly texts = new TextWatch();
  private readonly rectangles: RectangleFinder;
  private before: Step | null = null;
  /** Pixels by which the camera has moved since the last look. */
  private cameraMoved = 0;

  constructor(
    private readonly stepFrames: number,
    propagationSteps: number,
    size: Size,
    private readonly scale: number,
    private readonly area: Box,
  ) {
    this.propagator = new FlowPropagator(propagationSteps);
    this.rectangles = new RectangleFinder(size);
  }

  async read(step: Step): Promise<void> {
    const { frame, image, pyramid, detection } = step;
    const moving: Detection[] = [];
    const moved = { x: 0, y: 0 };
    if (this.before) {
      const flow = opticalFlow(this.before.pyramid, pyramid, this.propagator.points());
      const camera = cameraMotion(flow, pyramid[0]!);
      this.camera.push({
        frame,
        a: rounded(camera.a, 5),
        b: rounded(camera.b, 5),
        tx: rounded(PYRAMID_SCALE * this.scale * camera.tx, 2),
        ty: rounded(PYRAMID_SCALE * this.scale * camera.ty, 2),
        share: rounded(camera.share, 2),
      });
      this.propagator.advance(flow, image);
      if (camera.share >= 0.5) {
        moved.x = PYRAMID_SCALE * camera.tx;
        moved.y = PYRAMID_SCALE * camera.ty;
        this.cameraMoved += Math.hypot(moved.x, moved.y);
      }
      if (detection) moving.push(...movingThings(this.before.pyramid[0]!, pyramid[0]!, camera, image, this.area));
    }
    this.before = step;
    const luma = lumaOf(image);
    this.texts.see(frame, luma, moved);
    if (!detection) return;
    const cameraMoved = this.cameraMoved >= CAMERA_MOVES * image.width;
    this.cameraMoved = 0;
    const found = await detection.result;
    const texts = this.texts.look(found.lines ?? null);
    const detections = [...found.detections, ...moving];
    const looked: TrackKind[] = ["face", "motion"];
    if (detection.objects) {
      looked.push("person", "object", "salient");
      if (found.boxes) {
        const boxes = boxesInside(found.boxes, this.area);
        detections.push(...likelyThings(boxes, salientThings(image, this.area), image));
      }
    }
    for (const detection of detections) {
      const signature = signatureOf(image, detection.kind, detection.box);
      if (signature) detection.signature = signature;
      detection.sharpness = rounded(sharpnessOf(image, detection.box), 3);
      if (detection.kind === "object" || detection.kind === "salient")
        detection.detailSide = rounded(detailSide(image, detection.box), 2);
      if (detection.kind === "salient" && found.lines)
        detection.written = rounded(shareCovered(detection.box, found.lines), 2);
      if (detection.landmarks) detection.facing = rounded(facingOf(detection.landmarks), 2);
    }
    this.propagator.see(detections, image);
    const plain = plainEdges(image.luma, image);
    const rectangles = this.rectangles.see(luma);
    this.detected.push({
      frame,
      looked,
      step: this.stepFrames,
      detections,
      texts,
      rectangles,
      cameraMoved,
      plain,
    });
  }
}
